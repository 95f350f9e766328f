import { glow } from "../bench/glow";
import type { Shown } from "./core";

/** The time that is left as a shape that shrinks: of the heat while the piece is out, until it is hot while it is in. */
export function TimeBar({ shown }: { shown: Shown }) {
  const v = shown.view;
  const share = v.wholeS > 0 ? Math.min(1, Math.max(0, v.leftS / v.wholeS)) : 0;
  const out = v.phase === "out";
  return (
    <div className="relative h-[5vmin] min-h-6 overflow-hidden rounded-sm bg-[#262c30]" aria-hidden>
      <div
        data-testid="time-bar"
        data-share={share.toFixed(2)}
        className="absolute inset-y-0 left-0"
        style={{
          width: `${(out ? share : 1 - share) * 100}%`,
          background: out ? (v.last || v.cold ? "#f0714d" : "#ebe6da") : glow(v.nowC),
        }}
      />
    </div>
  );
}
