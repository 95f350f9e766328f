import { useEffect, useRef } from "react";
import type { Doc, Heat, Plan, State } from "../../api/client";
import { useStates, useUnits } from "../../api/hooks";
import { glow } from "../../bench/glow";
import { extent, outline, twistPath } from "../../bench/layout";
import { heatColour, say, told } from "../../text/say";
import { print } from "../../units/print";
import { heatName } from "./counted";
import { isTreatment } from "./machine";

interface Props {
  doc: Doc;
  plan: Plan;
  heat: number;
  onHeat: (n: number) => void;
  onClose: () => void;
}

/** One heat over the whole screen, at night, read from three metres: one key or one touch goes on. */
export function StepView({ doc, plan, heat, onHeat, onClose }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const step = plan.heats.find((h) => h.number === heat);
  const over = heat > plan.heats.length;
  const states = useStates(doc, plan, true);
  useEffect(() => {
    const from = document.activeElement as HTMLElement | null;
    box.current?.focus();
    return () => from?.focus();
  }, []);
  const back = () => onHeat(Math.max(1, heat - 1));
  const done = () => (over ? onClose() : onHeat(heat + 1));
  return (
    <div
      ref={box}
      role="dialog"
      aria-modal="true"
      aria-label={heatName(plan, heat)}
      data-theme="night"
      data-testid="step-view"
      tabIndex={-1}
      className="fixed inset-0 z-50 flex flex-col bg-[#15181a] p-[3vmin] text-[#ebe6da] outline-none"
      onKeyDown={(e) => {
        const go = { " ": done, Enter: done, Backspace: back, Escape: onClose }[e.key];
        if (!go) return;
        e.preventDefault();
        e.stopPropagation();
        go();
      }}
    >
      <div className="flex items-center gap-4">
        <span className="narrow text-[5vmin]" data-testid="step-count">
          {heatName(plan, heat)}
        </span>
        <span className="flex-1" />
        <button type="button" className="press press-plain min-h-11 text-lg" onClick={back} disabled={heat <= 1}>
          {say("step.back")}
        </button>
        <button type="button" className="press press-plain min-h-11 text-lg" onClick={onClose}>
          {say("step.close")}
        </button>
      </div>
      {over || !step ? (
        <p className="narrow m-auto max-w-[24ch] text-center text-[7vmin] leading-tight">{say("step.finished")}</p>
      ) : (
        <One plan={plan} step={step} state={states?.find((s) => s.number === heat)} />
      )}
      <button
        type="button"
        className="narrow min-h-[14vmin] w-full rounded border-2 border-[#46ab9c] text-[6vmin] text-[#46ab9c]"
        onClick={done}
        data-testid="step-done"
      >
        {say("step.done")}
      </button>
      <p className="pt-2 text-center text-sm text-[#9ba39f] max-sm:hidden">{say("step.keys")}</p>
    </div>
  );
}

function One({ plan, step, state }: { plan: Plan; step: Heat; state?: State }) {
  const units = useUnits();
  const ops = step.parts.map((p) => plan.operations.find((o) => o.id === p.operation)).filter((o) => !!o);
  const op = ops[0];
  const cycle = isTreatment(op?.kind);
  const soak = op?.targetC || plan.totals.soakC;
  const reading = step.readings.at(Math.floor(step.readings.length / 2));
  const cautions = [...new Set([...ops.flatMap((o) => o.cautionCodes), ...(step.rest ? ["heat.rest"] : [])])];
  return (
    <div className="flex min-h-0 flex-1 flex-col justify-evenly overflow-hidden">
      <p className="narrow text-[9vmin] leading-none" data-testid="step-work">
        {ops.map((o) => say(`op.${o.kind}`)).join(", ")}
      </p>
      {op?.forging?.face && (
        <p className="text-[4vmin] leading-tight text-[#9ba39f]">
          {told(op.forging.machine ? `machine.${op.forging.machine}` : `face.${op.forging.face}`)}
          {op.forging.support && op.forging.support !== "face" ? `, ${told(`support.${op.forging.support}`)}` : ""} ·{" "}
          {op.zones.map((z) => say(`zone.${z}`)).join(", ")}
        </p>
      )}
      <Piece step={step} shape={state?.shape ?? plan.drawing.forged} />
      <div className="narrow flex flex-wrap items-baseline gap-x-[5vmin] gap-y-1 text-[5.5vmin] leading-tight">
        <span>
          <span className="text-[#9ba39f]">{say("step.heatTo")} </span>
          <span style={{ color: glow(soak) }}>{heatColour(soak)}</span>
        </span>
        {op?.thermal?.soakS ? <span>{say("step.hold", { time: print.duration(op.thermal.soakS) })}</span> : null}
        {!cycle && (
          <span>
            <span className="text-[#9ba39f]">{say("step.stopAt")} </span>
            <span className="text-[#f0714d]">{heatColour(step.endC)}</span>
          </span>
        )}
        {reading && !cycle && (
          <span>
            {print.length(reading.heightMm, units)} × {print.thickness(reading.thicknessMm, units)}
            {reading.withinMm ? (
              <span className="text-[4vmin] text-[#9ba39f]">
                {" "}
                {say("step.within", { within: print.thickness(reading.withinMm, units) })}
              </span>
            ) : null}
          </span>
        )}
        {step.blows > 0 && (
          <span className="text-[#9ba39f]">
            {say(ops.every((o) => o.forging?.strokes) ? "step.strokes" : "step.blows", {
              blows: step.blows,
              seconds: Math.ceil(step.workS),
            })}
          </span>
        )}
      </div>
      {cautions.length > 0 && (
        <p className="border-l-4 border-[#f0714d] pl-3 text-[3vmin] leading-tight">
          {cautions.map((c) => told(c)).join(" ")}
        </p>
      )}
    </div>
  );
}

/** The piece as it is after this heat, glowing where it is hot. */
function Piece({ step, shape: st }: { step: Heat; shape: State["shape"] }) {
  const e = extent(st);
  const wide = Math.max(e.length, 1);
  const high = Math.max(e.top - e.bottom, 1);
  const at = (x: number, y: number) => `${x.toFixed(2)},${(e.top - y).toFixed(2)}`;
  return (
    <svg
      viewBox={`-1 -1 ${wide + 2} ${high + 2}`}
      className="max-h-[30vh] w-full"
      role="img"
      aria-label={say("bench.forged")}
    >
      <linearGradient id="step-glow" gradientUnits="userSpaceOnUse" x1="0" x2={wide} y1="0" y2="0">
        {st.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the same places after every heat
          <stop key={i} offset={s.x / wide} stopColor={glow(s.c ?? 20)} />
        ))}
      </linearGradient>
      <path
        d={outline(st, at)}
        fill="url(#step-glow)"
        stroke="#ebe6da"
        strokeWidth={wide / 400}
        strokeLinejoin="round"
      />
      <path d={twistPath(st, at)} stroke="#ebe6da" strokeWidth={wide / 500} />
      <path
        d={`M${step.hotFromMm},${high + 0.6}H${step.hotToMm}`}
        stroke="#f0714d"
        strokeWidth={Math.max(0.6, wide / 160)}
      />
    </svg>
  );
}
