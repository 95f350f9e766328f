import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../../api/client";
import type { components } from "../../api/schema";
import { useDraftPart } from "../../draft/context";

export type Advice = components["schemas"]["HardenAdvice"];

/** What is said of hardening and tempering the piece, as it is stored. */
export function useAdvice(on = true) {
  const piece = useDraftPart((s) => s.piece);
  return useQuery({
    queryKey: ["treatment", piece.id, piece.version],
    queryFn: () => ask(api.POST("/api/v1/plan/treatment", { body: piece.doc })),
    enabled: on,
    placeholderData: (last) => last,
  });
}
