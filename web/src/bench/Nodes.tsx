import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import type { Plan } from "../api/client";
import { useDraft, useDraftState } from "../draft/context";
import { say } from "../text/say";
import { print, type System } from "../units/print";
import type { Layout } from "./layout";

export type Side = "spine" | "edge";
export interface NodeRef {
  side: Side;
  index: number;
}

interface Props {
  plan: Plan;
  layout: Layout;
  units: System;
  chosen?: NodeRef;
  onChoose: (n: NodeRef | undefined) => void;
  onHold: (held: boolean) => void;
}

/** Steps that a hand snaps to: whole millimetres across, halves up; sixteenths and thirty-seconds of an inch. */
const stepOf = (units: System) => (units === "in" ? { x: 25.4 / 16, y: 25.4 / 32 } : { x: 1, y: 0.5 });
const snap = (v: number, step: number) => Math.round(v / step) * step;
const text = (x: number, y: number) => `${Number(x.toFixed(5))}mm; ${Number(y.toFixed(5))}mm`;

/** The nodes of the outline on the finished blade: dragged, or moved with the keys. */
export function Nodes({ plan, layout: l, units, chosen, onChoose, onHold }: Props) {
  const draft = useDraft();
  const { errors } = useDraftState();
  const drag = useRef<{ n: NodeRef; x: number; y: number; from: [number, number] } | null>(null);
  const row = l.finished;
  const step = stepOf(units);
  const dir = l.x(1) - l.x(0);
  const put = (n: NodeRef, x: number, y: number) => draft.type(`outline.${n.side}.${n.index}`, text(x, y));
  const down = (n: NodeRef, at: [number, number]) => (e: PointerEvent) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = { n, x: e.clientX, y: e.clientY, from: at };
    onChoose(n);
    onHold(true);
  };
  const move = (e: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    put(d.n, snap(d.from[0] + (e.clientX - d.x) / dir, step.x), snap(d.from[1] - (e.clientY - d.y) / l.scale, step.y));
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
      .typed[`outline.${n.side}.${n.index}`]?.split(";")
      .map((t) => Number.parseFloat(t));
    const [x, y] = typed?.length === 2 ? (typed as [number, number]) : at;
    const k = (e.shiftKey ? 10 : 1) * (e.altKey ? 0.2 : 1);
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-Math.sign(dir), 0],
      ArrowRight: [Math.sign(dir), 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    };
    const go = by[e.key];
    const where = `${n.side} ${n.index}`;
    if (go) put(n, x + go[0] * step.x * k, y + go[1] * step.y * k);
    else if (e.key === "Delete" || e.key === "Backspace") draft.choose("outline.delete", where);
    else if (e.key.toLowerCase() === "c" && !e.ctrlKey && !e.metaKey) draft.choose("outline.corner", where);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const sides: [Side, [number, number][], number[]][] = [
    ["spine", plan.nodes.spine as [number, number][], plan.nodes.spineCorners ?? []],
    ["edge", plan.nodes.edge as [number, number][], plan.nodes.edgeCorners ?? []],
  ];
  return (
    <g>
      {sides.flatMap(([side, nodes, corners]) =>
        nodes.map((at, index) => {
          const n = { side, index };
          const name = `outline.${side}.${index}`;
          const wrong = errors[name];
          const on = chosen?.side === side && chosen.index === index;
          const x = l.x(at[0]);
          const y = row.baseY - at[1] * l.scale;
          const common = {
            "data-node": `${side}.${index}`,
            className: `handle node ${wrong ? "wrong" : ""} ${on ? "on" : ""}`,
            style: { cursor: "move", touchAction: "none" },
            tabIndex: 0,
            role: "button",
            "aria-label": `${say("outline.node", { side: say(`outline.${side}`), n: index + 1 })}: ${print.length(at[0], units)}, ${print.length(at[1], units)}`,
            onFocus: () => onChoose(n),
            onPointerDown: down(n, at),
            onPointerMove: move,
            onPointerUp: up,
            onPointerCancel: up,
            onKeyDown: key(n, at),
          };
          return corners.includes(index) ? (
            <rect key={name} x={x - 5.5} y={y - 5.5} width="11" height="11" {...common} />
          ) : (
            <circle key={name} cx={x} cy={y} r="5.5" {...common} />
          );
        }),
      )}
    </g>
  );
}

/** Adds a node where the outline is double-clicked: on the nearer of the two curves. */
export function nodeAt(plan: Plan, l: Layout, px: number, py: number): string {
  const mm = (px - l.x(0)) / (l.x(1) - l.x(0));
  const y = (l.finished.baseY - py) / l.scale;
  const s = plan.drawing.finished.reduce((a, b) => (Math.abs(b.x - mm) < Math.abs(a.x - mm) ? b : a));
  return `${Math.abs(y - s.s) < Math.abs(y - s.e) ? "spine" : "edge"} ${Number(mm.toFixed(2))}mm`;
}
