import type { Plan } from "../api/client";
import { print, type System } from "./print";

/** What is taken of the stock, and between what it lies: a length; a ball is weighed. */
export function cutOf({ bar, ledger }: Pick<Plan, "bar" | "ledger">, form: string, units: System): string {
  const massG = ledger.find((l) => l.code === "ledger.start")?.massG;
  if (form !== "ball" || !massG) return print.reckoned(bar.cutLengthMm, bar.lowMm, bar.highMm, units);
  const grams = (mm: number) => print.mass(Math.round((massG * mm) / bar.cutLengthMm), units);
  return print.ranged(grams(bar.cutLengthMm), grams(bar.lowMm), grams(bar.highMm));
}
