import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../../api/client";
import type { components } from "../../api/schema";
import { useDraftPart } from "../../draft/context";

export type Finished = components["schemas"]["Finished"];
export type Way = components["schemas"]["FinishWay"];
export type FinishStep = components["schemas"]["FinishStep"];

/** What is said of grinding, fitting and sharpening the piece, as it is stored. */
export function useFinish() {
  const piece = useDraftPart((s) => s.piece);
  return useQuery({
    queryKey: ["finish", piece.id, piece.version],
    queryFn: () => ask(api.POST("/api/v1/plan/finish", { body: piece.doc })),
    placeholderData: (last) => last,
  });
}

/** What it can still be, asked once something was measured. */
export function useStill(on: boolean) {
  const piece = useDraftPart((s) => s.piece);
  return useQuery({
    queryKey: ["still", piece.id, piece.version],
    queryFn: () => ask(api.POST("/api/v1/plan/still", { body: piece.doc })),
    enabled: on,
    placeholderData: (last) => last,
  });
}

/** What it costs and when it can be ready. */
export function usePromise() {
  const piece = useDraftPart((s) => s.piece);
  return useQuery({
    queryKey: ["promise", piece.id, piece.version],
    queryFn: () => ask(api.GET("/api/v1/pieces/{id}/promise", { params: { path: { id: piece.id } } })),
    placeholderData: (last) => last,
  });
}
