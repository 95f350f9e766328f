import type { Station } from "../api/client";
import { extent, outline, runs, twistPath } from "./layout";

/** A small drawing of a blade at a given scale, px a mm: point to the left, edge down. */
export function Silhouette({ stations, scale, label }: { stations: Station[]; scale: number; label: string }) {
  const { length, top, bottom } = extent(stations);
  const w = length * scale + 4;
  const h = (top - bottom) * scale + 4;
  const pt = (x: number, y: number) => `${(2 + x * scale).toFixed(1)},${(2 + (top - y) * scale).toFixed(1)}`;
  return (
    <svg width={w} height={h} viewBox={`0 0 ${w} ${h}`} role="img" aria-label={label} className="max-w-full">
      {runs(stations).map((r) => (
        <path
          key={r.fromMm}
          d={outline(r.stations, pt)}
          fill={`var(--zone-${r.zone})`}
          fillOpacity="0.55"
          stroke="var(--chalk)"
          strokeWidth="1"
          strokeLinejoin="round"
        />
      ))}
      <path d={twistPath(stations, pt)} stroke="var(--chalk)" strokeWidth="1" />
    </svg>
  );
}
