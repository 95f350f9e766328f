import { told } from "../text/say";
import { drawings } from "./drawings";

/** A word of the trade as it is used here. */
export interface Word {
  id: string;
  name: string;
  says: string;
}

/** Every word, by its name. Asked for when it is shown: what says them comes at the same time as this file, or after it. */
export const words = (): Word[] =>
  Object.keys(drawings)
    .map((id) => ({ id, name: told(`term.${id}.name`), says: told(`term.${id}`) }))
    .sort((a, b) => a.name.localeCompare(b.name));

/** Words that have the letters in their name or in what is said of them; names come first. */
export function search(text: string): Word[] {
  const parts = text.toLowerCase().split(/\s+/).filter(Boolean);
  const has = (t: string) => parts.every((p) => t.toLowerCase().includes(p));
  const all = words();
  return [...all.filter((w) => has(w.name)), ...all.filter((w) => !has(w.name) && has(`${w.name} ${w.says}`))];
}
