import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { toast } from "sonner";
import { api, ask, Refused } from "../api/client";
import { usePieces, useShop, useUnits } from "../api/hooks";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { count, say } from "../text/say";
import { DayDrawn } from "./DayDrawn";
import { moved } from "./order";

/** The day of hardening and tempering: several pieces laid out so that ovens and hands do not collide. */
export function DayPage() {
  useTitle(say("day.title"));
  const units = useUnits();
  const pieces = usePieces();
  const [search, setSearch] = useSearchParams();
  // The address follows what is set here: two quick taps would both begin from the same address.
  const [asked, setAsked] = useState(() => read(search));
  const { chosen, begin } = asked;
  const shop = useShop();
  // until they are set here they are the shop's
  const ovens = asked.ovens.length > 0 ? asked.ovens : (shop.data?.ovens ?? []).map((o) => o.holds);
  const set = (change: (was: Asked) => Partial<Asked>) => setAsked((was) => ({ ...was, ...change(was) }));
  // addresses that were set here and not yet seen: any other is a link to another day
  const own = useRef(new Set([search.toString()]));
  const setAddress = useRef(setSearch);
  setAddress.current = setSearch;
  useEffect(() => {
    if (!own.current.delete(search.toString())) setAsked(read(search));
  }, [search]);
  useEffect(() => {
    const next = address(asked);
    own.current.add(next.toString());
    setAddress.current(next, { replace: true });
  }, [asked]);
  const params = {
    pieces: chosen,
    ovens: asked.ovens,
    common: asked.common,
    cycles: asked.cycles,
    glueMin: asked.glue,
    moved: asked.moved,
  };
  const day = useQuery({
    queryKey: ["day", params],
    queryFn: () => ask(api.GET("/api/v1/day", { params: { query: params } })),
    enabled: chosen.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (pieces.isPending) return <Loading />;
  if (pieces.isError) return <Failed error={pieces.error} retry={() => void pieces.refetch()} />;
  const at = new Date();
  const [h = 8, m = 0] = begin.split(":").map(Number);
  at.setHours(h, m, 0, 0);
  const query = new URLSearchParams({
    begin: at.toISOString(),
    common: String(asked.common),
    cycles: String(asked.cycles),
    glueMin: String(asked.glue),
  });
  for (const id of chosen) query.append("pieces", id);
  for (const n of asked.ovens) query.append("ovens", String(n));
  for (const m of asked.moved) query.append("moved", m);
  const start = async () => {
    try {
      const t = await ask(
        api.POST("/api/v1/day/timers", { params: { query: { ...params, begin: at.toISOString() } } }),
      );
      toast(count("day.started", t.items.length));
    } catch (e) {
      toast(e instanceof Refused ? e.problem.detail : say("ui.offline"));
    }
  };
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
                    set(() => ({
                      ovens: ovens.map((o, k) => (k === i ? Math.max(1, Math.min(100, Number(value) || 1)) : o)),
                    }))
                  }
                />
              </label>
            ))}
            <button
              type="button"
              className="press"
              onClick={() => set(() => ({ ovens: [...ovens, 4] }))}
              disabled={ovens.length >= 6}
            >
              {say("day.moreOvens")}
            </button>
            {ovens.length > 1 && (
              <button type="button" className="press" onClick={() => set(() => ({ ovens: ovens.slice(0, -1) }))}>
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
          <div className="grid">
            <Check label={say("day.common")} on={asked.common} onSet={(common) => set(() => ({ common }))} />
            <Check label={say("day.cycles")} on={asked.cycles} onSet={(cycles) => set(() => ({ cycles }))} />
          </div>
          <label>
            <span className="mb-0.5 block text-sm text-quiet">{say("day.glue")}</span>
            <input
              type="number"
              min={0}
              max={2880}
              step={5}
              className="w-28 rounded border border-line bg-plate px-2 py-2"
              value={asked.glue}
              data-testid="day-glue"
              onChange={({ target: { value } }) =>
                set(() => ({ glue: Math.max(0, Math.min(2880, Number(value) || 0)) }))
              }
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
              <DayDrawn
                day={day.data}
                at={at}
                units={units}
                onOrder={(id, by) => set((was) => ({ chosen: moved(was.chosen, id, by) }))}
                onMove={(piece, task, min) =>
                  set((was) => ({
                    moved: [...was.moved.filter((m) => !m.startsWith(`${piece}:${task}:`)), `${piece}:${task}:${min}`],
                  }))
                }
              />
              <div className="mt-3 flex flex-wrap gap-2">
                <button type="button" className="press press-act" onClick={() => void start()} data-testid="day-start">
                  {say("day.start")}
                </button>
                {asked.moved.length > 0 && (
                  <button
                    type="button"
                    className="press"
                    onClick={() => set(() => ({ moved: [] }))}
                    data-testid="day-unmove"
                  >
                    {say("day.unmove")}
                  </button>
                )}
                <a className="press inline-flex" href={`/api/v1/day.ics?${query}`} download data-testid="day-ics">
                  {say("timer.calendar")}
                </a>
              </div>
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

function Check({ label, on, onSet }: { label: string; on: boolean; onSet: (on: boolean) => void }) {
  return (
    <label className="flex min-h-11 items-center gap-2">
      <input
        type="checkbox"
        className="size-5 accent-act"
        checked={on}
        onChange={({ target: { checked } }) => onSet(checked)}
      />
      {label}
    </label>
  );
}

type Asked = {
  chosen: string[];
  ovens: number[];
  begin: string;
  common: boolean;
  cycles: boolean;
  glue: number;
  moved: string[];
};

const read = (search: URLSearchParams): Asked => ({
  chosen: search.getAll("p"),
  ovens: (search.get("o") ?? "")
    .split(",")
    .map(Number)
    .filter((n) => Number.isInteger(n) && n > 0),
  begin: search.get("b") ?? "08:00",
  common: search.get("c") === "1",
  cycles: search.get("n") === "1",
  glue: Math.max(0, Math.min(2880, Number(search.get("g")) || 0)),
  moved: search.getAll("m"),
});

/** The address that says the same. */
function address(a: Asked): URLSearchParams {
  const out = new URLSearchParams({ b: a.begin });
  if (a.ovens.length > 0) out.set("o", a.ovens.join(","));
  if (a.common) out.set("c", "1");
  if (a.cycles) out.set("n", "1");
  if (a.glue > 0) out.set("g", String(a.glue));
  for (const id of a.chosen) out.append("p", id);
  for (const m of a.moved) out.append("m", m);
  return out;
}
