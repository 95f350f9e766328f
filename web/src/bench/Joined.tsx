import type { Plan } from "../api/client";
import { say } from "../text/say";

interface Props {
  joined?: Plan["drawing"]["joined"];
  at: (mm: number, y: number) => [number, number];
  /** Of a millimetre, as it is drawn. */
  scale: number;
  stroke: string;
  strokeWidth: number;
}

/** What is welded in or punched through as the piece is: the seam of a bit, and holes. */
export function Joined({ joined, at, scale, stroke, strokeWidth }: Props) {
  const seam = joined?.seam ?? [];
  return (
    <g fill="none" stroke={stroke} strokeWidth={strokeWidth} pointerEvents="none">
      {seam.length > 1 && (
        <path
          d={`M${seam.map((n) => at(n[0] ?? 0, n[1] ?? 0).map((v) => v.toFixed(2))).join("L")}`}
          strokeDasharray={`${strokeWidth * 5} ${strokeWidth * 2.2} ${strokeWidth} ${strokeWidth * 2.2}`}
          data-testid="bit-seam"
        >
          <title>{say("bit.seam")}</title>
        </path>
      )}
      {(joined?.holes ?? []).map((h) => {
        const [x, y] = at(h.x, h.y);
        const long = Math.max(h.longMm ?? 0, h.diameterMm) * scale;
        const high = h.diameterMm * scale;
        return (
          <rect
            key={`${h.x} ${h.y}`}
            x={x - long / 2}
            y={y - high / 2}
            width={long}
            height={high}
            rx={high / 2}
            fill="var(--plate)"
            data-testid="punched"
          />
        );
      })}
    </g>
  );
}
