import { useQuery } from "@tanstack/react-query";
import { ArrowLeft, Plus } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, ask, Refused, readPhoto } from "../api/client";
import { useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { figures, say, told } from "../text/say";
import { print } from "../units/print";
import { Inside } from "./Inside";
import { Overlay } from "./Overlay";

type Remains = components["schemas"]["Remains"];
type MeasureAt = components["schemas"]["MeasureAt"];
type Row = { at: string; height: string; thickness: string };

/** How a place is short: in both sizes, or in the one that shows. */
function shortOf(worst: { thickMm: number; highMm: number }) {
  if (worst.highMm < 0.05) return "replan.tooThin";
  return worst.thickMm < 0.05 ? "replan.tooLow" : "replan.short";
}

/** The piece of a session as it is measured, and what it can still become. */
export function ReplanPage() {
  useTitle(say("replan.title"));
  const { id } = useParams();
  const moment = useQuery({
    queryKey: ["moment", id],
    queryFn: () => ask(api.GET("/api/v1/sessions/{id}/moment", { params: { path: { id: id ?? "" } } })),
  });
  const session = useQuery({
    queryKey: ["session", id, "of"],
    queryFn: () => ask(api.GET("/api/v1/sessions/{id}", { params: { path: { id: id ?? "" } } })),
  });
  if (moment.isPending || session.isPending) return <Loading />;
  if (moment.isError) return <Failed error={moment.error} retry={() => void moment.refetch()} />;
  if (session.isError) return <Failed error={session.error} retry={() => void session.refetch()} />;
  return <Form id={id ?? ""} moment={moment.data} pieceId={session.data.pieceId} name={session.data.name} />;
}

function Form({ id, moment, pieceId, name }: { id: string; moment: MeasureAt; pieceId: string; name: string }) {
  const units = useUnits();
  const go = useNavigate();
  const mm = (v: number) => print.edit("heightMm", v, units);
  const [rows, setRows] = useState<Row[]>(() =>
    moment.offered.map((o) => ({ at: mm(o.atMm), height: "", thickness: "" })),
  );
  const [length, setLength] = useState("");
  const [weight, setWeight] = useState("");
  const [result, setResult] = useState<Remains>();
  const [chosen, setChosen] = useState(0);
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const [busy, setBusy] = useState(false);
  const [photo, setPhoto] = useState<components["schemas"]["Silhouette"]>();
  const [lost, setLost] = useState<"point" | "tang">("point");
  const [goodTo, setGoodTo] = useState("");
  const body = (trust?: "calipers" | "weight") => ({ stations: rows, length, weight, units, trust, lost, goodTo });
  const [trusted, setTrusted] = useState<"calipers" | "weight">();
  const failed = (e: unknown) => {
    if (e instanceof Refused)
      setWrong({
        "": e.problem.detail,
        ...Object.fromEntries((e.problem.fields ?? []).map((f) => [f.field, f.message])),
      });
    else setWrong({ "": say("ui.offline") });
  };
  const send = async (trust?: "calipers" | "weight") => {
    setBusy(true);
    setWrong({});
    setTrusted(trust);
    try {
      setResult(await ask(api.POST("/api/v1/sessions/{id}/replan", { params: { path: { id } }, body: body(trust) })));
      setChosen(0);
    } catch (e) {
      setResult(undefined);
      failed(e);
    }
    setBusy(false);
  };
  const take = async (what: Remains["ways"][number]["what"], way?: string) => {
    setBusy(true);
    try {
      await ask(
        api.POST("/api/v1/sessions/{id}/replan/take", {
          params: { path: { id } },
          body: { measured: body(trusted), what, name: way },
        }),
      );
      void go(`/pieces/${pieceId}/anvil`);
    } catch (e) {
      failed(e);
      setBusy(false);
    }
  };
  const photograph = async (file: File) => {
    setBusy(true);
    setWrong({});
    try {
      const o = await readPhoto(file);
      setPhoto(o);
      const high = (at: number) => o.along.find((a) => a.seen && Math.abs(a.xMm - at) <= 0.75);
      setRows(
        rows.map((r, i) => {
          const place = moment.offered[i]?.atMm ?? Number(r.at);
          const a = high(place);
          return a ? { ...r, at: mm(place), height: mm(Math.round((a.bottomMm - a.topMm) * 10) / 10) } : r;
        }),
      );
      setLength(mm(Math.round(o.lengthMm)));
    } catch (e) {
      failed(e);
    }
    setBusy(false);
  };
  const put = (i: number, key: keyof Row, text: string) =>
    setRows(rows.map((r, k) => (k === i ? { ...r, [key]: text } : r)));
  const cell = (i: number, key: keyof Row, field: string, label: string, placeholder: string) => (
    <td className="p-1 align-top">
      <input
        className="pick w-full min-w-20"
        aria-label={`${label} ${i + 1}`}
        aria-invalid={wrong[`stations.${i}.${field}`] ? true : undefined}
        data-station={`${i}.${field}`}
        placeholder={placeholder}
        value={rows[i]?.[key] ?? ""}
        onChange={(e) => put(i, key, e.target.value)}
      />
      {wrong[`stations.${i}.${field}`] && (
        <p role="alert" className="text-sm text-ember">
          {wrong[`stations.${i}.${field}`]}
        </p>
      )}
    </td>
  );
  const way = result?.ways[chosen];
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="replan-page">
      <header className="mb-2 flex flex-wrap items-center gap-3">
        <Link to={`/pieces/${pieceId}/log`} className="press press-plain">
          <ArrowLeft size={18} aria-hidden /> {name}
        </Link>
        <h1 className="text-3xl">{say("replan.title")}</h1>
      </header>
      <p className="mb-4 max-w-3xl text-quiet">{say("replan.note")}</p>
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,420px)_minmax(0,1fr)]">
        <form
          className="grid content-start gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void send();
          }}
        >
          <table>
            <thead>
              <tr className="text-left text-sm text-quiet">
                <th scope="col">{say("replan.at")}</th>
                <th scope="col">{say("replan.height")}</th>
                <th scope="col">{say("replan.thickness")}</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((_, i) => {
                const o = moment.offered[i];
                return (
                  // biome-ignore lint/suspicious/noArrayIndexKey: places are named by their line
                  <tr key={i}>
                    {cell(i, "at", "atMm", say("replan.at"), "")}
                    {cell(i, "height", "heightMm", say("replan.height"), o ? mm(o.heightMm) : "")}
                    {cell(i, "thickness", "thicknessMm", say("replan.thickness"), o ? mm(o.thicknessMm) : "")}
                  </tr>
                );
              })}
            </tbody>
          </table>
          <button
            type="button"
            className="press justify-self-start"
            onClick={() => setRows([...rows, { at: "", height: "", thickness: "" }])}
          >
            <Plus size={16} aria-hidden /> {say("replan.add")}
          </button>
          <div className="grid grid-cols-2 gap-3">
            <label>
              <span className="mb-0.5 block text-sm text-quiet">{say("replan.length")}</span>
              <input
                className="pick w-full"
                data-testid="replan-length"
                placeholder={mm(Math.round(moment.longMm * 10) / 10)}
                value={length}
                onChange={(e) => setLength(e.target.value)}
              />
            </label>
            <label>
              <span className="mb-0.5 block text-sm text-quiet">{say("replan.weight")}</span>
              <input
                className="pick w-full"
                data-testid="replan-weight"
                placeholder={print.mass(moment.massG, units)}
                value={weight}
                onChange={(e) => setWeight(e.target.value)}
              />
            </label>
          </div>
          <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <legend className="sr-only">{say("replan.lost")}</legend>
            <span className="text-sm text-quiet" aria-hidden>
              {say("replan.lost")}
            </span>
            {(["point", "tang"] as const).map((e) => (
              <label key={e} className="flex items-center gap-2">
                <input type="radio" name="lost" data-lost={e} checked={lost === e} onChange={() => setLost(e)} />
                {told(`replan.lost.${e}`)}
              </label>
            ))}
          </fieldset>
          <label>
            <span className="mb-0.5 block text-sm text-quiet">{say("replan.goodTo")}</span>
            <input
              className="pick w-40"
              data-testid="replan-good"
              value={goodTo}
              aria-describedby="good-hint"
              onChange={(e) => setGoodTo(e.target.value)}
            />
            <span id="good-hint" className="mt-0.5 block text-sm text-quiet">
              {say("replan.goodTo.hint")}
            </span>
          </label>
          <label className="press inline-flex cursor-pointer justify-self-start focus-within:outline-2 focus-within:outline-act">
            {say("photo.take")}
            <input
              type="file"
              accept="image/png,image/jpeg"
              className="sr-only"
              data-testid="photo-file"
              onChange={(e) => {
                const f = e.target.files?.[0];
                if (f) void photograph(f);
                e.target.value = "";
              }}
            />
          </label>
          <p className="text-sm text-quiet" data-testid="photo-said">
            {photo
              ? say("photo.read", {
                  seen: Math.round(photo.seenShare * 100),
                  long: print.length(Math.round(photo.lengthMm), units),
                  bow: print.length(Math.round(photo.bowMm * 10) / 10, units),
                })
              : say("photo.hint")}
          </p>
          {["lengthMm", "weightG", "goodToMm", "lost", "stations", "file", ""].map(
            (k) =>
              wrong[k] && (
                <p key={k} role="alert" className="text-sm text-ember">
                  {wrong[k]}
                </p>
              ),
          )}
          <button type="submit" className="press press-act justify-self-start" disabled={busy} data-testid="replan-ask">
            {say("replan.ask")}
          </button>
        </form>
        <div className="grid content-start gap-4">
          <Overlay planned={moment.shape} is={result?.asIs} becomes={way?.forged} />
          {photo && <Inside id={id} silhouette={photo} design={way?.design} />}
          {result?.differ && (
            <p className="border-l-2 border-ember pl-3" data-testid="replan-differ">
              {say("replan.differ", { share: Math.round((result.weightShare ?? 1) * 100) })}{" "}
              {(["calipers", "weight"] as const).map((t) => (
                <button key={t} type="button" className="press mr-2" data-trust={t} onClick={() => void send(t)}>
                  {told(`replan.trust.${t}`)}
                </button>
              ))}
            </p>
          )}
          {result && !result.differ && (
            <>
              <p data-testid="replan-enough" data-enough={result.enough}>
                {say("replan.has", { has: print.mass(result.massG, units), need: print.mass(result.needG, units) })}{" "}
                {result.enough
                  ? say("replan.enough")
                  : say("replan.little", { stop: print.length(Math.round(result.stopMm), units) })}
              </p>
              {result.worst && (
                <p className="border-l-2 border-ember pl-3" data-testid="replan-worst">
                  {result.worst.bad
                    ? say("replan.runsOut", { at: print.length(Math.round(result.worst.atMm), units) })
                    : `${say(shortOf(result.worst), {
                        at: print.length(Math.round(result.worst.atMm), units),
                        thick: print.thickness(Math.round(result.worst.thickMm * 10) / 10, units),
                        high: print.thickness(Math.round(result.worst.highMm * 10) / 10, units),
                      })} ${result.heal ? told(result.heal.code, figures(result.heal.figures, units)) : ""}`}
                </p>
              )}
              <h2 className="text-2xl">{say("replan.ways")}</h2>
              {result.ways.length === 0 && <p>{say("replan.noWays")}</p>}
              <ul className="grid gap-2" data-testid="replan-ways">
                {result.ways.map((w, i) => (
                  <li
                    key={w.what + (w.name ?? "")}
                    data-way={w.what}
                    className={`flex flex-wrap items-center gap-x-4 gap-y-1 border-l-2 py-1 pl-3 ${i === chosen ? "border-act" : "border-line"}`}
                  >
                    <button type="button" className="min-w-64 flex-1 text-left" onClick={() => setChosen(i)}>
                      <span className="narrow block text-lg">
                        {told(`replan.way.${w.what}`, { ...figures(w.figures, units), name: w.name ?? "" })}
                      </span>
                      <span className="text-sm text-quiet">
                        {say("replan.togo", { heats: w.heats, blows: w.blows, time: print.duration(w.timeS) })}
                        {w.givenUpShare >= 0.005 &&
                          ` · ${say("replan.gives", { share: Math.round(w.givenUpShare * 100) })}`}
                        {w.spareG >= 0.5 && ` · ${say("replan.spare", { mass: print.mass(w.spareG, units) })}`}
                      </span>
                      {(w.misses ?? []).map((m) => (
                        <span key={m.zone} className="block text-sm text-ember" data-miss={m.zone}>
                          {told(`replan.miss.${m.why}`, {
                            zone: told(`zone.${m.zone}`),
                            at: print.length(Math.round(m.atMm), units),
                            high: print.thickness(Math.round(Math.abs(m.highMm) * 10) / 10, units),
                            thick: print.thickness(Math.round(Math.abs(m.thickMm) * 10) / 10, units),
                          })}
                        </span>
                      ))}
                    </button>
                    <button
                      type="button"
                      className="press"
                      disabled={busy}
                      data-take={w.what}
                      onClick={() => void take(w.what, w.name)}
                    >
                      {say("replan.take")}
                    </button>
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      </div>
    </div>
  );
}
