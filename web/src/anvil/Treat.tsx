import { useUnits } from "../api/hooks";
import { treatName, treatWords } from "../stages/harden/steps";
import { say, told } from "../text/say";
import { print } from "../units/print";
import type { Course, Shown } from "./core";

const huge = "narrow text-[clamp(64px,24vmin,270px)] leading-[0.85]";
const large = "narrow text-[clamp(26px,8vmin,88px)] leading-none";
const small = "text-[clamp(16px,3.2vmin,34px)] leading-snug";

/** A step of hardening or tempering, to be read from three metres: what is left of it, what is done, its dangers. */
export function Treat({ course, shown }: { course: Course; shown: Shown }) {
  const units = useUnits();
  const v = shown.view;
  const step = course.treatment?.[v.treat ?? 0];
  if (!step) return null;
  const counts = (step.countS ?? 0) > 0;
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_auto] items-start gap-x-[4vmin] max-sm:grid-cols-1">
      <div className="min-w-0">
        <p className={large} data-testid="treat-step">
          {treatName(step.id)}
        </p>
        {treatWords(step, units).map((line) => (
          <p key={line} className={`${small} mt-[1.2vmin] max-w-[46ch]`}>
            {line}
          </p>
        ))}
      </div>
      <div className="text-right max-sm:mt-2 max-sm:text-left">
        {counts ? (
          <Left leftS={v.treatLeftS ?? 0} last={v.last ?? false} />
        ) : (
          <p className={`${small} text-[#9ba39f]`} data-testid="treat-since">
            {say("anvil.sinceThen", { time: print.duration(v.treatS ?? 0) })}
          </p>
        )}
        {step.alsoS ? (
          <p className={`${small} text-[#9ba39f]`}>
            {say("anvil.spineToo", { time: print.duration(Math.max(0, step.alsoS - (v.treatS ?? 0))) })}
          </p>
        ) : null}
      </div>
      {step.cautions?.length ? (
        <p className={`${small} col-span-full mt-[1.5vmin] border-l-4 border-[#f0714d] pl-3`}>
          {step.cautions.map((c) => told(c)).join(" ")}
        </p>
      ) : null}
    </div>
  );
}

/** Seconds while they are few, then minutes, then hours and minutes. */
function Left({ leftS, last }: { leftS: number; last: boolean }) {
  const over = leftS <= 0;
  const s = Math.ceil(leftS);
  const [figure, unit] =
    s < 120
      ? [String(s), say("anvil.secondsLeft")]
      : s < 7200
        ? [String(Math.ceil(s / 60)), say("anvil.minutesLeft")]
        : [`${Math.floor(s / 3600)}:${String(Math.floor((s % 3600) / 60)).padStart(2, "0")}`, say("anvil.hoursLeft")];
  return (
    <>
      <p className={`${huge} ${over || last ? "text-[#f0714d]" : ""}`} data-testid="treat-left">
        {over ? "0" : figure}
      </p>
      <p className={`${small} text-[#9ba39f]`}>{over ? say("anvil.timeUp") : unit}</p>
    </>
  );
}
