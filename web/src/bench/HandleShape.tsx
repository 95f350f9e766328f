import { memo } from "react";
import type { Plan } from "../api/client";
import { say, told } from "../text/say";
import type { Layout } from "./layout";

/** Handle and fittings over the tang, flat and from the spine; the holes; and the line of the push. */
export const HandleShape = memo(function HandleShape({ plan, layout: l }: { plan: Plan; layout: Layout }) {
  const row = l.finished;
  const at = (n: number[]) => `${l.x(n[0] ?? 0).toFixed(1)},${(row.baseY - (n[1] ?? 0) * l.scale).toFixed(1)}`;
  const { handle = [], holes = [], push, bent } = plan.drawing;
  return (
    <g pointerEvents="none" data-testid="handle">
      {handle.map((p) => {
        const half = (p.widthMm * l.scale) / 2;
        const a = Math.min(l.x(p.fromMm), l.x(p.toMm));
        const wide = Math.abs(l.x(p.toMm) - l.x(p.fromMm));
        const metal = p.what !== "grip";
        return (
          <g key={p.what} data-part={p.what} stroke="var(--chalk)" strokeWidth="1.1" strokeLinejoin="round">
            <title>{`${say(`handle.${p.what}`)}: ${told(`material.${p.material}`)}`}</title>
            <path
              d={`M${p.outline.map(at).join("L")}Z`}
              fill={metal ? "var(--quiet)" : "none"}
              fillOpacity="0.35"
              strokeDasharray={metal ? "none" : "7 3"}
            />
            <path
              d={`M${a},${row.edgeOnY - half}h${wide}v${2 * half}h${-wide}Z`}
              fill="none"
              strokeDasharray={metal ? "none" : "7 3"}
              opacity="0.8"
            />
          </g>
        );
      })}
      {holes.map((h) => (
        <rect
          key={`${h.x} ${h.y}`}
          x={l.x(h.x) - (Math.max(h.longMm ?? 0, h.diameterMm) / 2) * l.scale}
          y={row.baseY - (h.y + h.diameterMm / 2) * l.scale}
          width={Math.max(h.longMm ?? 0, h.diameterMm) * l.scale}
          height={h.diameterMm * l.scale}
          rx={(h.diameterMm / 2) * l.scale}
          fill="var(--plate)"
          stroke="var(--chalk)"
          strokeWidth="1.1"
          data-testid="hole"
        />
      ))}
      {bent && (
        <path
          d={`M${bent.side.map(at).join("L")}Z`}
          stroke="var(--chalk)"
          strokeWidth="1.1"
          strokeDasharray="2 4"
          fill="none"
          data-testid="bent"
        />
      )}
      {push && (
        <path
          d={`M${at(push.butt)}L${at(along(push.butt, push.front, plan.drawing.finished[0]?.x ?? 0))}`}
          stroke="var(--quiet)"
          strokeWidth="1"
          strokeDasharray="12 4 2 4"
          fill="none"
          data-testid="push"
        />
      )}
    </g>
  );
});

/** The line from a through b, carried on to x. */
function along(a: number[], b: number[], x: number): number[] {
  const [ax = 0, ay = 0] = a;
  const [bx = 1, by = 0] = b;
  return [x, ay + ((by - ay) * (x - ax)) / (bx - ax)];
}
