import { memo } from "react";
import type { State } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { glow } from "../../bench/glow";
import { say } from "../../text/say";
import { print } from "../../units/print";

const w = 320;
const h = 120;
const left = 8;
const foot = 18;

/** How the coldest worked spot cools from the fire to the last blow, with the window and the moment to stop. */
export const CoolingCurve = memo(function CoolingCurve({
  curve = [],
  carryS,
  lowC,
  highC,
}: {
  curve?: State["curve"];
  carryS: number;
  lowC: number;
  highC: number;
}) {
  const units = useUnits();
  const last = curve.at(-1);
  const first = curve[0];
  if (!first || !last || curve.length < 2) return null;
  const seconds = Math.max(last.s, 1);
  const top = Math.max(highC, first.c) + 30;
  const bottom = Math.min(lowC, last.c) - 60;
  const x = (s: number) => left + (s / seconds) * (w - left - 34);
  const y = (c: number) => ((top - c) / (top - bottom)) * (h - foot);
  const d = curve.map((m) => `${x(m.s).toFixed(1)},${y(m.c).toFixed(1)}`).join("L");
  return (
    <figure data-testid="cooling">
      <figcaption className="narrow text-[17px]">{say("curve.title")}</figcaption>
      <svg
        viewBox={`0 0 ${w} ${h}`}
        className="w-full"
        role="img"
        aria-label={say("curve.says", {
          soak: print.temperature(first.c, units),
          low: print.temperature(last.c, units),
          seconds: Math.round(seconds - carryS),
        })}
      >
        <linearGradient id="cooling" x1="0" x2="0" y1="0" y2="1">
          {[0, 0.5, 1].map((f) => (
            <stop key={f} offset={f} stopColor={glow(highC + (lowC - highC) * f)} />
          ))}
        </linearGradient>
        <rect
          x={left}
          width={w - left}
          y={y(highC)}
          height={Math.max(0, y(lowC) - y(highC))}
          fill="url(#cooling)"
          opacity="0.28"
        />
        <path d={`M${left},${y(lowC)}H${w}`} stroke="var(--ember)" strokeWidth="1.5" strokeDasharray="5 3" />
        <path d={`M${x(carryS)},2V${h - foot}`} stroke="var(--quiet)" strokeDasharray="2 3" />
        <path d={`M${d}`} fill="none" stroke="var(--chalk)" strokeWidth="2" strokeLinejoin="round" />
        <circle cx={x(last.s)} cy={y(last.c)} r="4.500" fill="var(--ember)" />
        <g className="narrow" fontSize="12.500" fill="var(--quiet)">
          <text x={Math.min(x(last.s), w - 40)} y={Math.max(11, y(last.c) - 8)} textAnchor="middle" fill="var(--ember)">
            {say("curve.stop")}
          </text>
          <text x={x(0) + 2} y={h - 4}>
            0 s
          </text>
          <text x={x(seconds)} y={h - 4} textAnchor="middle">
            {Math.round(seconds)} s
          </text>
          <text x={left + 4} y={y(lowC) - 3}>
            {print.temperature(lowC, units)}
          </text>
        </g>
      </svg>
    </figure>
  );
});
