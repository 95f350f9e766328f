import type { components } from "../api/schema";
import { say } from "../text/say";

type Played = components["schemas"]["PracticePlayed"];
type Place = Played["places"][number];

/** How far off counts as much, mm: from there on a place is marked as strongly as can be. */
const muchMm = 2;

/**
 * The piece from its face, and from above, glowing as hot as it is, as it lies: swept, bowed, bevelled. Under each view is how
 * far every place is off what is wanted: over it ember, under it blue. The hammer is over the place that is to be struck.
 */
export function Piece({ p, at, onAt }: { p: Played; at: number; onAt: (mm: number) => void }) {
  const long = p.lengthMm;
  const most = (of: (c: Place) => number) => Math.max(...p.places.map(of));
  const wide = most((c) => c.wideMm + 2 * Math.abs(c.sweepMm ?? 0));
  const thick = most((c) => Math.max(c.spineMm, c.thickMm) + 2 * Math.abs(c.bowMm ?? 0));
  const map = 3;
  const gap = 10;
  const edges = p.places.map((c, i) => {
    const before = p.places[i - 1];
    return before ? (before.x + c.x) / 2 : 0;
  });
  const cells = (draw: (c: Place, from: number, to: number) => React.ReactNode) =>
    p.places.map((c, i) => draw(c, edges[i] ?? 0, edges[i + 1] ?? long));
  const rgb = (c: Place) => `rgb(${c.rgb.join(" ")})`;
  const top = wide + map + gap;
  const strip = (of: (c: Place) => number | undefined, y: number) =>
    cells((c, from, to) => {
      const by = of(c);
      if (by === undefined) return null;
      return (
        <rect
          key={`${y}-${c.x}`}
          x={from}
          y={y}
          width={to - from + 0.1}
          height={map - 0.6}
          fill={by > 0 ? "var(--ember)" : "var(--zone-tang)"}
          fillOpacity={Math.min(1, 0.12 + Math.abs(by) / muchMm)}
        />
      );
    });
  const high = top + thick + map + 14;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the place is moved with the arrows too
    <svg
      viewBox={`-4 -12 ${long + 8} ${high}`}
      className="max-h-[34vh] w-full cursor-crosshair"
      role="img"
      aria-label={say("practice.drawn")}
      data-testid="practice-piece"
      onClick={(e) => {
        const m = e.currentTarget.getScreenCTM();
        if (m) onAt(Math.max(0, Math.min(long, (e.clientX - m.e) / m.a)));
      }}
    >
      {cells((c, from, to) => (
        <rect
          key={c.x}
          x={from}
          y={wide / 2 - c.wideMm / 2 - (c.sweepMm ?? 0)}
          width={to - from + 0.15}
          height={c.wideMm}
          fill={rgb(c)}
        />
      ))}
      <g data-testid="map-wide">{strip((c) => c.off?.wideMm, wide + 0.8)}</g>
      {/* from above: as thick as its spine, the edge darker within it where it is thinner */}
      {cells((c, from, to) => (
        <g key={`t${c.x}`}>
          <rect
            x={from}
            y={top + thick / 2 - c.spineMm / 2 - (c.bowMm ?? 0)}
            width={to - from + 0.15}
            height={c.spineMm}
            fill={rgb(c)}
          />
          {c.edgeMm < c.spineMm * 0.97 && (
            <rect
              x={from}
              y={top + thick / 2 - c.edgeMm / 2 - (c.bowMm ?? 0)}
              width={to - from + 0.15}
              height={c.edgeMm}
              fill="var(--plate)"
              fillOpacity="0.28"
            />
          )}
        </g>
      ))}
      <g data-testid="map-thick">{strip((c) => c.off?.edgeMm ?? c.off?.thickMm, top + thick + 0.8)}</g>
      <path d={`M${at} -1l-2.4 -6h4.8z`} className="fill-act" data-testid="hammer" data-at={at.toFixed(1)} />
      <line
        x1={at}
        x2={at}
        y1={-1}
        y2={top + thick}
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
