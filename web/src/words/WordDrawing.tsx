import { drawings, type Of } from "./drawings";

const look: Record<Of, { fill: string; stroke: string; dash?: string; width: number }> = {
  steel: { fill: "var(--plate)", stroke: "var(--chalk)", width: 1.2 },
  hot: { fill: "var(--ember)", stroke: "var(--chalk)", width: 1.2 },
  tool: { fill: "var(--line)", stroke: "var(--quiet)", width: 1.2 },
  line: { fill: "none", stroke: "var(--quiet)", width: 1.2 },
  dash: { fill: "none", stroke: "var(--quiet)", width: 1.2, dash: "3 2.5" },
  mark: { fill: "var(--act)", stroke: "var(--act)", width: 2 },
  arrow: { fill: "none", stroke: "var(--act)", width: 1.6 },
};

/** Strokes that are open are lines, whatever they are of. */
const open = (d: string) => !/[Zz]/.test(d);

/** The small drawing of a word. */
export function WordDrawing({ id, className = "" }: { id: string; className?: string }) {
  const strokes = drawings[id];
  if (!strokes) return null;
  return (
    <svg viewBox="0 0 120 60" className={className} aria-hidden="true">
      <defs>
        <marker id={`head-${id}`} viewBox="0 0 6 6" refX="5" refY="3" markerWidth="5" markerHeight="5" orient="auto">
          <path d="M0 0L6 3L0 6Z" fill="var(--act)" />
        </marker>
      </defs>
      {strokes.map(([of, d]) => (
        <path
          key={of + d}
          d={d}
          fill={open(d) ? "none" : look[of].fill}
          fillOpacity={of === "mark" ? 0.35 : of === "hot" ? 0.75 : 1}
          stroke={look[of].stroke}
          strokeWidth={look[of].width}
          strokeDasharray={look[of].dash}
          strokeLinejoin="round"
          markerEnd={of === "arrow" ? `url(#head-${id})` : undefined}
        />
      ))}
    </svg>
  );
}
