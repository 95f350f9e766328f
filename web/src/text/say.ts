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

const heatScale = [480, 550, 650, 730, 790, 850, 920, 980, 1050, 1120, 1180, 1250, 1300];

/** The colour of steel at this temperature in dim light. */
export function heatColour(c: number): string {
  const best = heatScale.reduce((a, b) => (Math.abs(b - c) < Math.abs(a - c) ? b : a));
  return told(`colour.${best}`);
}
