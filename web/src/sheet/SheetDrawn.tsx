import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from "react";
import type { SheetPlan } from "../api/client";
import { say, told } from "../text/say";
import { inches, print, type System } from "../units/print";

type Placed = SheetPlan["layout"]["placed"];

interface Props {
  plan: SheetPlan;
  units: System;
  chosen?: number;
  onChoose: (i: number) => void;
  onMoved: (placed: Placed) => void;
}

const path = (p: number[][], dx = 0, dy = 0) =>
  `M${p.map((q) => `${((q[0] ?? 0) + dx).toFixed(2)},${(-(q[1] ?? 0) + dy).toFixed(2)}`).join("L")}Z`;

/** The sheet at one scale, the parts on it to be dragged, or moved and turned with the keys. */
export function SheetDrawn({ plan, units, chosen, onChoose, onMoved }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const drag = useRef<{ i: number; x: number; y: number } | undefined>(undefined);
  const [off, setOff] = useState<[number, number]>([0, 0]);
  const placed = plan.layout.placed;
  // keys are gathered before the server is asked where that leaves the others
  const [keyed, setKeyed] = useState<Placed>();
  useEffect(() => {
    if (!keyed) return;
    const soon = setTimeout(() => {
      setKeyed(undefined);
      onMoved(keyed);
    }, 350);
    return () => clearTimeout(soon);
  }, [keyed, onMoved]);
  const xs = plan.sheet.map((q) => q[0] ?? 0);
  const ys = plan.sheet.map((q) => -(q[1] ?? 0));
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [wide, high] = [Math.max(...xs) - left, Math.max(...ys) - top];
  const pad = 0.03 * Math.max(wide, high);
  const wrong = new Set(plan.faults.flatMap((f) => [f.placed, f.other]));
  const scale = () => (svg.current ? (wide + 2 * pad) / svg.current.clientWidth : 1);
  const down = (i: number) => (e: PointerEvent) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = { i, x: e.clientX, y: e.clientY };
    onChoose(i);
  };
  const move = (e: PointerEvent) => {
    const d = drag.current;
    if (d) setOff([(e.clientX - d.x) * scale(), (e.clientY - d.y) * scale()]);
  };
  const up = () => {
    const d = drag.current;
    drag.current = undefined;
    if (!d || (off[0] === 0 && off[1] === 0)) return;
    onMoved(placed.map((p, i) => (i === d.i ? { ...p, xMm: p.xMm + off[0], yMm: p.yMm - off[1] } : p)));
    setOff([0, 0]);
  };
  const key = (i: number) => (e: KeyboardEvent) => {
    const step = (inches(units) ? 25.4 / 16 : 1) * (e.shiftKey ? 10 : 1);
    const now = keyed ?? placed;
    const by: Record<string, Partial<Placed[number]>> = {
      ArrowLeft: { xMm: (now[i]?.xMm ?? 0) - step },
      ArrowRight: { xMm: (now[i]?.xMm ?? 0) + step },
      ArrowUp: { yMm: (now[i]?.yMm ?? 0) + step },
      ArrowDown: { yMm: (now[i]?.yMm ?? 0) - step },
      r: { turnDeg: ((now[i]?.turnDeg ?? 0) + (e.shiftKey ? 90 : 15)) % 360 },
      f: { flipped: !now[i]?.flipped },
    };
    const go = by[e.key] ?? by[e.key.toLowerCase()];
    if (!go) return;
    e.preventDefault();
    setKeyed(now.map((p, k) => (k === i ? { ...p, ...go } : p)));
  };
  const shown = (i: number): [number, number] => {
    if (drag.current?.i === i) return off;
    const [k, p] = [keyed?.[i], placed[i]];
    return k && p ? [k.xMm - p.xMm, -(k.yMm - p.yMm)] : [0, 0];
  };
  return (
    <svg
      ref={svg}
      viewBox={`${left - pad} ${top - pad} ${wide + 2 * pad} ${high + 2 * pad}`}
      className="max-h-[60vh] w-full touch-none select-none"
      role="img"
      aria-label={`${plan.name}, ${print.thickness(plan.thicknessMm, units)}`}
      data-testid="sheet"
    >
      <path d={path(plan.sheet)} fill="var(--plate)" stroke="var(--chalk)" vectorEffect="non-scaling-stroke" />
      <Rolling left={left} top={top} wide={wide} high={high} />
      {plan.bad.map((b) => (
        <path
          key={path(b.outline)}
          d={path(b.outline)}
          fill="var(--ember)"
          fillOpacity="0.35"
          stroke="var(--ember)"
          vectorEffect="non-scaling-stroke"
        >
          <title>{told(`why.dead.${b.why}`)}</title>
        </path>
      ))}
      {plan.outlines.map((o, i) => {
        const p = placed[i];
        const name = plan.parts[p?.part ?? 0]?.name ?? "";
        const [dx, dy] = shown(i);
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: parts are told apart by their place in the layout
            key={i}
            d={path(o, dx, dy)}
            fill={wrong.has(i) ? "var(--ember)" : "var(--zone-blade)"}
            fillOpacity={chosen === i ? 0.75 : 0.45}
            stroke={wrong.has(i) ? "var(--ember)" : "var(--chalk)"}
            strokeWidth={chosen === i ? 2.5 : 1.2}
            vectorEffect="non-scaling-stroke"
            style={{ cursor: "move" }}
            tabIndex={0}
            role="button"
            aria-label={say("sheet.part", {
              name,
              x: print.length(p?.xMm ?? 0, units),
              y: print.length(p?.yMm ?? 0, units),
              turn: Math.round(p?.turnDeg ?? 0),
            })}
            onFocus={() => onChoose(i)}
            onPointerDown={down(i)}
            onPointerMove={move}
            onPointerUp={up}
            onPointerCancel={up}
            onKeyDown={key(i)}
            data-part={i}
          >
            <title>{name}</title>
          </path>
        );
      })}
    </svg>
  );
}

/** Which way the sheet was rolled: fine lines along it. */
function Rolling({ left, top, wide, high }: { left: number; top: number; wide: number; high: number }) {
  const lines = Array.from({ length: 9 }, (_, i) => top + (high * (i + 1)) / 10);
  return (
    <g stroke="var(--quiet)" opacity="0.25" strokeDasharray="14 7" pointerEvents="none">
      <title>{say("sheet.rolling")}</title>
      {lines.map((y) => (
        <path key={y} d={`M${left},${y}h${wide}`} vectorEffect="non-scaling-stroke" strokeWidth="1" />
      ))}
    </g>
  );
}
