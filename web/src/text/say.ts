import heatColours from "../../../core/steel/heatcolours.json";
import messages from "../../../internal/text/en.json";
import verbatim from "../../../internal/text/verbatim.json";
import type { System } from "../units/print";
import { localNumber, print } from "../units/print";

/** A code of the catalogue. What is built of unions is held to it by the compiler. */
export type Code = keyof typeof messages;

const catalogue: Record<string, string> = { ...messages };
let language = "en";

/** Adds words to those that are said, in a language. */
export function speak(lang: string, words: Record<string, string>): void {
  language = lang;
  Object.assign(catalogue, words);
}

/** The language that is spoken, for dates and the like. */
export const locale = (): string => language;

/** Words of a code with its {placeholders} filled. */
export const say = (code: Code, fill: Record<string, string | number> = {}): string => told(code, fill);

/** Words of a code that the server gave, or that is made of what it gave; one without words is shown as it is. */
export function told(code: string, fill: Record<string, string | number> = {}): string {
  const words = catalogue[code];
  if (words === undefined) return code;
  return words.replace(/\{(\w+)\}/g, (whole, name: string) => {
    if (!(name in fill)) return whole;
    const filling = String(fill[name]);
    return verbatim.includes(name) ? filling : localNumber(filling);
  });
}

/** Picks code.one or code.other by n. */
export function count(code: string, n: number, fill: Record<string, string | number> = {}): string {
  return told(n === 1 ? `${code}.one` : `${code}.other`, { n, ...fill });
}

/** The codes that begin so, of the words that are here. */
export const codes = (family: string): string[] => Object.keys(catalogue).filter((c) => c.startsWith(family));

export const has = (code: string): boolean => code in catalogue;

/** Figures in the smith's units, by the unit that each name carries. */
export function figures(f: Record<string, number> | undefined, units: System): Record<string, string> {
  const out: Record<string, string> = {};
  for (const [k, v] of Object.entries(f ?? {})) out[k] = print.figure(k, v, units);
  return out;
}

/** The word for the colour of steel at this temperature in dim light, in the school of the shop. */
export function heatColour(c: number, units: System): string {
  const at = units.split(",").includes("sooner") ? "soonerC" : "usualC";
  const best = heatColours.reduce((a, b) => (Math.abs(b[at] - c) < Math.abs(a[at] - c) ? b : a));
  return told(`colour.${best.name}`);
}

/** A word that stands in a sentence, by its code; of hot steel by its temperature. */
export function word(code: string, units: System): string {
  const hot = /^heatColour\.(\d+)$/.exec(code);
  return hot ? heatColour(Number(hot[1]), units) : told(code);
}
