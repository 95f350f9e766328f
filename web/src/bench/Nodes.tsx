import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import type { Plan } from "../api/client";
import { useDraft, useDraftState } from "../draft/context";
import { say } from "../text/say";
import { inches, print, type System, typedMm } from "../units/print";
import type { Layout } from "./layout";

export type Side = "spine" | "edge" | "taper" | "tangTop" | "tangBottom";
export interface NodeRef {
  side: Side;
  index: number;
}

/** What a drag of the nodes keeps to. */
export interface NodeRules {
  /** Step that nodes snap to: none, whole millimetres, sixteenths of an inch; unset, that of the units. */
  snap?: "none" | "mm" | "in";
  lockHeel: boolean;
  lockLength: boolean;
}

interface Props {
  plan: Plan;
  layout: Layout;
  units: System;
  rules: NodeRules;
  chosen?: NodeRef;
  onChoose: (n: NodeRef | undefined) => void;
  onHold: (held: boolean) => void;
}

/** Steps of the keys, and of a drag that snaps; free, a drag goes by hundredths. */
const stepOf = (snap: NodeRules["snap"], units: System) => {
  const inch = snap === "in" || (snap !== "mm" && inches(units));
  return inch ? 25.4 / 16 : 1;
};
const snapped = (v: number, step: number) => Math.round(v / step) * step;
/** A thickness moves in tenths, or in sixty-fourths of an inch. */
const thickStep = (units: System) => (inches(units) ? 25.4 / 64 : 0.1);
const text = (x: number, y: number) => `${typedMm(x)}; ${typedMm(y)}`;

/** The nodes of the outline on the finished blade: dragged, or moved with the keys. */
export function Nodes({ plan, layout: l, units, rules, chosen, onChoose, onHold }: Props) {
  const draft = useDraft();
  const { errors, doc } = useDraftState();
  const drag = useRef<{ n: NodeRef; x: number; y: number; from: [number, number] } | null>(null);
  const row = l.finished;
  const step = stepOf(rules.snap, units);
  const free = rules.snap === "none" ? 0.01 : step;
  const dir = l.x(1) - l.x(0);
  const lengthMm = doc.request.design.lengthMm;
  const taper = (doc.request.design.taperNodes ?? []).map((n): [number, number] => [
    n.atFraction * lengthMm,
    n.thicknessMm,
  ]);
  const behind = shoulderMm(doc.request.design);
  const tang = plan.tangNodes;
  const moved = (nodes: number[][] | undefined | null) =>
    (nodes ?? []).map((n): [number, number] => [(n[0] ?? 0) + behind, n[1] ?? 0]);
  const sides: [Side, [number, number][], number[]][] = [
    ["spine", plan.nodes.spine as [number, number][], plan.nodes.spineCorners ?? []],
    ["edge", plan.nodes.edge as [number, number][], plan.nodes.edgeCorners ?? []],
    ["taper", taper, []],
    ["tangTop", moved(tang?.spine), tang?.spineCorners ?? []],
    ["tangBottom", moved(tang?.edge), tang?.edgeCorners ?? []],
  ];
  const isHeel = (n: NodeRef) =>
    (n.side === "spine" || n.side === "edge") && n.index === (sides.find((s) => s[0] === n.side)?.[1].length ?? 0) - 1;
  const put = (n: NodeRef, x: number, y: number) => {
    if (isHeel(n) && rules.lockHeel) return;
    const own = ofTang(n.side) ? x - behind : x; // nodes of the tang count from its shoulder
    draft.type(nameOf(n), text(own, n.side === "taper" ? Math.max(0.1, y) : y));
    if (isHeel(n) && !rules.lockLength) draft.type("outline.heel", typedMm(x));
  };
  const down = (n: NodeRef, at: [number, number]) => (e: PointerEvent) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = { n, x: e.clientX, y: e.clientY, from: at };
    onChoose(n);
    onHold(true);
  };
  const move = (e: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const up = d.y - e.clientY;
    const y =
      d.n.side === "taper"
        ? snapped(d.from[1] + (2 * up) / row.thickScale, thickStep(units))
        : snapped(d.from[1] + up / l.scale, free);
    put(d.n, snapped(d.from[0] + (e.clientX - d.x) / dir, free), y);
  };
  const up = () => {
    if (!drag.current) return;
    drag.current = null;
    onHold(false);
    void draft.flush();
  };
  const key = (n: NodeRef, at: [number, number]) => (e: KeyboardEvent) => {
    const typed = draft
      .get()
      .typed[nameOf(n)]?.split(";")
      .map((t) => Number.parseFloat(t));
    const [x, y] = typed?.length === 2 ? [(typed[0] ?? 0) + (ofTang(n.side) ? behind : 0), typed[1] ?? 0] : at;
    const k = (e.shiftKey ? 10 : 1) * (e.altKey ? 0.2 : 1);
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-Math.sign(dir), 0],
      ArrowRight: [Math.sign(dir), 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    };
    const go = by[e.key];
    const where = `${n.side} ${n.index}`;
    const dy = n.side === "taper" ? thickStep(units) : step;
    if (go) put(n, x + go[0] * step * k, y + go[1] * dy * k);
    else if (e.key === "Delete" || e.key === "Backspace")
      n.side === "taper" ? draft.choose("taper.delete", String(n.index)) : draft.choose("outline.delete", where);
    else if (e.key.toLowerCase() === "c" && !e.ctrlKey && !e.metaKey) draft.choose("outline.corner", where);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <g>
      {sides.flatMap(([side, nodes, corners]) =>
        nodes.map((at, index) => {
          const n = { side, index };
          const name = nameOf(n);
          const wrong = errors[name];
          const on = chosen?.side === side && chosen.index === index;
          const x = l.x(at[0]);
          const y = side === "taper" ? row.edgeOnY - (at[1] / 2) * row.thickScale : row.baseY - at[1] * l.scale;
          const common = {
            "data-node": `${side}.${index}`,
            className: `handle node ${wrong ? "wrong" : ""} ${on ? "on" : ""}`,
            style: { cursor: "move", touchAction: "none" },
            tabIndex: 0,
            role: "button",
            "aria-label": `${say("outline.node", { side: sideName(side), n: index + 1 })}: ${print.length(at[0], units)}, ${print.length(at[1], units)}`,
            onFocus: () => onChoose(n),
            onPointerDown: down(n, at),
            onPointerMove: move,
            onPointerUp: up,
            onPointerCancel: up,
            onKeyDown: key(n, at),
          };
          return (
            <g key={name} {...common}>
              <circle cx={x} cy={y} className="hit" />
              {corners.includes(index) ? (
                <rect x={x - 5.5} y={y - 5.5} width="11" height="11" className="dot" />
              ) : (
                <circle cx={x} cy={y} r="5.5" className="dot" />
              )}
            </g>
          );
        }),
      )}
    </g>
  );
}

const nameOf = (n: NodeRef) => (n.side === "taper" ? `taper.${n.index}` : `outline.${n.side}.${n.index}`);
const ofTang = (s: Side) => s === "tangTop" || s === "tangBottom";
/** How far behind the point the tang begins. */
const shoulderMm = (d: { lengthMm: number; ricasso: { lengthMm: number } }) => d.lengthMm + d.ricasso.lengthMm;
export const sideName = (s: Side) => (s === "taper" ? say("taper.side") : say(`outline.${s}`));

/** Adds a node where the outline is double-clicked: on the nearer of the two curves. */
export function nodeAt(plan: Plan, l: Layout, px: number, py: number): { field: string; text: string } {
  const mm = (px - l.x(0)) / (l.x(1) - l.x(0));
  if (py > l.finished.edgeOnY - l.finished.edgeOnHalf - 4) return { field: "taper.add", text: typedMm(mm, 2) };
  const y = (l.finished.baseY - py) / l.scale;
  const s = plan.drawing.finished.reduce((a, b) => (Math.abs(b.x - mm) < Math.abs(a.x - mm) ? b : a));
  const upper = Math.abs(y - s.s) < Math.abs(y - s.e);
  const tang = plan.tangNodes && plan.drawing.finishedZones.find((z) => z.zone === "tang");
  if (tang && mm > tang.fromMm) {
    const at = Number((mm - tang.fromMm).toFixed(2));
    return { field: "outline.add", text: `${upper ? "tangTop" : "tangBottom"} ${typedMm(at)}` };
  }
  return { field: "outline.add", text: `${upper ? "spine" : "edge"} ${typedMm(mm, 2)}` };
}
