import { useEffect, useRef, useState } from "react";
import { useUnits } from "../api/hooks";
import { count, figures, say, told } from "../text/say";
import { cutOf } from "../units/cut";
import { useDraftState } from "./context";

/** Changes that come faster than this are told of once, ms. */
const settleMs = 700;

/** Tells those who listen rather than look what came of a change: the bar, the heats, and what will not do. */
export function Told() {
  const { plan, doc } = useDraftState();
  const units = useUnits();
  const stops = plan.warnings.filter((w) => w.severity === "stop").map((w) => told(w.code, figures(w.figures, units)));
  const now = [
    say("told.bar", { length: cutOf(plan, doc.request.bar.form, units) }),
    count("heats", plan.totals.heats),
    ...stops,
  ].join(". ");
  const first = useRef(now);
  const [words, setWords] = useState("");
  useEffect(() => {
    if (now === first.current && words === "") return; // nothing has changed yet
    const soon = setTimeout(() => setWords(now), settleMs);
    return () => clearTimeout(soon);
  }, [now, words]);
  return (
    <p aria-live="polite" className="sr-only" data-testid="told">
      {words}
    </p>
  );
}
