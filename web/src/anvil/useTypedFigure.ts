import { useCallback, useRef } from "react";
import { useUnits } from "../api/hooks";
import { say } from "../text/say";
import { decimalText, typedMm } from "../units/print";
import type { Step, Wrong } from "./core";
import type { Link } from "./link";
import { wrongWords } from "./words";

/** A caliper that types does so in one go: what comes slower is a hand, ms. */
const quickMs = 400;

/**
 * A caliper that types its digits like a keyboard, and Enter after them: the figure goes straight to the station that
 * waits. Answers whether a key was one of its.
 */
export function useTypedFigure(
  link: Link,
  step: Step | undefined,
  /** Why a figure was not taken; no words where it was. */
  onWrong: (figure: string, why: string) => void,
): (key: string) => boolean {
  const units = useUnits();
  const typed = useRef({ text: "", at: 0 });
  return useCallback(
    (key) => {
      const now = performance.now();
      const t = typed.current;
      if (t.text && now - t.at > quickMs) t.text = "";
      if (/^[0-9.,]$/.test(key)) {
        typed.current = { text: t.text + key, at: now };
        return true;
      }
      if (key !== "Enter" || t.text.length < 2) return false;
      const figure = t.text;
      typed.current = { text: "", at: 0 };
      const phase = link.get().shown.view.phase;
      const of = phase === "out" ? step : link.session.course.steps[link.get().shown.view.step - 1];
      const goal = of?.goal;
      const why = (w: Wrong[]) => w.map((x) => wrongWords(x, units)).join(" ");
      if (!goal) {
        onWrong(figure, say("reading.noneWanted"));
        return true;
      }
      const r = link.reading(goal.measure, decimalText(figure), typedMm(goal.atMm), units);
      const wrong = [...r.problems];
      if (r.reading && wrong.length === 0)
        wrong.push(...link.tell({ kind: "reading", reading: r.reading, step: of.id }));
      onWrong(figure, why(wrong));
      return true;
    },
    [link, step, units, onWrong],
  );
}
