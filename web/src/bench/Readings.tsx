import type { Heat } from "../api/client";
import { print, type System } from "../units/print";
import type { Layout } from "./layout";

/** A label is no wider than this, px. */
const labelPx = 112;

/** The line that each label goes on so that none runs into another: the first with room. */
export function linesFor(xs: number[]): number[] {
  const taken: number[][] = [];
  return xs.map((x) => {
    let line = 0;
    while ((taken[line] ?? []).some((t) => Math.abs(t - x) < labelPx)) line++;
    taken[line] = [...(taken[line] ?? []), x];
    return line;
  });
}

/** What the calipers should say after a heat, and the stretch that was hot. */
export function Readings({ step, layout, units }: { step: Heat; layout: Layout; units: System }) {
  const row = layout.forged;
  const a = layout.x(step.hotFromMm);
  const b = layout.x(step.hotToMm);
  const y = row.edgeOnY + row.edgeOnHalf + 8;
  const lines = linesFor(step.readings.map((r) => layout.x(r.atMm)));
  return (
    <g>
      <path
        d={`M${a},${y - 5}v8M${b},${y - 5}v8M${a},${y}H${b}`}
        stroke="var(--ember)"
        strokeWidth="2"
        fill="none"
        data-testid="hot-stretch"
      />
      {step.readings.map((r, i) => {
        const x = layout.x(r.atMm);
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: the first, second and third of a heat
          <g key={i} className="narrow" fill="var(--chalk)" fontSize="14.500">
            <path
              d={`M${x},${row.topY - 2}V${row.bottomY + 2}`}
              stroke="var(--chalk)"
              strokeDasharray="3 3"
              opacity="0.6"
            />
            <text x={x} y={y + 16 + (lines[i] ?? 0) * 14} textAnchor="middle">
              {print.length(r.heightMm, units)} × {print.thickness(r.thicknessMm, units)}
            </text>
          </g>
        );
      })}
    </g>
  );
}
