import { api, ask } from "../api/client";
import type { components } from "../api/schema";

export type Question = components["schemas"]["Question"];
export type Asked = components["schemas"]["Asked"];
type Answer = components["schemas"]["Answer"];
type Typed = components["schemas"]["AnswerTyped"];
export type Judgement = components["schemas"]["EyeOut"];
export type Frame = Asked["frames"][number];

const key = "coldember.eye";
/** As many as are kept of the answers of this browser. */
const most = 500;

/** The answers that this browser has of an eye; they are kept nowhere else. */
export function answers(): Answer[] {
  try {
    const v = JSON.parse(localStorage.getItem(key) ?? "[]") as unknown;
    return Array.isArray(v) ? (v as Answer[]) : [];
  } catch {
    return [];
  }
}

export const forget = (): void => localStorage.removeItem(key);

export const question = (q: Question): Promise<Asked> => ask(api.POST("/api/v1/practice/colours/ask", { body: q }));

/** Judges an answer, as it is typed, among those before it; only one that could be judged is kept. */
export async function judge(next: Typed): Promise<Judgement> {
  const before = answers().slice(1 - most);
  const j = await ask(api.POST("/api/v1/practice/colours/judge", { body: { answers: before, next } }));
  if (j.answer) localStorage.setItem(key, JSON.stringify([...before, j.answer]));
  return j;
}

export const known = (): Promise<Judgement> =>
  ask(api.POST("/api/v1/practice/colours/judge", { body: { answers: answers() } }));
