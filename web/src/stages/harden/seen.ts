import type { components } from "../../api/schema";
import { say, told } from "../../text/say";
import { print } from "../../units/print";

type Seen = components["schemas"]["FireSeen"];

/** What was seen of a step: "Bath 55 °C, how long 6 s". */
export function seenWords(s: Seen | undefined, units: string): string {
  if (!s) return "";
  const rows: [string, string | undefined][] = [
    [say("see.temp"), s.tempC && print.temperature(s.tempC, units)],
    [say("see.bath"), s.bathC && print.temperature(s.bathC, units)],
    [say("see.time"), s.timeS && print.duration(s.timeS)],
    [say("see.warp"), s.warpMm && print.thickness(s.warpMm, units)],
    [say("see.file"), s.file && told(`file.${s.file}`)],
    [say("see.grain"), s.grainNumber && String(s.grainNumber)],
    [say("see.hard"), s.hrc && String(s.hrc)],
  ].map(([name, value]) => [String(name), value ? String(value) : undefined]);
  return rows
    .filter(([, v]) => v)
    .map(([name, v]) => `${name} ${v}`)
    .join(", ");
}
