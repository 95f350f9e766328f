import type { Warning } from "../api/client";
import { has, say, told } from "../text/say";
import { print, type System } from "../units/print";

type Remedy = NonNullable<Warning["remedy"]>;

/** What one press would set, in words: the sentence of each field that has one. */
export function remedyWords(remedy: Remedy, units: System): string {
  const all = [remedy, ...(remedy.and ?? [])].map((s) => {
    const own = `remedy.${s.field.replace(/\.\d+\./, ".").replace(/^tool\..*/, "tool")}`;
    return has(own) ? told(own, { value: figure(s, units) }) : say("warn.remedy");
  });
  return all.map((words, i) => (i ? words.charAt(0).toLowerCase() + words.slice(1) : words)).join(", ");
}

/** A length, or a temperature sent in degrees Celsius, in the smith's units. */
function figure(s: { mm?: number; text?: string }, units: System): string {
  const c = /^(\d+) °C$/.exec(s.text ?? "");
  if (c) return print.temperature(Number(c[1]), units);
  return s.mm ? print.thickness(s.mm, units) : (s.text ?? "");
}
