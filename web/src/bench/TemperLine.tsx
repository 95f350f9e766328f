import type { Plan } from "../api/client";
import type { components } from "../api/schema";
import { say } from "../text/say";
import type { Layout } from "./layout";

export type HardLine = components["schemas"]["HardenLineAt"][];

/** Where hard ends on the finished blade: a fine double line with H below it, and the band that it is good to. */
export function TemperLine({ plan, layout: l, line }: { plan: Plan; layout: Layout; line: HardLine }) {
  const st = plan.drawing.finished;
  const edgeAt = (x: number) => {
    for (let i = 1; i < st.length; i++) {
      const a = st[i - 1];
      const b = st[i];
      if (!a || !b || x > b.x || b.x - a.x < 1e-9) continue;
      return a.e + ((b.e - a.e) * (x - a.x)) / (b.x - a.x);
    }
    return st.at(-1)?.e ?? 0;
  };
  const at = (x: number, up: number) =>
    `${l.x(x).toFixed(1)},${(l.finished.baseY - (edgeAt(x) + up) * l.scale).toFixed(1)}`;
  const whole = line.every((p) => p.hardMm >= p.heightMm - 0.05);
  const none = line.every((p) => p.hardMm <= 0);
  const band = [...line.map((p) => at(p.x, p.sureMm)), ...[...line].reverse().map((p) => at(p.x, p.mostMm))].join(" ");
  const path = (k: "hardMm" | "mixedMm") => `M${line.map((p) => at(p.x, p[k])).join("L")}`;
  const worded = whole || none; // its words lie below the letter of the part
  const middle = line[Math.floor(line.length / 2)];
  return (
    <g data-testid="temper-line" data-whole={whole} data-none={none} className="pointer-events-none">
      {!whole && !none && (
        <>
          <polygon points={band} fill="var(--chalk)" fillOpacity="0.14" />
          <path d={path("hardMm")} fill="none" stroke="var(--chalk)" strokeWidth="4" />
          <path d={path("hardMm")} fill="none" stroke="var(--plate)" strokeWidth="1.6" />
          <path d={path("mixedMm")} fill="none" stroke="var(--chalk)" strokeWidth="1" strokeDasharray="2 3" />
        </>
      )}
      {middle && (
        <text
          x={l.x(middle.x)}
          y={l.finished.baseY - (edgeAt(middle.x) + Math.max(2, middle.hardMm / (worded ? 4 : 2))) * l.scale + 6}
          textAnchor="middle"
          className="narrow"
          fontSize="18"
          fill="var(--chalk)"
          stroke="var(--plate)"
          strokeWidth="4"
          paintOrder="stroke"
        >
          {none ? say("treat.drawnNone") : whole ? say("treat.drawnWhole") : "H"}
        </text>
      )}
    </g>
  );
}
