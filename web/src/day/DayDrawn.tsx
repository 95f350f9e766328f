import { ArrowDown, ArrowUp } from "lucide-react";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { Link } from "react-router";
import type { components } from "../api/schema";
import { say, told } from "../text/say";
import { print } from "../units/print";
import { clockAt } from "./order";

export type Laid = components["schemas"]["Day"];
type Placed = Laid["placed"][number];

const rowPx = 34;
const namePx = 150;
const width = 760;
/** Blocks are moved by so many minutes. */
const stepMin = 5;

const fills: Record<string, string> = {
  cool: "var(--line)",
  set: "var(--line)",
  temper: "var(--zone-blade)",
  glue: "var(--zone-tang)",
};

/** A row a piece, time from left to right: in hand, in the oven at its setting, cooling. Blocks can be had later. */
export function DayDrawn({
  day,
  at,
  units,
  onOrder,
  onMove,
}: {
  day: Laid;
  at: Date;
  units: string;
  onOrder: (id: string, by: number) => void;
  onMove: (piece: string, task: string, min: number) => void;
}) {
  const drawn = useRef<SVGSVGElement>(null);
  const [pulled, setPulled] = useState<{ key: string; min: number; from: number }>();
  const end = Math.max(60, ...day.placed.map((p) => p.toMin));
  const hours = Math.ceil(end / 60) + 1;
  const every = hours < 14 ? 1 : hours < 30 ? 2 : 6;
  const x = (min: number) => namePx + (min / (hours * 60)) * (width - namePx);
  const task = (p: Placed) => day.jobs.find((j) => j.id === p.job)?.tasks.find((t) => t.id === p.task);
  const minutesAt = (e: PointerEvent) => {
    const box = drawn.current?.getBoundingClientRect();
    if (!box) return 0;
    return ((((e.clientX - box.left) / box.width) * width - namePx) / (width - namePx)) * hours * 60;
  };
  const set = (p: Placed, min: number) => onMove(p.job, p.task, Math.max(0, Math.round(min / stepMin) * stepMin));
  const keys = (p: Placed) => (e: KeyboardEvent) => {
    const by = { ArrowRight: stepMin, ArrowLeft: -stepMin }[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    set(p, p.fromMin + by);
  };
  return (
    <div className="overflow-x-auto">
      <svg
        ref={drawn}
        viewBox={`0 0 ${width} ${day.jobs.length * rowPx + 26}`}
        className="w-full min-w-[620px]"
        role="group"
        aria-label={say("day.drawn")}
      >
        {Array.from({ length: Math.ceil(hours / every) + 1 }, (_, i) => i * every)
          .filter((h) => h <= hours)
          .map((h) => (
            <g key={h}>
              <path d={`M${x(h * 60)},18V${day.jobs.length * rowPx + 22}`} stroke="var(--line)" />
              <text x={x(h * 60)} y="13" textAnchor="middle" fontSize="13" className="narrow" fill="var(--quiet)">
                {clockAt(at, h * 60)}
              </text>
            </g>
          ))}
        {day.jobs.map((j, row) => (
          <text key={j.id} x="0" y={22 + row * rowPx + 20} fontSize="15" className="narrow" fill="var(--chalk)">
            {j.name.length > 22 ? `${j.name.slice(0, 21)}…` : j.name}
          </text>
        ))}
        {day.placed.map((p) => {
          const key = p.job + p.task;
          const row = day.jobs.findIndex((j) => j.id === p.job);
          const t = task(p);
          const off = pulled?.key === key ? pulled.min - pulled.from : 0;
          const wide = Math.max(2, x(p.toMin) - x(p.fromMin));
          const left = x(p.fromMin + off);
          const oven = p.oven >= 0;
          const thin = t?.what === "cool" || t?.what === "set";
          const name = day.jobs[row]?.name ?? "";
          return (
            <g
              key={key}
              role="button"
              tabIndex={thin ? undefined : 0}
              aria-label={say("day.block", {
                name,
                what: told(thin ? "day.task.set" : `day.task.${t?.what}`, {
                  ovenC: print.temperature(t?.ovenC ?? 0, units),
                }),
                from: clockAt(at, p.fromMin),
                to: clockAt(at, p.toMin),
              })}
              aria-hidden={thin || undefined}
              data-placed={p.task}
              data-oven={p.oven}
              data-from={p.fromMin}
              className={thin ? "" : "cursor-ew-resize"}
              style={{ touchAction: "pan-y" }}
              onKeyDown={thin ? undefined : keys(p)}
              onPointerDown={(e) => {
                if (thin) return;
                e.currentTarget.setPointerCapture(e.pointerId);
                setPulled({ key, min: minutesAt(e), from: minutesAt(e) });
              }}
              onPointerMove={(e) => pulled?.key === key && setPulled({ ...pulled, min: minutesAt(e) })}
              onPointerUp={() => {
                if (pulled?.key === key && Math.abs(off) >= stepMin / 2) set(p, p.fromMin + off);
                setPulled(undefined);
              }}
              onPointerCancel={() => setPulled(undefined)}
            >
              <rect
                x={left}
                y={22 + row * rowPx + (thin ? 12 : 4)}
                width={wide}
                height={thin ? 10 : rowPx - 8}
                rx="2"
                fill={oven ? "var(--zone-blade)" : (fills[t?.what ?? ""] ?? "var(--ember)")}
                fillOpacity={off ? 0.5 : oven ? 0.75 : 0.9}
              />
              {oven && wide > 60 && (
                <text
                  x={left + wide / 2}
                  y={22 + row * rowPx + 21}
                  textAnchor="middle"
                  fontSize="13"
                  className="narrow"
                  fill="var(--chalk)"
                  stroke="var(--plate)"
                  strokeWidth="3"
                  paintOrder="stroke"
                >
                  {print.temperature(t?.ovenC ?? 0, units)} · {p.oven + 1}
                </text>
              )}
            </g>
          );
        })}
      </svg>
      <ol className="mt-2 grid gap-1">
        {day.jobs.map((j, i) => (
          <li key={j.id} className="flex flex-wrap items-center gap-2 border-t border-line py-1" data-day-job={j.name}>
            <button
              type="button"
              className="press press-plain min-h-11 !px-2"
              aria-label={say("day.earlier", { name: j.name })}
              disabled={i === 0}
              onClick={() => onOrder(j.id, -1)}
            >
              <ArrowUp size={16} aria-hidden />
            </button>
            <button
              type="button"
              className="press press-plain min-h-11 !px-2"
              aria-label={say("day.later", { name: j.name })}
              disabled={i + 1 === day.jobs.length}
              onClick={() => onOrder(j.id, 1)}
            >
              <ArrowDown size={16} aria-hidden />
            </button>
            <Link to={`/pieces/${j.id}/harden`} className="narrow w-44 text-lg hover:text-act">
              {j.name}
            </Link>
            <span className="text-quiet">
              {day.placed
                .filter((p) => p.job === j.id && !["cool", "set"].includes(task(p)?.what ?? ""))
                .sort((a, b) => a.fromMin - b.fromMin)
                .map(
                  (p) =>
                    `${clockAt(at, p.fromMin)} ${
                      p.oven >= 0
                        ? say("day.inOven", { n: p.oven + 1 })
                        : told(`day.task.${task(p)?.what}`, { ovenC: "" })
                    }`,
                )
                .join(" · ")}
            </span>
            <Told day={day} id={j.id} name={j.name} units={units} />
          </li>
        ))}
      </ol>
    </div>
  );
}

/** What a piece has to put up with for the sake of the others: a setting near its own, an oil that is too warm. */
function Told({ day, id, name, units }: { day: Laid; id: string; name: string; units: string }) {
  const s = day.settings[id];
  const oil = day.oil.find((o) => o.pieceId === id);
  const lines = [
    s && Math.abs(s.ovenC - s.ownC) > 0.5
      ? say("day.commonSet", {
          name,
          ovenC: print.temperature(s.ovenC, units),
          ownC: print.temperature(s.ownC, units),
          hrc: s.hrc?.toFixed(1) ?? "–",
        })
      : "",
    oil?.tooWarm ? say("day.oilWarm", { warmC: print.temperature(oil.warmC, units) }) : "",
  ].filter(Boolean);
  if (lines.length === 0) return null;
  return (
    <p className="w-full border-l-2 border-ember pl-2 text-[15px]" data-day-told={name}>
      {lines.join(" ")}
    </p>
  );
}
