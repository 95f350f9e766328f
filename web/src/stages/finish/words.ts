import type { components } from "../../api/schema";
import { figures, say, told, word } from "../../text/say";
import { localNumber, print } from "../../units/print";
import type { FinishStep } from "./useFinish";

/** A step of finishing in its sentences. */
export function stepWords(s: FinishStep, units: string): string {
  const fill = figures(s.figures, units);
  for (const [name, code] of Object.entries(s.words ?? {})) fill[name] = word(code, units);
  return s.codes.map((c) => told(c, fill)).join(" ");
}

/** About how long: minutes, or hours where they are many. */
export function about(min: number): string {
  if (min < 90) return `${Math.max(1, Math.round(min))} min`;
  return localNumber(`${(min / 60).toFixed(1)} h`);
}

/** The step of 0.1 mm that a thickness to be ground off falls in; −1 where steel is missing. */
export const bandOf = (mm: number): number => (mm < -0.02 ? -1 : Math.max(0, Math.floor(mm * 10 + 1e-3)));

/** What a finished knife came to: "weight 142 g, file at the edge skates: hard". */
export function finalWords(f: components["schemas"]["FireFinal"] | undefined, units: string): string {
  if (!f) return "";
  const rows: [string, string | undefined][] = [
    [say("final.massG"), f.massG ? print.mass(f.massG, units) : undefined],
    [say("final.balanceMm"), f.balanceMm ? print.length(f.balanceMm, units) : undefined],
    [say("final.warpMm"), f.warpMm ? print.thickness(f.warpMm, units) : undefined],
    [say("final.behindMm"), f.behindMm ? print.thickness(f.behindMm, units) : undefined],
    [say("final.file"), f.file && told(`file.${f.file}`)],
    [say("final.cuts"), f.cuts && told(`outcome.${f.cuts}`)],
    [say("final.flexes"), f.flexes && told(`outcome.${f.flexes}`)],
    [say("final.workMin"), f.workMin ? String(f.workMin) : undefined],
    ...(["grind", "sand", "fit"] as const).map((pace): [string, string | undefined] => {
      const min = (f.took ?? []).filter((t) => t.pace === pace).reduce((a, t) => a + t.min, 0);
      return [told(`took.${pace}`), min > 0 ? about(min) : undefined];
    }),
  ];
  return rows
    .filter(([, v]) => v)
    .map(([n, v]) => `${n} ${v}`)
    .join(", ");
}
