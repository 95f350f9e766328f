import { useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { say, told } from "../text/say";
import { print } from "../units/print";

type Outcome = components["schemas"]["BilletOutcome"];
type State = Outcome["states"][number];

const tones: Record<string, string> = { bright: "#d9dde0", dark: "#3b4247", grey: "#8a9298" };
const wide = 620;

/** The billet from the side after every step, all on one scale: layer on layer, as long as it then is. */
export function Strata({ outcome, filled }: { outcome: Outcome; filled: boolean }) {
  const units = useUnits();
  const longest = Math.max(...outcome.states.map((s) => s.lengthMm), 1);
  const k = wide / longest;
  const tone = new Map(outcome.shares.map((s) => [s.steelId, tones[s.tone] ?? "#8a9298"]));
  return (
    <ol className="grid gap-2" data-testid="strata">
      {outcome.states.map((s, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: steps in order
        <li key={i} data-strata={s.step}>
          <span className="flex flex-wrap items-baseline gap-x-3">
            <span className="narrow text-lg">{told(`step.${s.step}`)}</span>
            <span className="text-quiet">
              {say(filled ? "billet.stateFilled" : "billet.state", {
                w: print.length(s.widthMm, units),
                t: print.thickness(Math.round(s.thicknessMm * 100) / 100, units),
                l: print.length(s.lengthMm, units),
                n: s.layers,
              })}
            </span>
          </span>
          <Side state={filled ? { ...s, drawn: [{ steel: "", thicknessMm: s.thicknessMm }] } : s} k={k} tone={tone} />
        </li>
      ))}
    </ol>
  );
}

/** What is seen of it from the side; layers too many to draw are drawn as fine lines. */
function Side({ state: s, k, tone }: { state: State; k: number; tone: Map<string, string> }) {
  const high = Math.max(3, s.thicknessMm * k);
  let at = 0;
  return (
    <svg
      viewBox={`0 0 ${wide} ${high.toFixed(1)}`}
      style={{ width: "100%", maxWidth: `${wide}px` }}
      aria-hidden
      shapeRendering="crispEdges"
    >
      {s.drawn ? (
        s.drawn.map((l, i) => {
          const y = high - ((at + l.thicknessMm) / s.thicknessMm) * high;
          at += l.thicknessMm;
          return (
            <rect
              // biome-ignore lint/suspicious/noArrayIndexKey: layers in order
              key={i}
              x="0"
              y={y}
              width={s.lengthMm * k}
              height={(l.thicknessMm / s.thicknessMm) * high}
              fill={tone.get(l.steel) ?? tones.grey}
            />
          );
        })
      ) : (
        <>
          <rect x="0" y="0" width={s.lengthMm * k} height={high} fill={tones.grey} />
          {Array.from({ length: Math.ceil(high / 2) }, (_, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: lines in order
            <rect key={i} x="0" y={i * 2} width={s.lengthMm * k} height="1" fill={tones.dark} />
          ))}
        </>
      )}
    </svg>
  );
}
