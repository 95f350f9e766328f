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

/** The one figure to reach, short: "12.2 mm". */
export function goalOf(s: Step, units: string): string {
  if (!s.goal) return "";
  return s.goal.measure === "thickness" || s.goal.measure === "edgeThickness"
    ? print.thickness(Math.round(s.goal.mm * 10) / 10, units)
    : print.length(s.goal.mm, units);
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
