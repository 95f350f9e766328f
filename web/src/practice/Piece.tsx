import type { components } from "../api/schema";
import { say } from "../text/say";

type Played = components["schemas"]["PracticePlayed"];

/** The piece from its face, and from above, glowing as hot as it is; the hammer over the place that is to be struck. */
export function Piece({ p, at, onAt }: { p: Played; at: number; onAt: (mm: number) => void }) {
  const long = p.lengthMm;
  const wide = Math.max(...p.places.map((c) => c.wideMm));
  const thick = Math.max(...p.places.map((c) => c.thickMm));
  const gap = 10;
  const edges = p.places.map((c, i) => {
    const before = p.places[i - 1];
    return before ? (before.x + c.x) / 2 : 0;
  });
  const strip = (of: (c: Played["places"][number]) => number, middle: number) =>
    p.places.map((c, i) => {
      const from = edges[i] ?? 0;
      const to = edges[i + 1] ?? long;
      return (
        <rect
          key={c.x}
          x={from}
          y={middle - of(c) / 2}
          width={to - from + 0.15}
          height={of(c)}
          fill={`rgb(${c.rgb.join(" ")})`}
        />
      );
    });
  const high = wide + gap + thick + 14;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the place is moved with the arrows too
    <svg
      viewBox={`-4 -12 ${long + 8} ${high}`}
      className="max-h-[44vh] w-full cursor-crosshair"
      role="img"
      aria-label={say("practice.drawn")}
      data-testid="practice-piece"
      onClick={(e) => {
        const m = e.currentTarget.getScreenCTM();
        if (m) onAt(Math.max(0, Math.min(long, (e.clientX - m.e) / m.a)));
      }}
    >
      {strip((c) => c.wideMm, wide / 2)}
      {strip((c) => c.thickMm, wide + gap + thick / 2)}
      <path d={`M${at} -1l-2.4 -6h4.8z`} className="fill-act" data-testid="hammer" data-at={at.toFixed(1)} />
      <line
        x1={at}
        x2={at}
        y1={-1}
        y2={wide + gap + thick}
        className="stroke-act"
        strokeWidth="0.3"
        strokeDasharray="1.4 1.4"
      />
      {p.faults.map((f) => (
        <circle
          key={f.kind + f.atMm}
          cx={f.atMm}
          cy={wide / 2}
          r="2.4"
          className="fill-none stroke-ember"
          strokeWidth="0.7"
        />
      ))}
    </svg>
  );
}
