import type { components } from "../api/schema";
import { told } from "../text/say";

export type Progress = components["schemas"]["Progress"];

/** What is looked for in the book: words in any order, and days as a date field has them. */
export interface Wanted {
  words: string;
  from: string;
  to: string;
}

/** Whether an entry of the book has all the words in its piece, steel, smith and faults, and lies within the days. */
export function found(p: Progress, steel: string, want: Wanted): boolean {
  const all = [p.name, steel, p.steelId, p.hand ?? "", ...p.faults.map((f) => told(`fault.${f}`))]
    .join(" ")
    .toLowerCase();
  if (
    !want.words
      .toLowerCase()
      .split(/\s+/)
      .every((w) => all.includes(w))
  )
    return false;
  const begin = p.startedMs ?? 0;
  const end = p.lastMs ?? begin;
  if (want.from && end < new Date(`${want.from}T00:00`).getTime()) return false;
  return !want.to || begin <= new Date(`${want.to}T23:59:59.999`).getTime();
}
