import type { Station } from "../api/client";
import { glow } from "../bench/glow";
import { Joined } from "../bench/Joined";
import { extent, outline, twistPath } from "../bench/layout";
import { say } from "../text/say";
import type { Course, Heat, Step } from "./core";

/** The piece as it comes to a heat: as the heat before left it, or as the bar it begins with. */
function before(course: Course, heat: Heat): Station[] {
  const was = course.heats[heat.number - 2];
  if (was) return was.shape;
  if (course.before) return course.before.shape;
  const end = heat.shape.at(-1);
  const mid = end ? (end.s + end.e) / 2 : 0;
  const half = course.bar.widthMm / 2;
  const side = { s: mid + half, e: mid - half, t: course.bar.thicknessMm, z: end?.z ?? "tang" } as const;
  return [
    { x: 0, ...side },
    { x: course.bar.lengthMm, ...side },
  ];
}

/**
 * The piece as it lies, what it becomes in this heat dashed; where it is hot, where it is struck, and the place of
 * the figure to reach.
 */
export function Lying({
  course,
  heat,
  step,
  tempC,
  flip,
}: {
  course: Course;
  heat: Heat;
  step?: Step;
  tempC: number;
  flip: boolean;
}) {
  const st = before(course, heat);
  const becomes = heat.shape;
  const [a, b] = [extent(st), extent(becomes)];
  const e = {
    length: Math.max(a.length, b.length),
    top: Math.max(a.top, b.top),
    bottom: Math.min(a.bottom, b.bottom),
  };
  const wide = Math.max(e.length, 1);
  const high = Math.max(e.top - e.bottom, 1);
  const room = Math.max(high * 0.3, wide * 0.035);
  const x = (mm: number) => (flip ? wide - mm : mm);
  const at = (mm: number, y: number) => `${x(mm).toFixed(2)},${(e.top - y).toFixed(2)}`;
  const hot = [heat.hotFromMm, heat.hotToMm].map((v) => x(v)).sort((a, b) => a - b) as [number, number];
  const struck = step ? ([x(step.fromMm), x(step.toMm)].sort((a, b) => a - b) as [number, number]) : hot;
  const arrows = Math.max(1, Math.min(7, Math.round((struck[1] - struck[0]) / Math.max(8, wide / 18))));
  const goal = step?.goal && step.goal.measure !== "rise" ? x(step.goal.atMm) : undefined;
  const size = room * 0.5;
  return (
    <svg
      viewBox={`-2 ${-room - 1} ${wide + 4} ${high + room + 4}`}
      className="h-full w-full"
      role="img"
      aria-label={say("anvil.lying")}
    >
      <defs>
        <linearGradient id="anvil-glow" gradientUnits="userSpaceOnUse" x1="0" x2={wide} y1="0" y2="0">
          {[
            [0, 30],
            [(hot[0] - wide * 0.04) / wide, 400],
            [hot[0] / wide, tempC],
            [hot[1] / wide, tempC],
            [(hot[1] + wide * 0.04) / wide, 400],
            [1, 30],
          ].map(([o = 0, c = 20]) => {
            const inside = o >= hot[0] / wide && o <= hot[1] / wide;
            return (
              <stop
                key={`${o}`}
                offset={Math.min(1, Math.max(0, o))}
                stopColor={glow(inside ? tempC : Math.min(c, tempC))}
              />
            );
          })}
        </linearGradient>
      </defs>
      <path
        d={outline(st, at)}
        fill="url(#anvil-glow)"
        stroke="#ebe6da"
        strokeWidth={Math.max(0.35, wide / 420)}
        strokeLinejoin="round"
      />
      <path d={twistPath(st, at)} stroke="#ebe6da" strokeWidth={wide / 500} />
      <Joined
        joined={course.heats[heat.number - 2]?.joined}
        at={(mm, y) => [x(mm), e.top - y]}
        scale={1}
        stroke="#ebe6da"
        strokeWidth={wide / 500}
      />
      <path
        d={outline(becomes, at)}
        fill="none"
        stroke="#9ba39f"
        strokeWidth={Math.max(0.3, wide / 520)}
        strokeDasharray={`${wide / 110} ${wide / 160}`}
      />
      {!step?.cycle &&
        Array.from({ length: arrows }, (_, i) => {
          const p = struck[0] + ((i + 0.5) / arrows) * (struck[1] - struck[0]);
          const y = -size * 0.35;
          return (
            <path
              // biome-ignore lint/suspicious/noArrayIndexKey: places along the stretch
              key={i}
              d={`M${p},${y}l${-size * 0.42},${-size * 0.8}h${size * 0.84}z`}
              fill="#ebe6da"
            />
          );
        })}
      {goal !== undefined && (
        <path
          d={`M${goal},${-room * 0.1}V${high + 2}`}
          stroke="#46ab9c"
          strokeWidth={Math.max(0.6, wide / 220)}
          strokeDasharray={`${wide / 90} ${wide / 140}`}
        />
      )}
    </svg>
  );
}
