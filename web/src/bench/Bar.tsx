import { memo } from "react";
import type { Plan, Zone } from "../api/client";
import { say } from "../text/say";
import { print, type System } from "../units/print";
import type { Layout } from "./layout";

interface Props {
  plan: Plan;
  layout: Layout;
  units: System;
  title: string;
  selected?: Zone;
  onSelect: (zone: Zone) => void;
  /** Four in five cases need a length between these, mm. */
  band?: { lowMm: number; highMm: number };
}

/** The starting bar with its chalk marks, flat and from the narrow side. */
export const Bar = memo(function Bar({ plan, layout, units, title, selected, onSelect, band }: Props) {
  const { bar } = plan;
  const row = layout.bar;
  const end = bar.marks[bar.marks.length - 1]?.toMm ?? 0;
  const wasteX = [layout.barX(end), layout.barX(bar.cutLengthMm)];
  const strips = [
    { y: row.topY, h: row.bottomY - row.topY },
    { y: row.edgeOnY - row.edgeOnHalf, h: 2 * row.edgeOnHalf },
  ];
  const left = (a: number, b: number) => Math.min(a, b);
  return (
    <g>
      <text
        x={left(layout.barX(0), wasteX[1] ?? 0)}
        y={row.titleY}
        className="small-caps"
        fill="var(--quiet)"
        stroke="var(--plate)"
        strokeWidth="4"
        paintOrder="stroke"
        fontSize="14"
      >
        {title}
      </text>
      {band && (
        <rect
          x={left(layout.barX(band.lowMm), layout.barX(band.highMm))}
          width={Math.abs(layout.barX(band.highMm) - layout.barX(band.lowMm))}
          y={row.topY - 7}
          height={row.bottomY - row.topY + 14}
          fill="var(--act)"
          fillOpacity="0.22"
          stroke="var(--act)"
          strokeDasharray="2 3"
          data-testid="sure-band"
        >
          <title>{say("sure.band")}</title>
        </rect>
      )}
      {strips.map((s, i) => (
        <g key={s.y}>
          {bar.marks.map((m) => {
            const a = layout.barX(m.fromMm);
            const b = layout.barX(m.toMm);
            const lit = selected === m.zone;
            return (
              // biome-ignore lint/a11y/noStaticElementInteractions: zones are also chosen from the marks by keyboard
              <g key={m.zone} onClick={() => onSelect(m.zone)} className="cursor-pointer" data-mark={m.zone}>
                <rect
                  x={left(a, b)}
                  width={Math.abs(b - a)}
                  y={s.y}
                  height={s.h}
                  fill={`var(--zone-${m.zone})`}
                  fillOpacity="var(--zone-fill)"
                />
                <rect
                  x={left(a, b)}
                  width={Math.abs(b - a)}
                  y={s.y}
                  height={s.h}
                  fill={`url(#h-${m.zone})`}
                  stroke={lit ? "var(--act)" : "none"}
                  strokeWidth="2.5"
                />
                {i === 0 && Math.abs(b - a) > 14 && (
                  <text
                    x={(a + b) / 2}
                    y={s.y + s.h / 2 + 6}
                    textAnchor="middle"
                    fontSize="17"
                    className="narrow"
                    fill="var(--chalk)"
                    stroke="var(--plate)"
                    strokeWidth="4"
                    paintOrder="stroke"
                  >
                    {say(`letter.${m.zone}`)}
                  </text>
                )}
              </g>
            );
          })}
          <rect
            x={left(wasteX[0] ?? 0, wasteX[1] ?? 0)}
            width={Math.abs((wasteX[1] ?? 0) - (wasteX[0] ?? 0))}
            y={s.y}
            height={s.h}
            fill="url(#h-waste)"
          />
          <rect
            x={left(layout.barX(0), wasteX[1] ?? 0)}
            width={Math.abs((wasteX[1] ?? 0) - layout.barX(0))}
            y={s.y}
            height={s.h}
            fill="none"
            stroke="var(--chalk)"
            strokeWidth="1.2"
          />
          {layout.breaks.map((g) => (
            <BreakLine key={g.fromMm} x={layout.barX(g.fromMm)} y={s.y} h={s.h} />
          ))}
        </g>
      ))}
      {bar.marks.map((m, i) => (
        <ChalkMark
          key={m.zone}
          x={layout.barX(m.toMm)}
          row={row}
          label={print.length(m.toMm, units)}
          last={i === bar.marks.length - 1}
          raise={crowded(bar.marks, i, layout)}
          next={crowded(bar.marks, i + 1, layout) ? layout.barX(bar.marks[i + 1]?.toMm ?? 0) : undefined}
        />
      ))}
      <path
        d={`M${wasteX[1]},${row.topY - 8}V${row.bottomY + 6}`}
        stroke="var(--chalk)"
        strokeWidth="2"
        strokeDasharray="6 3"
      />
    </g>
  );
});

/** Whether the label of mark i would run into the one before. */
function crowded(marks: { toMm: number }[], i: number, l: Layout): boolean {
  const a = marks[i - 1];
  const b = marks[i];
  return !!a && !!b && Math.abs(l.barX(b.toMm) - l.barX(a.toMm)) < 60 && !crowded(marks, i - 1, l);
}

function ChalkMark({
  x,
  row,
  label,
  last,
  raise,
  next,
}: {
  x: number;
  row: Layout["bar"];
  label: string;
  last: boolean;
  raise: boolean;
  /** Where the taller mark beside it stands, which its label must keep clear of. */
  next?: number;
}) {
  if (last) return <path d={`M${x},${row.topY - 4}V${row.bottomY + 4}`} stroke="var(--chalk)" strokeWidth="1.500" />;
  const y = row.topY - (raise ? 24 : 7);
  const away = next === undefined || Math.abs(next - x) > 32 ? 0 : next > x ? -1 : 1;
  return (
    <g>
      <path
        d={`M${x},${row.topY - (raise ? 22 : 5)}V${row.bottomY + 5}`}
        stroke="var(--chalk)"
        strokeWidth="2.500"
        strokeLinecap="round"
      />
      <text
        x={x - away * 6}
        y={y}
        textAnchor={away === 0 ? "middle" : away < 0 ? "end" : "start"}
        fontSize="15"
        className="narrow"
        fill="var(--chalk)"
      >
        {label}
      </text>
    </g>
  );
}

function BreakLine({ x, y, h }: { x: number; y: number; h: number }) {
  const zig = `M${x - 4},${y - 5}l6,${h / 3 + 4}l-6,${h / 3}l6,${h / 3 + 5}`;
  return (
    <g>
      <path d={zig} stroke="var(--plate)" strokeWidth="8" fill="none" />
      <path d={zig} transform="translate(-4 0)" stroke="var(--chalk)" fill="none" />
      <path d={zig} transform="translate(4 0)" stroke="var(--chalk)" fill="none" />
    </g>
  );
}
