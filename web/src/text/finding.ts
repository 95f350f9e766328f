import type { Warning } from "../api/client";
import type { System } from "../units/print";
import { figures, told } from "./say";

/** A finding in its sentence; the grades that stand in it by their names. */
export function findingWords(f: Warning, units: System, steelName: (id: string) => string): string {
  const fill = figures(f.figures, units);
  if (f.steels?.length) fill.steels = f.steels.map(steelName).join(", ");
  return told(f.code, fill);
}
