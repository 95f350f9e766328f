import { useCallback, useRef } from "react";
import { useUnits } from "../api/hooks";
import type { Step } from "./core";
import type { Link } from "./link";

/** A caliper that types does so in one go: what comes slower is a hand, ms. */
const quickMs = 400;

/**
 * A caliper that types its digits like a keyboard, and Enter after them: the figure goes straight to the station that
 * waits. Answers whether a key was one of its.
 */
export function useTypedFigure(link: Link, step: Step | undefined): (key: string) => boolean {
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
      typed.current = { text: "", at: 0 };
      const phase = link.get().shown.view.phase;
      const of = phase === "out" ? step : link.session.course.steps[link.get().shown.view.step - 1];
      const goal = of?.goal;
      if (!goal) return true;
      const r = link.reading(
        goal.measure,
        t.text.replace(",", "."),
        String(goal.atMm),
        units.startsWith("in") ? "in" : "mm",
      );
      if (r.reading && r.problems.length === 0) {
        const at = { ...r.reading, atMm: goal.atMm };
        link.tell({ kind: "reading", reading: at, step: of.id });
      }
      return true;
    },
    [link, step, units],
  );
}
