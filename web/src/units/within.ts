import type { Plan, Within } from "../api/client";
import { print, type System } from "./print";

/** Between what a total lies in four of five cases, in steps of so many of a unit; nothing until it is known. */
const fromTo = (b: { low: number; high: number } | undefined, unit: number, step: number) =>
  b ? ` (${Math.round(b.low / unit / step) * step}–${Math.round(b.high / unit / step) * step})` : "";

/** The totals of a plan as they are known, each with its range. */
export function totals(p: Plan, w: Within | undefined, units: System) {
  const t = p.totals;
  const fuel = (g: number) => print.mass(Math.round(g / 10) * 10, units);
  return {
    heats: `${t.heats}${fromTo(w?.heats, 1, 1)}`,
    blows: `${Math.round(t.blows / 5) * 5}${fromTo(w?.blows, 1, 5)}`,
    minutes: `${Math.round(t.timeS / 60)}${fromTo(w?.timeS, 60, 1)}`,
    fuel: w ? print.ranged(fuel(t.fuelG), fuel(w.fuelG.low), fuel(w.fuelG.high)) : fuel(t.fuelG),
  };
}
