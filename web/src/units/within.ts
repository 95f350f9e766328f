import type { Plan, Within } from "../api/client";
import { print, type System } from "./print";

/** Half of a band in steps of so many of a unit, at least one. */
const half = (b: { low: number; high: number }, step: number) =>
  Math.max(1, Math.round((b.high - b.low) / 2 / step)) * step;

/** By how much a total may be off, in steps of so many of a unit; nothing until it is known. */
const off = (b: { low: number; high: number } | undefined, unit: number, step: number) =>
  b ? ` ± ${half({ low: b.low / unit, high: b.high / unit }, step)}` : "";

/** The totals of a plan as they are known, each with its ±. */
export function totals(p: Plan, w: Within | undefined, units: System) {
  const t = p.totals;
  return {
    heats: `${t.heats}${off(w?.heats, 1, 1)}`,
    blows: `${Math.round(t.blows / 5) * 5}${off(w?.blows, 1, 5)}`,
    minutes: `${Math.round(t.timeS / 60)}${off(w?.timeS, 60, 1)}`,
    fuel: `${print.mass(Math.round(t.fuelG / 10) * 10, units)}${w ? ` ± ${print.mass(half(w.fuelG, 10), units)}` : ""}`,
  };
}
