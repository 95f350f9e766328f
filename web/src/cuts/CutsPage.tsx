import { useQueryClient } from "@tanstack/react-query";
import { Printer } from "lucide-react";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { api, ask, type CutPlan, Refused } from "../api/client";
import { usePieces, useSteelName, useUnits } from "../api/hooks";
import { barSize, isBar } from "../rack/forms";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { say } from "../text/say";
import { print } from "../units/print";

type Size = "kerf" | "stub" | "keep";
const usualMm = { kerf: 1.5, stub: 60, keep: 120 } as const;

/** Several pieces of work from several bars, with the least waste. */
export function CutsPage() {
  useTitle(say("cuts.title"));
  const steelName = useSteelName();
  const pieces = usePieces(false);
  const units = useUnits();
  const client = useQueryClient();
  const [search] = useSearchParams();
  const [wanted, setWanted] = useState<Record<string, number>>(() => {
    const asked = search.get("piece");
    return asked ? { [asked]: 1 } : {};
  });
  // what was typed, in the smith's units; until then the usual figures
  const [sizes, setSizes] = useState<Partial<Record<Size, string>>>({});
  const [plan, setPlan] = useState<CutPlan>();
  const [says, setSays] = useState("");
  const [wrong, setWrong] = useState("");
  const [bad, setBad] = useState<Record<string, boolean>>({});
  if (pieces.isPending) return <Loading />;
  if (pieces.isError) return <Failed error={pieces.error} retry={() => void pieces.refetch()} />;
  const list = pieces.data.filter((p) => isBar(p.doc.request.bar.form));
  const attempt = async <T,>(call: () => Promise<T>): Promise<T | undefined> => {
    setWrong("");
    setBad({});
    setSays("");
    try {
      return await call();
    } catch (e) {
      if (!(e instanceof Refused)) setWrong(say("ui.offline"));
      else if (e.problem.status === 409)
        setWrong(say("cuts.stale", { name: (e.problem.current as { name?: string })?.name ?? "" }));
      else {
        setBad(Object.fromEntries((e.problem.fields ?? []).map((f) => [f.field.replace(/Mm$/, ""), true])));
        setWrong(e.problem.fields?.map((f) => f.message).join(" ") || e.problem.detail);
      }
      return undefined;
    }
  };
  const lay = async () => {
    const order = {
      pieces: Object.entries(wanted)
        .filter(([, n]) => n > 0)
        .map(([pieceId, count]) => ({ pieceId, count })),
      kerfMm: usualMm.kerf,
      stubMm: usualMm.stub,
      keepMm: usualMm.keep,
      edits: Object.entries(sizes).map(([f, text]) => ({ field: `${f}Mm`, text, units })),
    };
    setPlan(await attempt(() => ask(api.POST("/api/v1/cutplan", { body: order }))));
  };
  const take = async () => {
    if (!plan) return;
    const done = await attempt(() => ask(api.POST("/api/v1/cutplan/take", { body: plan })));
    if (!done) return;
    setSays(say("cuts.taken", { n: done.count }));
    setPlan(undefined);
    await client.invalidateQueries({ queryKey: ["stock"] });
  };
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6">
      <header className="mb-4 flex flex-wrap items-end gap-2">
        <h1 className="mr-auto text-3xl">{say("cuts.title")}</h1>
        {plan && (
          <button type="button" className="press no-print" onClick={() => void printed(plan)}>
            <Printer size={18} aria-hidden /> {say("cuts.print")}
          </button>
        )}
      </header>
      <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[22rem_1fr]">
        <form
          className="no-print grid content-start gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void lay();
          }}
        >
          <h2 className="narrow border-b border-line text-lg">{say("cuts.which")}</h2>
          {list.length === 0 && <p className="text-quiet">{say("cuts.none")}</p>}
          <ul className="typed">
            {list.map((p) => (
              <li key={p.id} className="flex items-center gap-3 border-b border-line py-1">
                <span className="min-w-0 flex-1">
                  <span className="narrow block truncate text-[17px]">{p.doc.name}</span>
                  <span className="block text-sm text-quiet">
                    {steelName(p.summary.steelId)} {barSize(p.doc.request.bar, units)} ·{" "}
                    {print.reckoned(p.summary.cutLengthMm, p.summary.lowMm ?? 0, p.summary.highMm ?? 0, units)}
                  </span>
                </span>
                <span className="w-16">
                  <input
                    type="number"
                    min={0}
                    max={100}
                    value={wanted[p.id] ?? 0}
                    aria-label={say("cuts.howMany", { name: p.doc.name })}
                    onFocus={(e) => e.target.select()}
                    onChange={(e) =>
                      setWanted({ ...wanted, [p.id]: Math.max(0, Math.min(100, Number(e.target.value))) })
                    }
                    data-want={p.doc.name}
                  />
                </span>
              </li>
            ))}
          </ul>
          <div className="typed grid grid-cols-3 gap-2">
            {(["kerf", "stub", "keep"] as const).map((f) => (
              <label key={f} className="grid content-end gap-1">
                <span className="text-sm text-quiet">{say(`cuts.${f}`, { unit: print.unit(`${f}Mm`, units) })}</span>
                <input
                  value={sizes[f] ?? print.edit(`${f}Mm`, usualMm[f], units)}
                  inputMode="decimal"
                  aria-invalid={!!bad[f]}
                  onChange={(e) => setSizes({ ...sizes, [f]: e.target.value })}
                  data-field={`cuts.${f}`}
                />
              </label>
            ))}
          </div>
          <button type="submit" className="press press-act" disabled={!Object.values(wanted).some((n) => n > 0)}>
            {say("cuts.lay")}
          </button>
          {wrong && (
            <p role="alert" className="text-ember">
              {wrong}
            </p>
          )}
          {says && <p role="status">{says}</p>}
        </form>
        <div className="grid content-start gap-6">
          {!plan && !says && <p className="text-quiet">{say("cuts.help")}</p>}
          {plan?.groups.map((g) => (
            <Group key={`${g.steelId} ${barSize(g.piece, units)}`} group={g} />
          ))}
          {plan && (
            <button
              type="button"
              className="press press-act no-print justify-self-start"
              onClick={() => void take()}
              data-testid="take-cuts"
            >
              {say("cuts.take")}
            </button>
          )}
        </div>
      </div>
    </div>
  );
}

function Group({ group: g }: { group: CutPlan["groups"][number] }) {
  const steelName = useSteelName();
  const units = useUnits();
  const longest = Math.max(1, ...g.bars.map((b) => b.lengthMm));
  const gap = g.consumedMm - g.lowerBoundMm;
  return (
    <section data-testid="cut-group">
      <h2 className="narrow border-b border-line text-xl">
        {steelName(g.steelId)} {barSize(g.piece, units)}
      </h2>
      <p className="mb-2 text-quiet">
        {say("cuts.consumed", { length: print.length(g.consumedMm, units) })}{" "}
        {g.optimal ? say("cuts.optimal") : say("cuts.gap", { gap: print.length(gap, units) })}
      </p>
      {g.bars.map((b, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: equal bars are told apart by their place
        <figure key={`${b.stockId}-${n}`} className="mb-3">
          <figcaption className="text-sm text-quiet">
            {b.name} · {print.length(b.lengthMm, units)} ·{" "}
            {b.remnantMm > 0 ? say("cuts.left", { length: print.length(b.remnantMm, units) }) : say("cuts.usedUp")}
          </figcaption>
          <BarDrawn bar={b} longest={longest} />
        </figure>
      ))}
      {g.unplaced.length > 0 && (
        <p role="alert" className="text-ember" data-testid="unplaced">
          {say("cuts.unplaced", {
            parts: g.unplaced.map((p) => `${p.name} ${print.length(p.lengthMm, units)}`).join(", "),
          })}
        </p>
      )}
    </section>
  );
}

/** The same plan as a PDF, in a window of its own. */
async function printed(plan: CutPlan) {
  const r = await fetch("/api/v1/cutplan/pdf", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(plan),
  });
  if (r.ok) window.open(URL.createObjectURL(await r.blob()), "_blank");
}

const barPx = 780;
const barHigh = 44;

/** One bar with its parts, kerfs between them, and what is left. */
function BarDrawn({ bar, longest }: { bar: CutPlan["groups"][number]["bars"][number]; longest: number }) {
  const units = useUnits();
  const k = barPx / longest;
  return (
    <svg
      viewBox={`0 0 ${barPx + 2} ${barHigh + 20}`}
      className="w-full"
      style={{ maxWidth: barPx + 2 }}
      role="img"
      aria-label={bar.parts.map((p) => `${p.name} ${print.length(p.lengthMm, units)}`).join(", ")}
    >
      <rect
        x="1"
        y="1"
        width={bar.lengthMm * k}
        height={barHigh}
        fill="none"
        stroke="var(--quiet)"
        strokeDasharray="4 3"
      />
      {bar.parts.map((p) => (
        <g key={`${p.pieceId}-${p.copy}`}>
          <rect
            x={1 + p.fromMm * k}
            y="1"
            width={p.lengthMm * k}
            height={barHigh}
            fill="var(--zone-blade)"
            fillOpacity="var(--zone-fill)"
            stroke="var(--chalk)"
            strokeWidth="1.2"
          />
          {p.lengthMm * k > 46 && (
            <text
              x={1 + (p.fromMm + p.lengthMm / 2) * k}
              y={barHigh / 2 + 6}
              textAnchor="middle"
              fontSize="15"
              className="narrow"
              fill="var(--chalk)"
            >
              {p.lengthMm * k > 20 + p.name.length * 7
                ? p.name
                : `${p.name.slice(0, Math.floor((p.lengthMm * k) / 9))}…`}
            </text>
          )}
          <text
            x={1 + (p.fromMm + p.lengthMm) * k}
            y={barHigh + 16}
            textAnchor="end"
            fontSize="13"
            className="narrow"
            fill="var(--quiet)"
          >
            {print.length(p.fromMm + p.lengthMm, units)}
          </text>
        </g>
      ))}
    </svg>
  );
}
