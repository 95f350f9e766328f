import { say, told } from "../text/say";
import { Sheet } from "../ui/Sheet";

const groups: [string, string[]][] = [
  ["keys.everywhere", ["?", "mod+K", "G", "L", "K", "W", "S", "U", "T"]],
  ["keys.piece", ["1–4", "mod+Z", "mod+shift+Z", "F", "N", "+ −", "0", "P"]],
  ["keys.heats", ["[", "]", "esc"]],
  ["keys.drawing", ["tab", "enter", "esc2", "arrows"]],
];

const shown = (k: string) =>
  k.replace("mod+", "Ctrl ").replace("shift+", "Shift ").replace("esc2", "Esc").replace("esc", "Esc");

/** What the keyboard can do. */
export function Shortcuts({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Sheet open={open} onClose={onClose} title={say("keys.title")} wide>
      <div className="grid gap-6 sm:grid-cols-2">
        {groups.map(([code, keys]) => (
          <section key={code}>
            <h3 className="mb-1 text-lg text-quiet">{told(code)}</h3>
            <dl className="grid grid-cols-[7rem_1fr] gap-y-1">
              {keys.map((k) => (
                <div key={k} className="contents">
                  <dt>
                    <kbd className="narrow rounded border border-line px-1.5">{shown(k)}</kbd>
                  </dt>
                  <dd>{told(`key.${k}`)}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <p className="mt-5 border-t border-line pt-3 text-quiet">{say("keys.typing")}</p>
    </Sheet>
  );
}
