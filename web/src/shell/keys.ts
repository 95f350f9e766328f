import { useLayoutEffect } from "react";

/** A key press that does something: "z" alone, "mod+z" with Ctrl or Cmd. */
export type Keys = Record<string, (e: KeyboardEvent) => void>;

const typing = (t: EventTarget | null) =>
  t instanceof HTMLElement && (t.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName));

/** Listens for keys while the component is there. Plain keys are left alone while something is typed,
 * and all of them while a sheet, a choice or a menu is open: there letters choose. */
export function useKeys(keys: Keys): void {
  // with the picture and not after it: a key pressed at the first sight of the screen counts
  useLayoutEffect(() => {
    const on = (e: KeyboardEvent) => {
      const mod = e.ctrlKey || e.metaKey;
      const name = `${mod ? "mod+" : ""}${e.shiftKey && mod ? "shift+" : ""}${e.key.length === 1 && mod ? e.key.toLowerCase() : e.key}`;
      const f = keys[name];
      if (
        !f ||
        e.altKey ||
        (!mod && typing(e.target)) ||
        document.querySelector("[role=dialog],[role=listbox],[role=menu]")
      )
        return;
      e.preventDefault();
      f(e);
    };
    window.addEventListener("keydown", on);
    return () => window.removeEventListener("keydown", on);
  });
}
