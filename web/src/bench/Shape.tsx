import { memo } from "react";
import type { Station, Zone } from "../api/client";
import { say } from "../text/say";
import { glow } from "./glow";
import { edgeOnPath, flatPath, type Layout, onRow, type Row, runs, twistPath } from "./layout";

interface Props {
  id: string;
  stations: Station[];
  row: Row;
  layout: Layout;
  selected?: Zone;
  onSelect: (zone: Zone) => void;
  /** Drawn in its heat colours instead of its zones'. */
  hot?: boolean;
}

/** A piece in its flat view, with the spine view below it. */
export const Shape = memo(function Shape({ id, stations, row, layout, selected, onSelect, hot }: Props) {
  const parts = runs(stations);
  const first = stations[0];
  const last = stations[stations.length - 1];
  const gradient = `glow-${id}`;
  const x0 = layout.x(first?.x ?? 0);
  const x1 = layout.x(last?.x ?? 1);
  return (
    <g>
      {hot && (
        <linearGradient id={gradient} gradientUnits="userSpaceOnUse" x1={x0} x2={x1} y1="0" y2="0">
          {colours(stations).map((s, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the same places after every heat
            <stop key={i} offset={s.offset} stopColor={s.colour} />
          ))}
        </linearGradient>
      )}
      {parts.map((r, i) => {
        const lit = selected === r.zone;
        const flat = flatPath(r.stations, row, layout);
        const edgeOn = edgeOnPath(r.stations, row, layout);
        const wide = Math.abs(layout.x(r.toMm) - layout.x(r.fromMm));
        const m = r.stations[Math.floor(r.stations.length / 2)];
        const mid = m?.sx === undefined ? (layout.x(r.fromMm) + layout.x(r.toMm)) / 2 : layout.x(m.x);
        const y = m ? row.baseY - ((m.s + m.e) / 2) * layout.scale : row.baseY;
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: zones are also chosen from the marks by keyboard
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: the same stretches after every heat, wherever they lie
            key={`${r.zone}${i}`}
            onClick={() => onSelect(r.zone)}
            className={`cursor-pointer ${hot ? "morph" : ""}`}
            data-zone={r.zone}
          >
            {Object.entries({ flat, edgeOn }).map(([view, d]) => (
              <g key={view}>
                <path
                  d={d}
                  fill={hot ? `url(#${gradient})` : `var(--zone-${r.zone})`}
                  fillOpacity={hot ? 1 : "var(--zone-fill)"}
                />
                {!hot && <path d={d} fill={`url(#h-${r.zone})`} />}
                <path
                  d={d}
                  fill="none"
                  stroke={lit ? "var(--act)" : "var(--chalk)"}
                  strokeWidth={lit ? 2.5 : 1.2}
                  strokeLinejoin="round"
                />
              </g>
            ))}
            {wide > 16 && (
              <text
                x={mid}
                y={y + 6}
                textAnchor="middle"
                fontSize="17"
                className="narrow"
                fill={hot ? "#f4f0e4" : "var(--chalk)"}
                stroke={hot ? "#15181a" : "var(--plate)"}
                strokeWidth="4"
                paintOrder="stroke"
              >
                {say(`letter.${r.zone}`)}
              </text>
            )}
          </g>
        );
      })}
      <path
        d={twistPath(stations, onRow(row, layout))}
        stroke="var(--chalk)"
        strokeWidth="1.2"
        data-testid={`twist-${id}`}
      />
      <EdgeTicks stations={stations} row={row} layout={layout} />
    </g>
  );
});

/** The title of a drawing: over all lines of the drawings, so that none runs through it. */
export function Title({
  stations,
  row,
  layout,
  children,
}: {
  stations: Station[];
  row: Row;
  layout: Layout;
  children: string;
}) {
  const ends = [stations[0], stations[stations.length - 1]].map((s) => layout.x(s?.x ?? 0));
  return (
    <text
      x={Math.min(...ends)}
      y={row.titleY}
      className="small-caps"
      fill="var(--quiet)"
      fontSize="14"
      stroke="var(--plate)"
      strokeWidth="5"
      paintOrder="stroke"
      pointerEvents="none"
    >
      {children}
    </text>
  );
}

/** How many colours the glow runs through along a piece. */
const colourCount = 20;

/** The glow of the steel at even distances from the point. */
function colours(stations: Station[]): { offset: string; colour: string }[] {
  const from = stations[0]?.x ?? 0;
  const long = (stations[stations.length - 1]?.x ?? 1) - from;
  let i = 0;
  return Array.from({ length: colourCount + 1 }, (_, n) => {
    const x = from + (n / colourCount) * long;
    while (i + 1 < stations.length && (stations[i + 1]?.x ?? x) < x) i++;
    const a = stations[i];
    const b = stations[i + 1] ?? a;
    const f = a && b && b.x > a.x ? Math.min(1, Math.max(0, (x - a.x) / (b.x - a.x))) : 0;
    const c = (a?.c ?? 20) + ((b?.c ?? 20) - (a?.c ?? 20)) * f;
    return { offset: (n / colourCount).toFixed(3), colour: glow(Math.round(c / 5) * 5) };
  });
}

/** Small ticks along the edge side, so that nobody loses which side is sharp. */
function EdgeTicks({ stations, row, layout }: { stations: Station[]; row: Row; layout: Layout }) {
  const blade = stations.filter((s) => s.z === "point" || s.z === "blade");
  const ticks: string[] = [];
  let next = 6;
  for (let i = 1; i < blade.length; i++) {
    const a = blade[i - 1];
    const b = blade[i];
    if (!a || !b || b.x <= a.x) continue;
    while (next <= b.x) {
      const f = (next - a.x) / (b.x - a.x);
      const y = row.baseY - (a.e + (b.e - a.e) * f) * layout.scale;
      const x = layout.x(next);
      ticks.push(`M${x.toFixed(1)},${(y + 2).toFixed(1)}v4`);
      next += Math.max(4, 14 / layout.scale);
    }
  }
  return <path d={ticks.join("")} stroke="var(--chalk)" strokeWidth="1" opacity="0.75" />;
}
