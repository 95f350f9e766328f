import { told } from "../text/say";
import { print } from "../units/print";
import type { Step, Wrong } from "./core";

/** What a step is, in words: the operation. */
export const workOf = (s: Step): string => told(`op.${s.kind}`);

/** What it is worked with, and on what. */
export function toolOf(s: Step): string {
  if (s.cycle) return "";
  const tool = s.machine ? told(`machine.${s.machine}`) : s.face ? told(`face.${s.face}`) : "";
  const under = s.support && s.support !== "face" ? told(`support.${s.support}`) : "";
  return [tool, under].filter(Boolean).join(", ");
}

/** A figure of a measure as it is told at the fire. */
const atFire = (measure: string, mm: number, units: string) =>
  measure === "thickness" || measure === "edgeThickness" ? print.fireThickness(mm, units) : print.fireLength(mm, units);

/** The one figure to reach, short and as it reads on the hot steel: "12.2 mm". */
export function goalOf(s: Step, units: string): string {
  return s.goal ? atFire(s.goal.measure, s.goal.hotMm || s.goal.mm, units) : "";
}

/** The same figure cold, where that is another by more than calipers have to be near. */
export function coldGoalOf(s: Step, units: string): string {
  const g = s.goal;
  return g?.hotMm && Math.abs(g.hotMm - g.mm) > g.withinMm ? atFire(g.measure, g.mm, units) : "";
}

/** A step in one spoken sentence. */
export function spoken(s: Step | undefined, units: string): string {
  if (!s) return "";
  return [workOf(s), toolOf(s), s.goal ? `${told(`measure.${s.goal.measure}`)} ${goalOf(s, units)}` : ""]
    .filter(Boolean)
    .join(", ");
}

/** What is wrong with a figure, in the smith's units. */
export function wrongWords(w: Wrong, units: string): string {
  const fill: Record<string, string> = { found: w.found ?? "", example: "24, 24.5 mm", units: "mm, cm, in" };
  for (const [k, v] of Object.entries(w.figures ?? {})) {
    fill[k] =
      w.field.endsWith("massG") && (k === "lowest" || k === "highest")
        ? print.mass(v, units)
        : w.field.endsWith("tempC")
          ? print.temperature(v, units)
          : /[mM]m$/.test(w.field)
            ? print.length(v, units)
            : String(v);
  }
  return told(w.code, fill);
}
