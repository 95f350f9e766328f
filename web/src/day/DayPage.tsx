import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, ask, Refused } from "../api/client";
import { usePieces, useUnits } from "../api/hooks";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { say, told } from "../text/say";
import { print } from "../units/print";
import { clockAt, moved } from "./order";

const rowPx = 34;
const namePx = 150;

/** The day of hardening and tempering: several pieces laid out so that ovens and hands do not collide. */
export function DayPage() {
  useTitle(say("day.title"));
  const units = useUnits();
  const pieces = usePieces();
  const [search, setSearch] = useSearchParams();
  // The address follows what is set here: two quick taps would both begin from the same address.
  const [asked, setAsked] = useState(() => read(search));
  const { chosen, ovens, begin } = asked;
  const set = (change: (was: Asked) => Partial<Asked>) => setAsked((was) => ({ ...was, ...change(was) }));
  useEffect(() => {
    const next = new URLSearchParams({ o: asked.ovens.join(","), b: asked.begin });
    for (const id of asked.chosen) next.append("p", id);
    if (next.toString() !== search.toString()) setSearch(next, { replace: true });
  }, [asked, search, setSearch]);
  const day = useQuery({
    queryKey: ["day", chosen, ovens],
    queryFn: () => ask(api.GET("/api/v1/day", { params: { query: { pieces: chosen, ovens } } })),
    enabled: chosen.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (pieces.isPending) return <Loading />;
  if (pieces.isError) return <Failed error={pieces.error} retry={() => void pieces.refetch()} />;
  const at = new Date();
  const [h = 8, m = 0] = begin.split(":").map(Number);
  at.setHours(h, m, 0, 0);
  const query = new URLSearchParams({ begin: at.toISOString() });
  for (const id of chosen) query.append("pieces", id);
  for (const n of ovens) query.append("ovens", String(n));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="day-page">
      <h1 className="mb-1 text-3xl">{say("day.title")}</h1>
      <p className="mb-4 max-w-3xl text-quiet">{say("day.about")}</p>
      <div className="grid gap-6 lg:grid-cols-[280px_minmax(0,1fr)]">
        <div className="grid content-start gap-4">
          <fieldset>
            <legend className="mb-1 text-lg">{say("day.pieces")}</legend>
            {pieces.data.map((p) => (
              <label key={p.id} className="flex min-h-11 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-5 accent-act"
                  data-day-piece={p.doc.name}
                  checked={chosen.includes(p.id)}
                  onChange={({ target: { checked } }) =>
                    set((was) => {
                      const others = was.chosen.filter((id) => id !== p.id);
                      return { chosen: checked ? [...others, p.id] : others };
                    })
                  }
                />
                {p.doc.name}
              </label>
            ))}
          </fieldset>
          <fieldset className="flex flex-wrap items-end gap-3">
            <legend className="mb-1 text-lg">{say("day.ovens")}</legend>
            {ovens.map((n, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: ovens are told apart by their place
              <label key={i}>
                <span className="mb-0.5 block text-sm text-quiet">{say("day.holds", { n: i + 1 })}</span>
                <input
                  type="number"
                  min={1}
                  max={100}
                  className="w-20 rounded border border-line bg-plate px-2 py-2"
                  value={n}
                  onChange={({ target: { value } }) =>
                    set((was) => ({
                      ovens: was.ovens.map((o, k) => (k === i ? Math.max(1, Math.min(100, Number(value) || 1)) : o)),
                    }))
                  }
                />
              </label>
            ))}
            <button
              type="button"
              className="press"
              onClick={() => set((was) => ({ ovens: [...was.ovens, 4] }))}
              disabled={ovens.length >= 6}
            >
              {say("day.moreOvens")}
            </button>
            {ovens.length > 1 && (
              <button type="button" className="press" onClick={() => set((was) => ({ ovens: was.ovens.slice(0, -1) }))}>
                {say("day.fewerOvens")}
              </button>
            )}
          </fieldset>
          <label>
            <span className="mb-0.5 block text-sm text-quiet">{say("day.begin")}</span>
            <input
              type="time"
              className="rounded border border-line bg-plate px-2 py-2"
              value={begin}
              onChange={({ target: { value } }) => value && set(() => ({ begin: value }))}
            />
          </label>
        </div>
        <div className="min-w-0">
          {chosen.length === 0 && <p className="text-quiet">{say("day.none")}</p>}
          {day.error && (
            <p role="alert" className="text-ember">
              {day.error instanceof Refused
                ? (day.error.problem.fields?.[0]?.message ?? day.error.problem.detail)
                : say("ui.offline")}
            </p>
          )}
          {day.data && chosen.length > 0 && (
            <>
              {day.data.without.length > 0 && (
                <p className="mb-2 text-quiet">{say("day.without", { names: day.data.without.join(", ") })}</p>
              )}
              <Drawn
                day={day.data}
                at={at}
                units={units}
                onMove={(id, by) => set((was) => ({ chosen: moved(was.chosen, id, by) }))}
              />
              <a className="press mt-3 inline-flex" href={`/api/v1/day.ics?${query}`} download data-testid="day-ics">
                {say("timer.calendar")}
              </a>
            </>
          )}
          <p className="mt-3 text-sm text-quiet">
            {say("caution.quench")} {say("caution.brittle")}
          </p>
        </div>
      </div>
    </div>
  );
}

type Asked = { chosen: string[]; ovens: number[]; begin: string };

const read = (search: URLSearchParams): Asked => ({
  chosen: search.getAll("p"),
  ovens: (search.get("o") ?? "4")
    .split(",")
    .map(Number)
    .filter((n) => Number.isInteger(n) && n > 0),
  begin: search.get("b") ?? "08:00",
});

type Laid = Awaited<ReturnType<typeof laid>>;
const laid = () => ask(api.GET("/api/v1/day", { params: { query: {} } }));

/** A row a piece, time from left to right: in hand, in the oven at its setting, cooling. */
function Drawn({
  day,
  at,
  units,
  onMove,
}: {
  day: Laid;
  at: Date;
  units: string;
  onMove: (id: string, by: number) => void;
}) {
  const end = Math.max(60, ...day.placed.map((p) => p.toMin));
  const hours = Array.from({ length: Math.ceil(end / 60) + 1 }, (_, i) => i);
  const width = 760;
  const x = (min: number) => namePx + (min / (hours.length * 60)) * (width - namePx);
  const task = (job: string, id: string) => day.jobs.find((j) => j.id === job)?.tasks.find((t) => t.id === id);
  return (
    <div className="overflow-x-auto">
      <svg
        viewBox={`0 0 ${width} ${day.jobs.length * rowPx + 26}`}
        className="w-full min-w-[620px]"
        role="img"
        aria-label={say("day.drawn")}
      >
        {hours.map((h) => (
          <g key={h}>
            <path d={`M${x(h * 60)},18V${day.jobs.length * rowPx + 22}`} stroke="var(--line)" />
            {(hours.length < 14 || h % 2 === 0) && (
              <text x={x(h * 60)} y="13" textAnchor="middle" fontSize="13" className="narrow" fill="var(--quiet)">
                {clockAt(at, h * 60)}
              </text>
            )}
          </g>
        ))}
        {day.jobs.map((j, row) => (
          <text key={j.id} x="0" y={22 + row * rowPx + 20} fontSize="15" className="narrow" fill="var(--chalk)">
            {j.name.length > 22 ? `${j.name.slice(0, 21)}…` : j.name}
          </text>
        ))}
        {day.placed.map((p) => {
          const row = day.jobs.findIndex((j) => j.id === p.job);
          const t = task(p.job, p.task);
          const wide = Math.max(2, x(p.toMin) - x(p.fromMin));
          const oven = p.oven >= 0;
          return (
            <g key={p.job + p.task} data-placed={p.task} data-oven={p.oven}>
              <rect
                x={x(p.fromMin)}
                y={22 + row * rowPx + (t?.what === "cool" ? 12 : 4)}
                width={wide}
                height={t?.what === "cool" ? 10 : rowPx - 8}
                rx="2"
                fill={oven ? "var(--zone-blade)" : t?.what === "cool" ? "var(--line)" : "var(--ember)"}
                fillOpacity={oven ? 0.75 : 0.9}
              />
              {oven && wide > 60 && (
                <text
                  x={x(p.fromMin) + wide / 2}
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
              onClick={() => onMove(j.id, -1)}
            >
              <ArrowUp size={16} aria-hidden />
            </button>
            <button
              type="button"
              className="press press-plain min-h-11 !px-2"
              aria-label={say("day.later", { name: j.name })}
              disabled={i + 1 === day.jobs.length}
              onClick={() => onMove(j.id, 1)}
            >
              <ArrowDown size={16} aria-hidden />
            </button>
            <Link to={`/pieces/${j.id}/harden`} className="narrow w-44 text-lg hover:text-act">
              {j.name}
            </Link>
            <span className="text-quiet">
              {day.placed
                .filter((p) => p.job === j.id)
                .sort((a, b) => a.fromMin - b.fromMin)
                .filter((p) => task(j.id, p.task)?.what !== "cool")
                .map(
                  (p) =>
                    `${clockAt(at, p.fromMin)} ${told(p.oven >= 0 ? "day.inOven" : "day.quench", { n: p.oven + 1 })}`,
                )
                .join(" · ")}
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
}
