import type { components } from "../../api/schema";
import { locale, told } from "../../text/say";
import { print } from "../../units/print";

export type Book = components["schemas"]["FireBook"];
export type Told = components["schemas"]["FireTold"];

export const dayAndTime = (ms: number): string =>
  new Date(ms).toLocaleString(locale(), { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

/** A stretch of time: "48 s", "12 min", "2 h 5 min". */
export function lasted(s: number): string {
  if (s < 5400) return print.duration(s);
  const min = Math.round(s / 60);
  return `${Math.floor(min / 60)} h ${min % 60} min`;
}

/** By how much more or less it was than planned: "+12 %". */
export const percent = (was: number, planned: number): string => {
  if (planned <= 0) return "";
  const off = Math.round((was / planned - 1) * 100);
  return off === 0 ? "0 %" : `${off < 0 ? "−" : "+"}${Math.abs(off)} %`;
};

export const signed = (mm: number, units: string): string =>
  `${mm < 0 ? "−" : "+"}${print.thickness(Math.abs(mm), units)}`;

/** "Height 24.2 mm, 60 mm from the point". */
export function readingWords(t: Told, units: string): string {
  const r = t.reading;
  if (!r) return "";
  const value =
    r.massG !== undefined
      ? print.mass(r.massG, units)
      : r.tempC !== undefined
        ? print.temperature(r.tempC, units)
        : print.thickness(r.mm ?? 0, units);
  const at = r.atMm !== undefined ? `, ${told("anvil.at", { at: print.length(r.atMm, units) })}` : "";
  return `${told(`measure.${r.quantity}`)} ${value}${at}`;
}
