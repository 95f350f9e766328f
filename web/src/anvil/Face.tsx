import type { ReactNode } from "react";
import { useUnits } from "../api/hooks";
import { glow } from "../bench/glow";
import { heatColour, say, told } from "../text/say";
import { print } from "../units/print";
import type { Course, Shown, Step } from "./core";
import { coldGoalOf, goalOf, toolOf, workOf } from "./words";

/** The three sizes of type: the number that matters, the step, everything else. */
const huge = "narrow text-[clamp(72px,27vmin,300px)] leading-[0.85]";
const large = "narrow text-[clamp(26px,8vmin,88px)] leading-none";
const small = "text-[clamp(16px,3.2vmin,34px)] leading-snug";

/** What is to be read from three metres: the number, the step, where, and its dangers. */
export function Face({ course, shown }: { course: Course; shown: Shown }) {
  const units = useUnits();
  const v = shown.view;
  const step = course.steps[v.step];
  if (v.phase === "finished" || !step)
    return (
      <Middle>
        <p className={large}>{say(v.treated ? "anvil.treated" : "anvil.finished")}</p>
        <p className={`${small} mt-4 text-[#9ba39f]`}>{say(v.treated ? "anvil.treatedNext" : "anvil.finishedNext")}</p>
      </Middle>
    );
  const heat = course.heats[step.heat - 1];
  const left = v.phase === "out" ? Math.max(0, Math.ceil(v.leftS - 1e-6)) : Math.max(0, Math.ceil(v.leftS));
  const treated = step.cycle ?? false;
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_auto] items-start gap-x-[4vmin] max-sm:grid-cols-1">
      <div className="min-w-0">
        <p className={large} data-testid="anvil-work">
          {v.phase === "fire" && <span className="text-[#9ba39f]">{say("anvil.then")} </span>}
          {workOf(step)}
        </p>
        <p className={`${small} mt-[1vmin] text-[#9ba39f]`}>
          {[toolOf(step), step.zones.map((z) => told(`zone.${z}`)).join(", ")].filter(Boolean).join(" · ")}
        </p>
        <Goal step={step} units={units} />
        <p className={`${small} mt-[1.2vmin] flex flex-wrap gap-x-[3vmin]`}>
          {v.phase === "out" && step.blows > 0 && (
            <span data-testid="anvil-blows">
              {say(step.strokes ? "anvil.strokesOf" : "anvil.blowsOf", { n: v.blows, of: step.blows })}
            </span>
          )}
          {v.phase !== "out" && step.blows > 0 && (
            <span>
              {say(step.strokes ? "anvil.strokes" : "anvil.blows", { n: step.blows, s: Math.ceil(step.workS) })}
            </span>
          )}
          {v.side && <span data-testid="anvil-side">{told(`anvil.side.${v.side}`)}</span>}
          {step.stopMm ? <span>{say("anvil.stop", { stop: print.fireThickness(step.stopMm, units) })}</span> : null}
          {step.holdS ? <span>{say("step.hold", { time: print.duration(step.holdS) })}</span> : null}
        </p>
      </div>
      <div className="text-right max-sm:mt-2 max-sm:flex max-sm:items-end max-sm:justify-between max-sm:text-left">
        {v.phase === "out" && (
          <>
            <p className={`${huge} ${v.last || v.cold ? "text-[#f0714d]" : ""}`} data-testid="anvil-left">
              {v.cold && !treated ? say("anvil.back") : left}
            </p>
            <p className={`${small} text-[#9ba39f]`}>
              {treated ? say("anvil.secondsToBlack") : say("anvil.secondsLeft")}
              <Colour c={v.nowC} />
            </p>
          </>
        )}
        {v.phase === "fire" && (
          <>
            <p className={huge} data-testid="anvil-left" style={v.hot ? { color: glow(v.soakC) } : undefined}>
              {v.hot ? say("anvil.hot") : left}
            </p>
            <p className={`${small} text-[#9ba39f]`}>
              {say("anvil.waitFor")}
              <Colour c={v.soakC} />
            </p>
            <p className={`${small} text-[#9ba39f]`} data-testid="anvil-since">
              {say("anvil.inFire", { s: Math.floor(v.sinceS) })}
              {v.assumed ? ` · ${say("anvil.assumed")}` : ""}
            </p>
          </>
        )}
        {(v.phase === "ready" || v.phase === "away") && (
          <>
            <p className={huge} data-testid="anvil-left">
              {step.heat}
            </p>
            <p className={`${small} text-[#9ba39f]`}>{say("anvil.heatNext", { of: course.heats.length })}</p>
            <p className={`${small} text-[#9ba39f]`}>
              {say("anvil.waitFor")}
              <Colour c={heat?.soakC ?? v.soakC} />
            </p>
          </>
        )}
      </div>
      {(step.cautions?.length || v.rest) && v.phase !== "out" ? (
        <p className={`${small} col-span-full mt-[1.5vmin] border-l-4 border-[#f0714d] pl-3`}>
          {[...(v.rest ? ["heat.rest"] : []), ...(step.cautions ?? [])].map((c) => told(c)).join(" ")}
        </p>
      ) : null}
    </div>
  );
}

/** The one figure that this step changes, at its place. */
function Goal({ step, units }: { step: Step; units: string }) {
  if (!step.goal) return null;
  const cold = coldGoalOf(step, units);
  return (
    <div className="mt-[1.5vmin]" data-testid="anvil-goal">
      <p className={`${large} text-[#6fd3c4]`}>{goalOf(step, units)}</p>
      {cold && <p className={small}>{say("anvil.cold", { mm: cold })}</p>}
      <p className={`${small} text-[#9ba39f]`}>
        {told(`measure.${step.goal.measure}`)}
        {step.goal.measure === "rise"
          ? ""
          : ` ${say("anvil.at", { at: print.fireLength(step.goal.atHotMm || step.goal.atMm, units) })} · ${say("anvil.from", { from: print.fireLength(step.goal.fromHotMm || step.goal.fromMm, units) })}`}
      </p>
    </div>
  );
}

function Colour({ c }: { c: number }) {
  const units = useUnits();
  return (
    <span className="whitespace-nowrap">
      {" "}
      <span
        className="mx-1 inline-block h-[0.8em] w-[1.6em] rounded-sm align-[-0.05em]"
        style={{ background: glow(c) }}
        aria-hidden
      />
      <span className="text-[#ebe6da]">{heatColour(c, units)}</span>
    </span>
  );
}

function Middle({ children }: { children: ReactNode }) {
  return <div className="m-auto max-w-[30ch] text-center">{children}</div>;
}
