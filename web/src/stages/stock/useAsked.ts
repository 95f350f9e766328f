import { useQuery } from "@tanstack/react-query";
import { api, ask, type Piece } from "../../api/client";
import { useDraftPart } from "../../draft/context";

/** What is asked of the piece as it is stored: asked anew when another state of it is saved. */
const useDoc = () => {
  const piece = useDraftPart((s) => s.piece);
  return { doc: piece.doc, key: [piece.id, piece.version] as const };
};

export function useSure(on = true) {
  const { doc, key } = useDoc();
  const sawn = doc.request.choices.start === "sheet"; // its length is the outline's
  return useQuery({
    queryKey: ["sure", ...key],
    queryFn: () => ask(api.POST("/api/v1/plan/sure", { body: { doc, seed: 1 } })),
    enabled: on && !sawn,
    placeholderData: (last) => (sawn ? undefined : last),
  });
}

/** Between what the totals lie, for the ± beside them. */
export function useWithin() {
  const { doc, key } = useDoc();
  return useQuery({
    queryKey: ["within", ...key],
    queryFn: () => ask(api.POST("/api/v1/plan/within", { body: doc })),
    placeholderData: (last) => last,
  });
}

/** The same of another document, once it is there. */
export function useWithinOf(key: readonly unknown[], doc: Piece["doc"] | undefined) {
  return useQuery({
    queryKey: ["within", ...key],
    queryFn: () => ask(api.POST("/api/v1/plan/within", { body: doc as Piece["doc"] })),
    enabled: !!doc,
  });
}

export function useHopes(on: boolean) {
  const { doc, key } = useDoc();
  return useQuery({
    queryKey: ["hopes", ...key],
    queryFn: () => ask(api.POST("/api/v1/plan/hopes", { body: doc })),
    enabled: on,
  });
}

export function useCosts(on: boolean) {
  const { doc, key } = useDoc();
  return useQuery({
    queryKey: ["costs", ...key],
    queryFn: () => ask(api.POST("/api/v1/plan/costs", { body: doc })),
    enabled: on,
    placeholderData: (last) => last,
  });
}

export function useRank(on: boolean) {
  const { doc, key } = useDoc();
  return useQuery({
    queryKey: ["rank", ...key],
    queryFn: () => ask(api.POST("/api/v1/plan/rank", { body: doc })),
    enabled: on,
    placeholderData: (last) => last,
  });
}

export function useCuts() {
  const { key } = useDoc();
  return useQuery({
    queryKey: ["cuts", ...key],
    queryFn: () => ask(api.GET("/api/v1/pieces/{id}/cuts", { params: { path: { id: key[0] } } })),
  });
}
