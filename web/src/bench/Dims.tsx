import { memo } from "react";
import type { Plan } from "../api/client";
import { useDraftState } from "../draft/context";
import { told } from "../text/say";
import { DraftField } from "../ui/DraftField";
import { around, place } from "./labels";
import { extent, type Layout, spineFace } from "./layout";

/** A dimension that lies on the drawing and is a field: its middle at x, y. */
function Label({ field, x, y, width = 72 }: { field: string; x: number; y: number; width?: number }) {
  const wrong = useDraftState().errors[field];
  return (
    <div
      className="dim absolute"
      style={{ left: x - width / 2, top: y - 14, width, zIndex: wrong ? 20 : 5 }}
      data-dim={field}
    >
      <DraftField field={field} label={told(`field.name.${field}`)} hideLabel />
    </div>
  );
}

interface Dim {
  field: string;
  x: number;
  y: number;
  line: string;
}

/** How wide and high the field of a dimension is, px. */
const dimPx = { w: 72, h: 27 };

/** Dimension lines and the places of their fields, none over another. */
export function dimsOf(plan: Plan, l: Layout, flatBar: boolean): Dim[] {
  const wanted = wantedDims(plan, l, flatBar);
  const beyond = l.x(1) > l.x(0) ? -1 : 1;
  const placed = place(
    wanted.map((d) => ({
      id: d.field,
      ...dimPx,
      at: d.along
        ? around(d.x, d.y + (d.narrow ? 24 : 0), { side: 12, sides: 16, line: 24, lines: d.narrow ? 1 : 2 })
        : [
            ...around(d.x, d.y, { side: 0, sides: 0, line: 14, lines: 3 }),
            [d.x, d.y - 14],
            [d.x, d.y - 28],
            [d.x + beyond * 4, d.y + 42],
          ],
    })),
  );
  return wanted.map((d) => {
    const at = placed.get(d.field) ?? { x: d.x, y: d.y };
    const led = d.along && (at.x !== d.x || at.y !== d.y) ? `M${d.x},${d.y - 5}L${at.x},${at.y - 12}` : "";
    return { ...d, x: at.x, y: at.y, line: d.line + led };
  });
}

interface WantedDim extends Dim {
  /** Along the blade: it may move to the side. */
  along?: boolean;
  /** The stretch is too short for its field, which stands below it. */
  narrow?: boolean;
}

function wantedDims(plan: Plan, l: Layout, flatBar: boolean): WantedDim[] {
  const f = plan.drawing.finishedZones;
  const zone = (z: string) => f.find((s) => s.zone === z) ?? { fromMm: 0, toMm: 0 };
  const heel = zone("blade").toMm;
  const e = extent(plan.drawing.finished.filter((s) => s.z !== "tang"));
  const row = l.finished;
  const out: WantedDim[] = [];
  const beyond = l.x(1) > l.x(0) ? -1 : 1; // toward the free end beyond the point, px
  const level = row.edgeOnY + row.edgeOnHalf + 26;
  for (const [field, a, b] of [
    ["design.lengthMm", 0, heel],
    ["design.ricasso.lengthMm", zone("ricasso").fromMm, zone("ricasso").toMm],
    ["design.tang.lengthMm", zone("tang").fromMm, zone("tang").toMm],
  ] as const) {
    const xa = l.x(a);
    const xb = l.x(b);
    out.push({
      field,
      x: (xa + xb) / 2,
      y: level + 2,
      narrow: Math.abs(xb - xa) < dimPx.w + 6,
      along: true,
      line: `M${xa},${level - 8}v12M${xb},${level - 8}v12M${xa},${level - 3}H${xb}`,
    });
  }
  const xh = l.x(0) + beyond * 14;
  const yTop = row.baseY - e.top * l.scale;
  const yBottom = row.baseY - e.bottom * l.scale;
  out.push({
    field: "design.heightMm",
    x: l.x(0) + beyond * 42,
    y: (yTop + yBottom) / 2,
    line: `M${xh - 5},${yTop}h10M${xh - 5},${yBottom}h10M${xh},${yTop}V${yBottom}`,
  });
  out.push({ field: "design.tipMm", x: l.x(0) + beyond * 42, y: row.edgeOnY, line: "" });
  // beside the tang, where the drawing leaves room
  const face = spineFace(plan, l);
  const free = l.x(zone("ricasso").toMm) - beyond * 46;
  out.push({
    field: "design.spineMm",
    x: free,
    y: face - 15,
    line: `M${l.x(heel)},${face}L${l.x(heel) - beyond * 8},${face - 8}H${free}`,
  });

  if (flatBar) {
    const b = l.bar;
    const xb = l.x(0) + beyond * 14;
    out.push({
      field: "bar.widthMm",
      x: l.x(0) + beyond * 42,
      y: (b.topY + b.bottomY) / 2,
      line: `M${xb - 5},${b.topY}h10M${xb - 5},${b.bottomY}h10M${xb},${b.topY}V${b.bottomY}`,
    });
    const at = l.barBesidePx;
    const end = l.barX(plan.bar.cutLengthMm) + at - beyond * 42;
    out.push({ field: "bar.thicknessMm", x: at ? end : l.x(0) + beyond * 42, y: b.edgeOnY, line: "" });
  }
  return out;
}

export const DimLines = memo(function DimLines({ dims }: { dims: Dim[] }) {
  return <path d={dims.map((d) => d.line).join("")} fill="none" stroke="var(--quiet)" strokeWidth="1" />;
});

export const DimFields = memo(function DimFields({ dims }: { dims: Dim[] }) {
  return (
    <>
      {dims.map((d) => (
        <Label key={d.field} field={d.field} x={d.x} y={d.y} />
      ))}
    </>
  );
});
