import { Link, useLocation } from "react-router";
import { say, told } from "../text/say";
import { Sheet } from "../ui/Sheet";

/** Keys by where they work; those of the page that is open come first. */
const groups: [string, string[], RegExp?][] = [
  ["keys.lists", ["N2"], /^\/(rack)?$/],
  ["keys.everywhere", ["?", "mod+K", "G", "L", "K", "W", "S", "U", "T"]],
  ["keys.piece", ["1–8", "mod+Z", "mod+shift+Z", "F", "N", "+ −", "0", "P"], /^\/pieces\/./],
  ["keys.heats", ["[", "]", "esc", "beads"], /^\/pieces\/./],
  [
    "keys.step",
    ["space", "back", "anvilN", "anvilD", "anvilP", "anvilRFM", "anvilHJ", "anvilB", "esc3"],
    /^\/pieces\/./,
  ],
  ["keys.drawing", ["tab", "enter", "esc2", "arrows", "C", "del"], /^\/pieces\/./],
];

const shown = (k: string) =>
  say(`keycap.${k}` as "keycap.del") === `keycap.${k}`
    ? k
        .replace("mod+", "Ctrl ")
        .replace("shift+", "Shift ")
        .replace(/^N2$/, "N")
        .replace(/^esc\d?$/, "Esc")
    : say(`keycap.${k}` as "keycap.del");

/** What the keyboard can do. */
export function Shortcuts({ open, onClose }: { open: boolean; onClose: () => void }) {
  const page = useLocation().pathname;
  const here = groups.filter(([, , where]) => !where || where.test(page));
  return (
    <Sheet open={open} onClose={onClose} title={say("keys.title")} wide>
      <div className="grid gap-6 sm:grid-cols-2">
        {here.map(([code, keys]) => (
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
      <p className="mt-5 flex flex-wrap items-center gap-3 border-t border-line pt-3 text-quiet">
        <span className="mr-auto">{say("keys.typing")}</span>
        <Link className="press" to="/help" onClick={onClose}>
          {say("nav.handbook")}
        </Link>
      </p>
    </Sheet>
  );
}
