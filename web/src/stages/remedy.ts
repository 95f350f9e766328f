import type { Mended } from "../api/client";
import { has, say, told } from "../text/say";
import { print, type System } from "../units/print";

export type Remedy = Mended["remedy"];

/** What one press would set, in words: the sentence of each field that has one. */
export function remedyWords(remedy: Remedy, units: System): string {
  const of = (field: string) => [remedy, ...(remedy.and ?? [])].find((s) => s.field === field)?.mm;
  const [wide, thick] = [of("bar.widthMm"), of("bar.thicknessMm")];
  const bar =
    wide && thick ? say("remedy.bar", { wide: print.length(wide, units), thick: print.thickness(thick, units) }) : "";
  const rest = [remedy, ...(remedy.and ?? [])].filter((s) => !bar || !/^bar\.(width|thickness)Mm$/.test(s.field));
  const all = rest.map((s) => {
    const field = `remedy.${s.field.replace(/\.\d+\./, ".").replace(/^tool\..*/, "tool")}`;
    const own = has(`${field}.${s.text}`) ? `${field}.${s.text}` : field;
    return has(own) ? told(own, { value: figure(s, units) }) : say("warn.remedy");
  });
  return [...(bar ? [bar] : []), ...all]
    .map((words, i) => (i ? words.charAt(0).toLowerCase() + words.slice(1) : words))
    .join(", ");
}

/** Fields that are read by a rule, not by calipers. */
const long = /(width|length|height(AtShoulder)?|at)Mm$/;

/** A length, or a temperature sent in degrees Celsius, in the smith's units. */
function figure(s: { field: string; mm?: number; text?: string }, units: System): string {
  const c = /^(\d+) °C$/.exec(s.text ?? "");
  if (c) return print.temperature(Number(c[1]), units);
  const size = long.test(s.field) ? print.length : print.thickness;
  return s.mm ? size(s.mm, units) : (s.text ?? "");
}
