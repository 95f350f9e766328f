import { useUnits } from "../../api/hooks";
import type { components } from "../../api/schema";
import { extent, outline } from "../../bench/layout";
import { say } from "../../text/say";
import { print } from "../../units/print";
import type { Book } from "./words";

type Course = components["schemas"]["FireCourse"];

const widthPx = 820;
const padPx = 14;

/** The piece as it was measured over the piece as planned after the same heat: planned dashed, measured solid, figures
 * where they differ. */
export function Overlay({ book, course }: { book: Book; course: Course }) {
  const units = useUnits();
  const done = course.steps[Math.max(0, book.step - 1)];
  const heat = course.heats[(done?.heat ?? 1) - 1];
  if (!heat || book.step === 0) return <p className="text-quiet">{say("log.notBegun")}</p>;
  const st = heat.shape;
  const e = extent(st);
  const scale = (widthPx - 2 * padPx) / Math.max(1, e.length);
  const top = 46;
  const flat = (x: number, y: number) => `${(padPx + x * scale).toFixed(1)},${(top + (e.top - y) * scale).toFixed(1)}`;
  const spineY = top + (e.top - e.bottom) * scale + 26 + (e.thick * scale) / 2;
  const edgeOn = [
    ...st.map((s) => `${(padPx + s.x * scale).toFixed(1)},${(spineY - (s.t / 2) * scale).toFixed(1)}`),
    ...[...st].reverse().map((s) => `${(padPx + s.x * scale).toFixed(1)},${(spineY + (s.t / 2) * scale).toFixed(1)}`),
  ].join(" ");
  const at = (mm: number) => st.reduce((a, b) => (Math.abs(b.x - mm) < Math.abs(a.x - mm) ? b : a));
  let last = -1e9;
  const marks = book.measured
    .filter((m) => m.quantity !== "length")
    .sort((a, b) => a.atMm - b.atMm)
    .map((m) => {
      const s = at(m.atMm);
      const off = m.mm - m.wantMm;
      const tall = m.quantity === "height";
      const mid = tall ? (s.s + s.e) / 2 : 0;
      const x = padPx + m.atMm * scale;
      const y0 = tall ? top + (e.top - mid - m.mm / 2) * scale : spineY - (m.mm / 2) * scale;
      const label = Math.abs(off) >= 0.05 && x - last > 46;
      if (label) last = x;
      return { ...m, x, y0, y1: y0 + m.mm * scale, off, label };
    });
  const height = spineY + (e.thick * scale) / 2 + 22;
  return (
    <figure>
      <svg
        viewBox={`0 0 ${widthPx} ${height}`}
        className="w-full max-w-[1000px]"
        role="img"
        aria-label={say("log.overlay")}
        data-testid="log-overlay"
      >
        <path d={outline(st, flat)} fill="none" stroke="var(--chalk)" strokeWidth="1.2" strokeDasharray="6 4" />
        <polygon points={edgeOn} fill="none" stroke="var(--chalk)" strokeWidth="1.2" strokeDasharray="6 4" />
        {marks.map((m) => (
          <g key={`${m.quantity}${m.atMm}`} data-measured={m.quantity}>
            <path
              d={`M${m.x - 5},${m.y0}h10M${m.x},${m.y0}V${m.y1}M${m.x - 5},${m.y1}h10`}
              stroke={m.off < -0.05 ? "var(--ember)" : m.off > 0.05 ? "var(--zone-point)" : "var(--act)"}
              strokeWidth="2"
              strokeDasharray={m.off < -0.05 ? "3 2" : undefined}
              fill="none"
            />
            {m.label && (
              <text
                x={m.x}
                y={m.y0 - 5}
                textAnchor="middle"
                className="narrow"
                fontSize="14"
                fill="var(--chalk)"
                stroke="var(--plate)"
                strokeWidth="4"
                paintOrder="stroke"
              >
                {m.off > 0 ? "+" : "−"}
                {print.thickness(Math.abs(m.off), units)}
              </text>
            )}
          </g>
        ))}
      </svg>
      <figcaption className="text-sm text-quiet">{say("log.overlayKey", { n: done?.heat ?? 0 })}</figcaption>
    </figure>
  );
}
