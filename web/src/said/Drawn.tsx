import { say } from "../text/say";
import type { Lesson } from "./SaidPage";

const wide = 260;
const high = 34;
/** A factor from a third to three times is drawn, on its logarithm. */
const most = Math.log(3);
const x = (f: number) => ((Math.max(-most, Math.min(most, Math.log(f))) + most) / (2 * most)) * wide;

/** A factor with its band, over the band of the law alone: the table's figure is the line in the middle. */
export function Band({ l }: { l: Lesson }) {
  return (
    <svg width={wide} height={high} viewBox={`0 0 ${wide} ${high}`} role="img" aria-label={say("learned.drawn")}>
      <rect x={x(l.law.low80)} y="4" width={x(l.law.high80) - x(l.law.low80)} height="26" className="fill-line" />
      <line x1={x(1)} x2={x(1)} y1="0" y2={high} className="stroke-quiet" strokeDasharray="2 2" />
      {l.n > 0 && (
        <g opacity={l.off ? 0.4 : 1}>
          <rect x={x(l.low80)} y="12" width={Math.max(2, x(l.high80) - x(l.low80))} height="10" className="fill-act" />
          <line x1={x(l.factor)} x2={x(l.factor)} y1="7" y2="27" className="stroke-chalk" strokeWidth="2" />
        </g>
      )}
    </svg>
  );
}

/** Piece after piece: the band that was known before it, and where it came to lie. */
export function HeldLine({ held }: { held: Lesson["held"] }) {
  if (held.length === 0) return null;
  const step = Math.min(40, 600 / held.length);
  const tall = 90;
  const y = (f: number) => tall / 2 - (Math.max(-most, Math.min(most, Math.log(f))) / most) * (tall / 2 - 4);
  const last = held.at(-1);
  return (
    <figure className="mt-1" data-testid="held">
      <svg
        width={step * held.length + 8}
        height={tall}
        viewBox={`0 0 ${step * held.length + 8} ${tall}`}
        role="img"
        aria-label={say("learned.heldDrawn")}
      >
        <line x1="0" x2={step * held.length + 8} y1={y(1)} y2={y(1)} className="stroke-quiet" strokeDasharray="2 2" />
        {held.map((h, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces in order
          <g key={i}>
            <rect
              x={i * step + 4}
              y={y(h.high80)}
              width={Math.max(2, step - 4)}
              height={Math.max(1, y(h.low80) - y(h.high80))}
              className="fill-line"
            />
            <circle cx={i * step + step / 2 + 2} cy={y(h.ratio)} r="4" className={h.in ? "fill-act" : "fill-ember"} />
          </g>
        ))}
      </svg>
      <figcaption className="text-sm text-quiet">
        {say("learned.held", {
          share: Math.round((last?.share ?? 0) * 100),
          in: held.filter((h) => h.in).length,
          n: held.length,
        })}
      </figcaption>
    </figure>
  );
}
