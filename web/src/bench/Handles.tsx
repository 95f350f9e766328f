import { type KeyboardEvent, memo, type PointerEvent, useRef } from "react";
import type { Plan, Zone } from "../api/client";
import { useDraft, useDraftState, valueAt } from "../draft/context";
import { told } from "../text/say";
import { inches, print, type System, typedMm } from "../units/print";
import { extent, type Layout, spineFace } from "./layout";

interface Handle {
  field: string;
  x: number;
  y: number;
  /** Change of the figure, mm, for a px along the drag. */
  perPx: { x: number; y: number };
  cursor: string;
}

function handlesOf(plan: Plan, l: Layout, tang: boolean): Handle[] {
  const f = plan.drawing.finishedZones;
  const at = (z: string) => f.find((s) => s.zone === z)?.toMm ?? 0;
  const heel = at("blade");
  const row = l.finished;
  const blade = plan.drawing.finished.filter((s) => s.z === "point" || s.z === "blade");
  const e = extent(blade);
  const lowest = blade.reduce((a, s) => (s.e < a.e ? s : a));
  const dir = (l.x(1) - l.x(0)) ** -1;
  const heelStation = blade.at(-1);
  const mid = heelStation ? row.baseY - ((heelStation.s + heelStation.e) / 2) * l.scale : row.baseY;
  return [
    { field: "design.lengthMm", x: l.x(heel), y: mid, perPx: { x: dir, y: 0 }, cursor: "ew-resize" },
    {
      field: "design.heightMm",
      x: l.x((lowest.x + heel) / 2),
      y: row.baseY - e.bottom * l.scale,
      perPx: { x: 0, y: 1 / l.scale },
      cursor: "ns-resize",
    },
    {
      field: "design.tang.lengthMm",
      x: l.x(plan.drawing.finished.at(-1)?.x ?? at("tang")),
      y: tangY(plan, l),
      perPx: { x: dir, y: 0 },
      cursor: "ew-resize",
    },
    {
      field: "design.spineMm",
      x: l.x(heel * 0.97),
      y: spineFace(plan, l),
      perPx: { x: 0, y: -2 / l.scale },
      cursor: "ns-resize",
    },
    {
      field: "design.tipMm",
      x: l.x(heel * 0.02),
      y: row.edgeOnY - ((plan.drawing.finished[0]?.t ?? 2) / 2) * l.scale,
      perPx: { x: 0, y: -2 / l.scale },
      cursor: "ns-resize",
    },
    ...(tang ? tangHandles(plan, l) : []),
  ];
}

/** The taper of the tang both ways: shown while the tang is chosen. */
function tangHandles(plan: Plan, l: Layout): Handle[] {
  const row = l.finished;
  const tang = plan.drawing.finished.filter((s) => s.z === "tang");
  return [tang[0], tang.at(-1)].flatMap((s, i): Handle[] => {
    if (!s) return [];
    const end = i === 0 ? "Shoulder" : "End";
    const x = l.x(s.x + (i === 0 ? 4 : -4));
    return [
      {
        field: `design.tang.heightAt${end}Mm`,
        x,
        y: row.baseY - s.e * l.scale,
        perPx: { x: 0, y: 1 / l.scale },
        cursor: "ns-resize",
      },
      {
        field: `design.tang.thicknessAt${end}Mm`,
        x,
        y: row.edgeOnY - (s.t / 2) * row.thickScale,
        perPx: { x: 0, y: -2 / row.thickScale },
        cursor: "ns-resize",
      },
    ];
  });
}

function tangY(plan: Plan, l: Layout): number {
  const s = plan.drawing.finished.at(-1);
  return s ? l.finished.baseY - ((s.s + s.e) / 2) * l.scale : l.finished.baseY;
}

/** A thickness is moved in tenths. */
const isFine = (field: string) => /(spineMm|tipMm|thicknessAt\w+Mm)$/.test(field);

interface Props {
  plan: Plan;
  layout: Layout;
  units: System;
  /** The zone that is chosen. */
  selected?: Zone;
  /** Holds the scale still while dragging. */
  onHold: (held: boolean) => void;
}

/** Handles on the finished blade: dragged with a pointer, or moved with the arrow keys. */
export const Handles = memo(function Handles({ plan, layout, units, selected, onHold }: Props) {
  const draft = useDraft();
  const { doc } = useDraftState();
  const drag = useRef<{ h: Handle; x: number; y: number; from: number } | null>(null);
  const snap = (mm: number) => {
    const step = inches(units) ? 25.4 / 32 : 0.5;
    return Math.max(step, Math.round(mm / step) * step);
  };
  const put = (field: string, mm: number) => draft.type(field, typedMm(mm));
  const down = (h: Handle) => (e: PointerEvent) => {
    const from = valueAt(doc.request, h.field);
    if (typeof from !== "number") return;
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = { h, x: e.clientX, y: e.clientY, from };
    onHold(true);
  };
  const move = (e: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const by = (e.clientX - d.x) * d.h.perPx.x + (e.clientY - d.y) * d.h.perPx.y;
    put(d.h.field, isFine(d.h.field) ? Math.max(0.1, Math.round((d.from + by) * 10) / 10) : snap(d.from + by));
  };
  const up = () => {
    if (!drag.current) return;
    drag.current = null;
    onHold(false);
    void draft.flush();
  };
  const key = (h: Handle) => (e: KeyboardEvent) => {
    const dir = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
    // Presses can come faster than answers: go on from what was put last.
    const last = Number.parseFloat(draft.get().typed[h.field] ?? "");
    const now = Number.isNaN(last) ? valueAt(doc.request, h.field) : last;
    if (!dir || typeof now !== "number") return;
    e.preventDefault();
    e.stopPropagation();
    const step = (inches(units) ? 25.4 / 16 : 1) * (isFine(h.field) ? 0.1 : 1) * (e.shiftKey ? 10 : 1);
    put(h.field, Math.max(step, now + dir * step));
  };
  return (
    <g>
      {handlesOf(plan, layout, selected === "tang").map((h) => {
        const now = Number(valueAt(doc.request, h.field) ?? 0);
        return (
          <g
            key={h.field}
            data-handle={h.field}
            className="handle"
            style={{ cursor: h.cursor, touchAction: "none" }}
            tabIndex={0}
            role="slider"
            aria-label={told(`field.name.${h.field}`)}
            aria-valuenow={Math.round(now * 10) / 10}
            aria-valuetext={print.length(now, units)}
            onPointerDown={down(h)}
            onPointerMove={move}
            onPointerUp={up}
            onPointerCancel={up}
            onKeyDown={key(h)}
          >
            <circle cx={h.x} cy={h.y} className="hit" />
            <circle cx={h.x} cy={h.y} r="6.5" className="dot" />
          </g>
        );
      })}
    </g>
  );
});
