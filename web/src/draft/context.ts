import { createContext, useContext, useSyncExternalStore } from "react";
import type { Draft, DraftState } from "./draft";

const DraftContext = createContext<Draft | null>(null);
export const DraftProvider = DraftContext.Provider;

/** The piece being edited. */
export function useDraft(): Draft {
  const d = useContext(DraftContext);
  if (!d) throw new Error("no draft here");
  return d;
}

export function useDraftState(): DraftState {
  const d = useDraft();
  return useSyncExternalStore(d.subscribe, d.get);
}

/** One part of the draft; the component is drawn anew only when it changes. It must be a value or keep its identity. */
export function useDraftPart<T>(part: (s: DraftState) => T): T {
  const d = useDraft();
  return useSyncExternalStore(d.subscribe, () => part(d.get()));
}

/** A figure or choice of the document by its dotted name. */
export function valueAt(root: unknown, path: string): number | string | undefined {
  let v: unknown = root;
  for (const part of path.split(".")) v = v && typeof v === "object" ? (v as Record<string, unknown>)[part] : undefined;
  return typeof v === "number" || typeof v === "string" ? v : undefined;
}
