import type { Heat } from "../api/client";
import { print, type System } from "../units/print";
import { around, type Box, place, textPx } from "./labels";
import type { Layout } from "./layout";

/** Where the figures of the calipers stand, below the places that they are of. */
export function readingLabels(step: Heat, l: Layout, units: System): Box[] {
  const y = l.forged.edgeOnY + l.forged.edgeOnHalf + 19;
  const placed = place(
    step.readings.map((r, i) => ({
      id: String(i),
      w: textPx(words(r, units), 14.5),
      h: 14,
      at: around(l.x(r.atMm), y, { side: 10, sides: 17, line: 17, lines: 3 }),
    })),
  );
  return step.readings.map((_, i) => placed.get(String(i)) ?? { x: 0, y: 0, w: 0, h: 0 });
}

const words = (r: Heat["readings"][number], units: System) =>
  `${print.length(r.heightMm, units)} × ${print.thickness(r.thicknessMm, units)}`;

/** What the calipers should say after a heat, and the stretch that was hot. */
export function Readings({ step, layout, units }: { step: Heat; layout: Layout; units: System }) {
  const row = layout.forged;
  const a = layout.x(step.hotFromMm);
  const b = layout.x(step.hotToMm);
  const y = row.edgeOnY + row.edgeOnHalf + 8;
  const labels = readingLabels(step, layout, units);
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
            <text x={labels[i]?.x} y={(labels[i]?.y ?? 0) + 5} textAnchor="middle" data-label>
              {words(r, units)}
            </text>
          </g>
        );
      })}
    </g>
  );
}
