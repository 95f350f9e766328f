import type { Step } from "../api/client";
import { say, told } from "../text/say";
import { print, type System } from "../units/print";

/** What a step is called; a break-down by what it comes to. */
export function operationName(op: Pick<Step, "kind" | "forging">, units: System): string {
  const f = op.forging;
  if (op.kind !== "breakDown" || !f?.preformThicknessMm) return told(`op.${op.kind}`);
  const thickness = print.length(f.preformThicknessMm, units);
  if (isSquare(f)) return say("op.breakDown.square", { thickness });
  return say("op.breakDown.flat", {
    width: print.length(f.preformWidthMm ?? 0, units).replace(/ (mm|in)$/, ""),
    thickness,
  });
}

const isSquare = (f: { preformWidthMm?: number; preformThicknessMm?: number }): boolean =>
  Math.abs((f.preformWidthMm ?? 0) - (f.preformThicknessMm ?? 0)) < 0.25;
