import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, ask, Refused } from "../../api/client";
import { useEntry, useShop, useUnits } from "../../api/hooks";
import { useDraft, useDraftState } from "../../draft/context";
import { count, locale, say, told } from "../../text/say";
import { print } from "../../units/print";
import { heatName } from "../heats/counted";

/** Before the fire: what the heats ask for, where the work stands, and the way to the anvil. */
export function AnvilPanel() {
  const { plan, piece, doc } = useDraftState();
  const draft = useDraft();
  const go = useNavigate();
  const units = useUnits();
  const shop = useShop();
  const entry = useEntry(piece.id);
  const [wrong, setWrong] = useState<string>();
  const stops = plan.warnings.filter((w) => w.severity === "stop");
  const p = entry?.progress;
  const begin = async (again: boolean) => {
    setWrong(undefined);
    try {
      await draft.flush(); // what is typed goes along
      await ask(api.POST("/api/v1/pieces/{id}/fire", { params: { path: { id: piece.id } }, body: { again } }));
      go(`/pieces/${piece.id}/fire`);
    } catch (e) {
      setWrong(e instanceof Refused ? e.problem.detail : say("ui.offline"));
    }
  };
  const running = p && p.phase !== "finished";
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4" data-testid="anvil-panel">
      <button
        type="button"
        className="press press-act min-h-14 justify-center text-xl"
        onClick={() => void begin(false)}
        disabled={!p && stops.length > 0}
        data-testid="to-the-fire"
      >
        {running && p.step > 0 ? say("anvil.goOn") : p ? say("anvil.openIt") : say("anvil.takeIt")}
      </button>
      {wrong && (
        <p role="alert" className="text-ember">
          {wrong}
        </p>
      )}
      <Link to={`/practice/piece/${piece.id}`} className="press justify-self-start" data-testid="to-practice">
        {say("practice.first")}
      </Link>
      {!p && <p className="text-quiet">{stops.length > 0 ? say("session.stopped") : say("anvil.freezes")}</p>}
      {p && (
        <p data-testid="anvil-where">
          {p.phase === "finished"
            ? say("anvil.wasFinished", { heats: p.trips })
            : say("anvil.whereHeats", { n: p.trips, of: p.heats })}
          {p.lastMs ? ` ${say("anvil.lastAt", { at: new Date(p.lastMs).toLocaleDateString(locale()) })}` : ""}
        </p>
      )}
      {entry?.changed && (
        <div className="border-l-2 border-act pl-3" data-testid="plan-changed">
          <p>{say("anvil.planChanged")}</p>
          <button type="button" className="press mt-2" onClick={() => void begin(true)} disabled={stops.length > 0}>
            {say("anvil.beginAgain")}
          </button>
        </div>
      )}
      <section>
        <h2 className="mb-1 text-lg">{say("anvil.lay")}</h2>
        <ul className="grid gap-1">
          <li>
            {doc.hand ?? ""} · {print.mass(doc.request.smith.hammerKg * 1000, units)} ·{" "}
            {print.mass(plan.totals.fuelG, units)} {told("anvil.fuelFor")}
          </li>
          {(doc.request.choices.holding === "tongs" || !shop.data) && (
            <li>{shop.data?.tongs.map((t) => t.name).join(", ")}</li>
          )}
          <li>
            <a
              className="text-act underline"
              href={`/api/v1/pieces/${piece.id}/gauges.pdf`}
              target="_blank"
              rel="noreferrer"
              data-testid="gauges"
            >
              {say("anvil.gauges")}
            </a>{" "}
            <span className="text-quiet">{say("anvil.gaugesNote")}</span>
          </li>
        </ul>
      </section>
      <section>
        <h2 className="mb-1 text-lg">{count("heats", plan.totals.heats)}</h2>
        <ol className="grid gap-0.5 text-[15px]">
          {plan.heats.map((h) => (
            <li
              key={h.number}
              className={`flex gap-2 ${p && h.number <= heatDone(p.step, plan) ? "text-quiet line-through" : ""}`}
            >
              <span className="narrow w-24 shrink-0 text-quiet">{heatName(plan, h.number)}</span>
              <span className="min-w-0 truncate">
                {h.parts.map((x) => told(`op.${plan.operations.find((o) => o.id === x.operation)?.kind}`)).join(", ")}
              </span>
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}

/** The last heat all of whose steps are done. */
function heatDone(step: number, plan: { heats: { number: number; parts: unknown[] }[] }): number {
  let n = 0;
  for (const h of plan.heats) {
    n += h.parts.length;
    if (n > step) return h.number - 1;
  }
  return plan.heats.length;
}
