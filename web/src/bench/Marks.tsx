import type { Plan, Zone } from "../api/client";
import { say, told } from "../text/say";
import { extent, type Layout, type Row, ribbonPath } from "./layout";

/** Where each stretch of bar ends up. */
export function Ribbons({
  chalked,
  plan,
  layout,
  middle,
  selected,
}: {
  /** A ball has no marks whose steel could be followed. */
  chalked: boolean;
  plan: Plan;
  layout: Layout;
  middle: { zone: Zone; fromMm: number; toMm: number }[];
  selected?: Zone;
}) {
  const edge = (r: Row) => (r === layout.bar && layout.barBesidePx ? r.bottomY : r.edgeOnY + r.edgeOnHalf) + 3;
  return (
    <g>
      {(chalked ? plan.bar.marks : []).map((m) => {
        const to = middle.find((s) => s.zone === m.zone);
        if (!to) return null;
        const d = ribbonPath(
          layout.barX(m.fromMm),
          layout.barX(m.toMm),
          edge(layout.bar),
          layout.x(to.fromMm),
          layout.x(to.toMm),
          layout.forged.topY - 1,
        );
        return <Ribbon key={m.zone} zone={m.zone} d={d} lit={selected === m.zone} />;
      })}
      {middle.map((m) => {
        const to = plan.drawing.finishedZones.find((s) => s.zone === m.zone);
        if (!to) return null;
        const d = ribbonPath(
          layout.x(m.fromMm),
          layout.x(m.toMm),
          edge(layout.forged),
          layout.x(to.fromMm),
          layout.x(to.toMm),
          layout.finished.topY - 1,
        );
        return <Ribbon key={m.zone} zone={m.zone} d={d} lit={selected === m.zone} />;
      })}
    </g>
  );
}

const Ribbon = ({ zone, d, lit }: { zone: Zone; d: string; lit: boolean }) => (
  <path d={d} fill={`var(--zone-${zone})`} opacity={lit ? 0.6 : 0.2} stroke={lit ? "var(--act)" : "none"} />
);

/** Which way to move the steel, along the forged shape; where the bar will not do, a hatch. */
export function Ways({ plan, layout }: { plan: Plan; layout: Layout }) {
  const row = layout.forged;
  const y = row.edgeOnY + row.edgeOnHalf + 9;
  const drawn = extent(plan.drawing.forged);
  const groups: { way: string; from: number; to: number }[] = [];
  const f = plan.feasibility;
  const half = ((f[1]?.xMm ?? 1) - (f[0]?.xMm ?? 0)) / 2;
  // A bent tang reaches less far than it is long.
  const end = plan.drawing.forgedZones.at(-1)?.toMm ?? Number.POSITIVE_INFINITY;
  for (const s of f) {
    const last = groups[groups.length - 1];
    const to = Math.min(end, s.xMm + half);
    if (last && last.way === s.way) last.to = to;
    else if (s.xMm - half < end) groups.push({ way: s.way, from: s.xMm - half, to });
  }
  return (
    <g>
      {groups.map((g) => {
        const a = Math.min(layout.x(g.from), layout.x(g.to)) + 1.5;
        const b = Math.max(layout.x(g.from), layout.x(g.to)) - 1.5;
        const bad = g.way === "tooNarrow" || g.way === "upset";
        const words = told(`way.${g.way}`);
        return (
          <g key={g.from} data-way={g.way}>
            <path
              d={wayMark(g.way, a, b, y)}
              stroke={bad ? "var(--ember)" : "var(--quiet)"}
              strokeWidth={bad ? 2 : 1.2}
              fill="none"
            />
            {b - a > words.length * 5.6 + 6 && (
              <text
                x={(a + b) / 2}
                y={y + 16}
                textAnchor="middle"
                fontSize="13"
                className="narrow"
                fill={bad ? "var(--ember)" : "var(--quiet)"}
              >
                {words}
              </text>
            )}
          </g>
        );
      })}
      {groups
        .filter((g) => g.way === "tooNarrow" || g.way === "upset")
        .map((g) => (
          <rect
            key={g.from}
            x={Math.min(layout.x(g.from), layout.x(g.to))}
            width={Math.abs(layout.x(g.to) - layout.x(g.from))}
            y={row.baseY - drawn.top * layout.scale - 3}
            height={(drawn.top - drawn.bottom) * layout.scale + 6}
            fill="url(#h-wrong)"
            opacity="0.75"
            pointerEvents="none"
            data-testid="hatch-wrong"
          />
        ))}
    </g>
  );
}

/** A mark of its own for each way: arrows along to lengthen, strokes out to spread, strokes in to narrow. */
function wayMark(way: string, a: number, b: number, y: number): string {
  const line = `M${a},${y}H${b}`;
  const each = (step: number, d: (x: number) => string) => {
    let out = "";
    for (let x = a + step / 2; x < b; x += step) out += d(x);
    return out;
  };
  switch (way) {
    case "lengthen":
      return `${line}M${a + 5},${y - 3}L${a},${y}L${a + 5},${y + 3}M${b - 5},${y - 3}L${b},${y}L${b - 5},${y + 3}`;
    case "spread":
      return line + each(9, (x) => `M${x},${y - 4}V${y + 4}`);
    case "narrow":
      return line + each(11, (x) => `M${x - 2.5},${y - 5}L${x},${y - 1}L${x + 2.5},${y - 5}`);
    case "either":
      return each(7, (x) => `M${x - 1.5},${y}h3`);
    default:
      return line + each(7, (x) => `M${x - 2},${y - 3}l4,6M${x - 2},${y + 3}l4,-6`);
  }
}

/** The sweep that bevelling would give, dotted above the spine. */
export function Sweep({ plan, layout }: { plan: Plan; layout: Layout }) {
  const rise = plan.bend.riseMm;
  if (rise < 0.5) return null;
  const blade = plan.drawing.forgedZones.find((z) => z.zone === "blade");
  const l = blade?.toMm ?? 0;
  const spine = plan.drawing.forged.filter((s) => s.x <= l);
  const pts = spine.map(
    (s) =>
      `${layout.x(s.x).toFixed(1)},${(layout.forged.baseY - (s.s + rise * (1 - s.x / l) ** 2) * layout.scale).toFixed(1)}`,
  );
  return (
    <path
      d={`M${pts.join("L")}`}
      fill="none"
      stroke="var(--chalk)"
      strokeWidth="1.5"
      strokeDasharray="1.5 5"
      strokeLinecap="round"
      data-testid="sweep"
    />
  );
}

/** The finished blade within the forged shape, heel on heel: what is left to grind. */
export function Within({ plan, layout }: { plan: Plan; layout: Layout }) {
  const end = (list: { zone: Zone; toMm: number }[]) => list.find((z) => z.zone === "blade")?.toMm ?? 0;
  const heel = (list: Plan["drawing"]["forged"]) => list.filter((s) => s.z === "blade").at(-1);
  const shift = end(plan.drawing.forgedZones) - end(plan.drawing.finishedZones);
  const a = heel(plan.drawing.forged);
  const b = heel(plan.drawing.finished);
  const up = a && b ? (a.s + a.e) / 2 - (b.s + b.e) / 2 : 0;
  const blade = plan.drawing.finished.filter((s) => s.z === "point" || s.z === "blade");
  const at = (x: number, y: number) =>
    `${layout.x(x + shift).toFixed(1)},${(layout.forged.baseY - (y + up) * layout.scale).toFixed(1)}`;
  const d = `M${blade.map((s) => at(s.x, s.s)).join("L")}L${[...blade]
    .reverse()
    .map((s) => at(s.x, s.e))
    .join("L")}Z`;
  return (
    <path
      d={d}
      fill="none"
      stroke="var(--chalk)"
      strokeWidth="0.9"
      strokeDasharray="5 3"
      opacity="0.7"
      pointerEvents="none"
    />
  );
}

/** Where a rod that stays is welded on: a toothed line across the tang, forged and finished. */
export function Seam({ plan, layout }: { plan: Plan; layout: Layout }) {
  const rod = plan.bar.rodMm;
  if (!rod) return null;
  const line = (spans: { zone: Zone; toMm: number }[], row: Row) => {
    const x = layout.x((spans.find((s) => s.zone === "tang")?.toMm ?? rod) - rod);
    const teeth = Math.max(2, Math.round((row.bottomY - row.topY + 10) / 6));
    return `M${x},${row.topY - 5}${"l3,3l-3,3".repeat(teeth)}`;
  };
  return (
    <g data-testid="seam">
      <path
        d={line(plan.drawing.forgedZones, layout.forged) + line(plan.drawing.finishedZones, layout.finished)}
        fill="none"
        stroke="var(--act)"
        strokeWidth="1.6"
      />
      <text
        x={layout.x((plan.drawing.finishedZones.find((s) => s.zone === "tang")?.toMm ?? rod) - rod) + 8}
        y={layout.finished.topY - 1}
        className="narrow"
        fontSize="14"
        fill="var(--act)"
      >
        {say("seam.mark")}
      </text>
    </g>
  );
}

/** The fold that end-on blows leave on sharp corners, where the plan warns of it: on both faces of the end. */
export function Lip({ plan, layout, from }: { plan: Plan; layout: Layout; from: number }) {
  const warned = plan.warnings.some((w) => w.code === "warn.lip");
  if (!warned) return null;
  const row = layout.forged;
  const x = layout.x(from);
  const on = layout.x(from + 1) > x ? 1 : -1;
  const curl = (y: number, down: number) => `M${x + on * 9},${y}q${-on * 13},${-down * 1} ${-on * 11},${down * 5}`;
  return (
    <g data-testid="lip" stroke="var(--ember)" fill="none" strokeWidth="2" strokeLinecap="round">
      <path d={curl(row.edgeOnY - row.edgeOnHalf, 1) + curl(row.edgeOnY + row.edgeOnHalf, -1)} />
      <text
        x={x - on * 6}
        y={row.edgeOnY + 5}
        textAnchor={on > 0 ? "end" : "start"}
        stroke="none"
        fill="var(--ember)"
        fontSize="14"
        className="narrow"
      >
        {say("lip.mark")}
      </text>
    </g>
  );
}
