import { useUnits } from "../../api/hooks";
import { say, told } from "../../text/say";
import { print } from "../../units/print";
import type { Finished } from "./useFinish";

type Node = number[];
const scale = 3.4;

/** Guard and bolster from their front, and the grip across, each with its figures. */
export function FittingsDrawn({ f }: { f: Finished }) {
  const units = useUnits();
  const h = f.handle;
  if (h.slots.length === 0 && h.sections.length === 0) return null;
  const mm = (v: number) => print.thickness(Math.round(v * 100) / 100, units);
  return (
    <section className="mt-5">
      <h2 className="mb-2 text-2xl">{say("finish.fittings")}</h2>
      <div className="flex flex-wrap items-start gap-6" data-testid="fittings">
        {h.slots.map((s) => (
          <figure key={s.what} className="w-44">
            <Drawn w={s.fitting.widthMm} h={s.fitting.heightMm}>
              <rect
                x={-s.fitting.widthMm / 2}
                y={0}
                width={s.fitting.widthMm}
                height={s.fitting.heightMm}
                fill="none"
                stroke="var(--chalk)"
                strokeWidth={0.4}
              />
              <rect
                x={-s.widthMm / 2}
                y={s.topMm}
                width={s.widthMm}
                height={s.lengthMm}
                fill="var(--zone-tang)"
                fillOpacity={0.6}
                stroke="var(--chalk)"
                strokeWidth={0.3}
              />
              {Array.from({ length: s.holes }, (_, i) => (
                <circle
                  // biome-ignore lint/suspicious/noArrayIndexKey: a chain of like holes
                  key={i}
                  cx={0}
                  cy={s.holes > 1 ? s.topMm + 0.1 + s.drillMm / 2 + i * s.pitchMm : s.topMm + s.lengthMm / 2}
                  r={s.drillMm / 2}
                  fill="none"
                  stroke="var(--chalk)"
                  strokeWidth={0.25}
                />
              ))}
            </Drawn>
            <figcaption className="text-sm text-quiet">
              {told(`fittings.${s.what}`, {
                long: mm(s.lengthMm),
                wide: mm(s.widthMm),
                holes: s.holes,
                drill: mm(s.drillMm),
                pitch: mm(s.pitchMm),
              })}
            </figcaption>
          </figure>
        ))}
        {h.sections.map((s) => (
          <figure key={s.atMm} className="w-32">
            <Drawn w={s.widthMm} h={s.heightMm}>
              <path
                d={outline(s.outline as Node[], s.heightMm)}
                fill="var(--zone-tang)"
                fillOpacity={0.14}
                stroke="var(--chalk)"
                strokeWidth={0.4}
              />
              {s.tangHeightMm ? (
                <rect
                  x={-(s.tangThicknessMm ?? 0) / 2}
                  y={s.heightMm / 2 - (s.tangUpMm ?? 0) - s.tangHeightMm / 2}
                  width={s.tangThicknessMm}
                  height={s.tangHeightMm}
                  fill="var(--zone-tang)"
                  stroke="var(--chalk)"
                  strokeWidth={0.3}
                />
              ) : null}
            </Drawn>
            <figcaption className="text-sm text-quiet">
              {say("fittings.section", { at: print.length(s.atMm, units) })}
            </figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}

/** The whole outline of a section of which the right half is given, from its middle: its top at nought. */
function outline(half: Node[], heightMm: number): string {
  const at = ([x = 0, y = 0]: Node, side: number) => `${(x * side).toFixed(2)},${(heightMm / 2 - y).toFixed(2)}`;
  return `M${half.map((n) => at(n, 1)).join("L")}L${[...half]
    .reverse()
    .map((n) => at(n, -1))
    .join("L")}Z`;
}

function Drawn({ w, h, children }: { w: number; h: number; children: React.ReactNode }) {
  return (
    <svg
      viewBox={`${-w / 2 - 2} -2 ${w + 4} ${h + 4}`}
      style={{ width: `${Math.min(170, (w + 4) * scale)}px` }}
      aria-hidden
    >
      {children}
    </svg>
  );
}
