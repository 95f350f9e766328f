import { useEffect, useState } from "react";
import { useKeys } from "../../shell/keys";
import { say } from "../../text/say";

/** Counts the window to straighten down from a key press: the thin edge is done long before the spine. */
export function WindowClock({ edgeS, spineS }: { edgeS: number; spineS: number }) {
  const [began, setBegan] = useState<number>();
  const [now, setNow] = useState(0);
  const start = () => {
    setBegan(Date.now());
    setNow(Date.now());
  };
  useKeys({ c: start });
  useEffect(() => {
    if (began === undefined) return;
    const t = setInterval(() => setNow(Date.now()), 100);
    return () => clearInterval(t);
  }, [began]);
  if (edgeS <= 0) return null;
  const left = (s: number) => Math.max(0, s - (began === undefined ? 0 : (now - began) / 1000));
  return (
    <div className="mt-1 flex flex-wrap items-center gap-3">
      <button type="button" className="press min-h-11" onClick={start} data-testid="window-start">
        {say(began === undefined ? "treat.count" : "treat.countAgain")} <kbd className="ml-1 text-sm text-quiet">C</kbd>
      </button>
      {began !== undefined && (
        <span className="narrow text-3xl" role="timer" data-testid="window-clock">
          <span className={left(edgeS) <= 3 ? "text-ember" : ""}>
            {say("treat.edgeLeft", { s: Math.ceil(left(edgeS)) })}
          </span>{" "}
          <span className="text-quiet">{say("treat.spineLeft", { s: Math.ceil(left(spineS)) })}</span>
        </span>
      )}
    </div>
  );
}
