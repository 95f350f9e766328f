import { say } from "../text/say";
import type { Asked, Frame } from "./eye";

const rgb = (c: number[]) => `rgb(${c.join(" ")})`;

/** A bar in the light of the room, its ends a little cooler; a shadow goes through it at the transformation. */
export function Steel({ asked, frame }: { asked: Asked; frame: Frame }) {
  return (
    <svg
      viewBox="0 0 300 120"
      className="max-h-[46vh] w-full"
      role="img"
      aria-label={say("eye.drawn")}
      data-testid="steel"
      data-shadow={frame.shadow ?? false}
    >
      <defs>
        <linearGradient id="hot">
          <stop offset="0" stopColor={rgb(frame.cooler)} />
          <stop offset="0.3" stopColor={rgb(frame.colour)} />
          <stop offset="0.7" stopColor={rgb(frame.colour)} />
          <stop offset="1" stopColor={rgb(frame.cooler)} />
        </linearGradient>
        <radialGradient id="shade">
          <stop offset="0" stopColor="#000" stopOpacity="0.35" />
          <stop offset="1" stopColor="#000" stopOpacity="0" />
        </radialGradient>
      </defs>
      <rect width="300" height="120" fill={rgb(asked.wall)} />
      <rect x="40" y="42" width="220" height="36" rx="2" fill="url(#hot)" />
      {frame.shadow && <ellipse cx="150" cy="60" rx="62" ry="15" fill="url(#shade)" />}
    </svg>
  );
}
