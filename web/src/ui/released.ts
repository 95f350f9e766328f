const pressed = new Set<string>();
addEventListener("keydown", (e) => pressed.add(e.code), true);
addEventListener("keyup", (e) => pressed.delete(e.code), true);
addEventListener("blur", () => pressed.clear());

/** Opens something once the key that asked for it is up again: while it is down, it would go on in what opens. */
export function released(open: () => void) {
  const on = () => {
    if (pressed.size > 0) return;
    removeEventListener("keyup", on, true);
    removeEventListener("blur", on);
    setTimeout(open);
  };
  addEventListener("keyup", on, true);
  addEventListener("blur", on);
  on();
}
