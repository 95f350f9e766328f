import type { components } from "../../api/schema";
import { figures, told, word } from "../../text/say";

export type TreatStep = components["schemas"]["HardenStep"];

/** A step of hardening and tempering in its sentences. */
export function treatWords(s: TreatStep, units: string): string[] {
  const fill = figures(s.figures, units);
  for (const [name, code] of Object.entries(s.words ?? {})) fill[name] = word(code, units);
  return s.codes.map((c) => told(c, fill));
}

/** What it is called: "Temper 2". */
export function treatName(id: string): string {
  const [kind = "", n = ""] = id.split("-");
  return told(`treat.step.${kind}`, { n });
}
