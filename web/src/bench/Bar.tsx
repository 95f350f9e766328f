import { memo, type ReactNode } from "react";
import type { Plan, Zone } from "../api/client";
import { say } from "../text/say";
import { cutOf } from "../units/cut";
import { print, type System } from "../units/print";
import { around, type Box, place, textPx } from "./labels";
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
  /** Its diameter, where it is a ball: that is weighed, not chalked. */
  ballMm?: number;
}

/** The starting bar with its chalk marks, flat and from the narrow side. */
export const Bar = memo(function Bar({ plan, layout, units, title, selected, onSelect, band, ballMm }: Props) {
  const { bar } = plan;
  const row = layout.bar;
  const end = bar.marks[bar.marks.length - 1]?.toMm ?? 0;
  const wasteX = [layout.barX(end), layout.barX(bar.cutLengthMm)];
  const strips = [
    { y: row.topY, h: row.bottomY - row.topY },
    { y: row.edgeOnY - row.edgeOnHalf, h: 2 * row.edgeOnHalf },
  ];
  const left = (a: number, b: number) => Math.min(a, b);
  const name = <Title x={left(layout.barX(0), wasteX[1] ?? 0)} y={row.titleY} title={title} />;
  if (ballMm) return <Ball plan={plan} layout={layout} units={units} name={name} diameterMm={ballMm} />;
  const labels = chalkLabels(plan, layout, units, title);
  return (
    <g>
      {name}
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
      {bar.blank && <Blank plan={plan} layout={layout} />}
      {strips.map((s, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the flat view and the other
        <g key={i} transform={i === 1 && layout.barBesidePx ? `translate(${layout.barBesidePx} 0)` : undefined}>
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
      {bar.marks.map((m) => (
        <ChalkMark
          key={m.zone}
          x={layout.barX(m.toMm)}
          row={row}
          label={print.length(m.toMm, units)}
          at={labels.get(m.zone)}
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

const Title = ({ x, y, title }: { x: number; y: number; title: string }) => (
  <text
    x={x}
    y={y}
    className="small-caps"
    fill="var(--quiet)"
    stroke="var(--plate)"
    strokeWidth="4"
    paintOrder="stroke"
    fontSize="14"
  >
    {title}
  </text>
);

/** A ball as it lies on the scale: what it has to weigh stands beside it. */
function Ball({
  plan,
  layout,
  units,
  name,
  diameterMm,
}: {
  plan: Plan;
  layout: Layout;
  units: System;
  name: ReactNode;
  diameterMm: number;
}) {
  const row = layout.bar;
  const r = Math.min((diameterMm / 2) * layout.scale, (row.bottomY - row.topY) / 2 + 10);
  const x = layout.barX(plan.bar.cutLengthMm / 2);
  const y = (row.topY + row.bottomY) / 2;
  return (
    <g data-testid="ball">
      {name}
      <circle cx={x} cy={y} r={r} fill="var(--raised)" stroke="var(--chalk)" strokeWidth="1.2" />
      <path
        d={`M${x - r * 0.6},${y - r * 0.35}A${r * 0.7},${r * 0.7} 0 0 1 ${x - r * 0.1},${y - r * 0.68}`}
        fill="none"
        stroke="var(--quiet)"
        strokeWidth="1.5"
      />
      <text x={x + r + 14} y={y + 6} fontSize="18" className="narrow" fill="var(--chalk)" data-label>
        {cutOf(plan, "ball", units)}
      </text>
    </g>
  );
}

/** Size of the figures of chalk marks. */
const chalkPx = 15;

/**
 * Where the figures of the chalk marks stand: above their marks, or beside and above each other where the marks are
 * too close. The last mark is the end of the piece, which its cut tells of.
 */
export function chalkLabels(plan: Plan, l: Layout, units: System, title: string): Map<string, Box> {
  const marks = plan.bar.marks.slice(0, -1);
  const left = Math.min(l.barX(0), l.barX(plan.bar.cutLengthMm));
  const w = textPx(title, 14);
  const taken = [{ x: left + w / 2, y: l.bar.titleY - 5, w, h: 16 }];
  const inside = (x: number, half: number) => Math.min(Math.max(x, half + 2), l.widthPx - half - 2);
  return place(
    marks.map((m) => {
      const text = print.length(m.toMm, units);
      const half = textPx(text, chalkPx) / 2;
      const spots = around(l.barX(m.toMm), l.bar.topY - 12, { side: 10, sides: 16, line: -17, lines: 2 });
      return { id: m.zone, w: 2 * half, h: 15, at: spots.map(([x, y]) => [inside(x, half), y] as [number, number]) };
    }),
    taken,
  );
}

function ChalkMark({ x, row, label, at }: { x: number; row: Layout["bar"]; label: string; at?: Box }) {
  // the last is the end of the piece, and has no figure
  if (!at) return <path d={`M${x},${row.topY - 4}V${row.bottomY + 4}`} stroke="var(--chalk)" strokeWidth="1.500" />;
  const foot = at.y + at.h / 2 - 1;
  const reach = Math.min(Math.max(x, at.x - at.w / 2 + 6), at.x + at.w / 2 - 6);
  const leader = Math.abs(reach - x) > 1 || foot < row.topY - 8 ? `L${reach},${foot + 2}` : "";
  return (
    <g>
      <path
        d={`M${x},${row.topY - 4}V${row.bottomY + 5}`}
        stroke="var(--chalk)"
        strokeWidth="2.500"
        strokeLinecap="round"
      />
      {leader && <path d={`M${x},${row.topY - 4}${leader}`} stroke="var(--chalk)" strokeWidth="1" fill="none" />}
      <text
        x={at.x}
        y={at.y + 5}
        textAnchor="middle"
        fontSize={chalkPx}
        className="narrow"
        fill="var(--chalk)"
        data-label
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

/** The outline that is sawn out, within the rectangle around it. */
function Blank({ plan, layout }: { plan: Plan; layout: Layout }) {
  const loop = plan.bar.blank ?? [];
  const ys = loop.map((n) => n[1] ?? 0);
  const middle = (Math.max(...ys) + Math.min(...ys)) / 2;
  const row = layout.bar;
  const at = (n: number[]) =>
    `${layout.barX(n[0] ?? 0).toFixed(1)},${((row.topY + row.bottomY) / 2 - ((n[1] ?? 0) - middle) * layout.scale).toFixed(1)}`;
  return (
    <path
      d={`M${loop.map(at).join("L")}Z`}
      fill="var(--chalk)"
      fillOpacity="0.12"
      stroke="var(--chalk)"
      strokeWidth="1.6"
      data-testid="blank"
    >
      <title>{say("start.blank")}</title>
    </path>
  );
}
