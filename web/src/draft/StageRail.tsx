import { memo } from "react";
import { useEntry, useSteelName, useUnits } from "../api/hooks";
import { useFinish } from "../stages/finish/useFinish";
import { about } from "../stages/finish/words";
import { useAdvice } from "../stages/harden/useAdvice";
import { count, say } from "../text/say";
import { cutOf } from "../units/cut";
import { print } from "../units/print";
import { useDraftState } from "./context";

export const stages = ["blade", "stock", "cut", "heats", "anvil", "cycles", "harden", "finish", "log"] as const;

/** The stages in working order; each shows its state in one figure. */
export const StageRail = memo(function StageRail({
  stage,
  onOpen,
}: {
  stage: string;
  onOpen: (stage: string) => void;
}) {
  const { plan, doc, piece } = useDraftState();
  const at = useEntry(piece.id)?.progress;
  const advice = useAdvice().data;
  const finish = useFinish().data;
  const units = useUnits();
  const steelName = useSteelName();
  const figure: Record<string, string> = {
    blade: print.length(doc.request.design.lengthMm, units),
    stock: steelName(doc.request.bit ? doc.request.steelId : plan.steel.id),
    cut: cutOf(plan, doc.request.bar.form, units),
    heats: count("heats", plan.totals.heats),
    anvil: !at ? "–" : at.phase === "finished" ? say("stage.done") : `${at.trips} / ${at.heats}`,
    cycles: plan.totals.cycles ? count("cycles", plan.totals.cycles) : "–",
    harden: advice?.temper.hrc ? `${advice.temper.hrc.toFixed(0)} HRC` : "–",
    finish: at?.completed ? say("stage.done") : finish ? about(finish.account.min) : "–",
    log: at ? count("heats", at.trips) : "–",
  };
  return (
    <nav
      aria-label={say("stage.name")}
      className="no-print grid grid-cols-3 border-b sm:grid-cols-9 lg:grid-cols-3 border-line"
    >
      {stages.map((name) => (
        <button
          key={name}
          type="button"
          aria-current={name === stage ? "step" : undefined}
          data-stage={name}
          onClick={() => onOpen(name)}
          className={`min-h-[46px] border-b-2 px-0.5 py-1 text-center ${name === stage ? "border-act" : "border-transparent text-quiet hover:text-chalk"}`}
        >
          <span className="narrow block text-lg leading-tight">{say(`stage.${name}`)}</span>
          <span
            className={`narrow block text-balance text-[14px] leading-tight ${name === stage ? "text-act" : ""}`}
            data-figure={name}
          >
            {figure[name]}
          </span>
        </button>
      ))}
    </nav>
  );
});
