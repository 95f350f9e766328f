import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type Mended, streamed, type Warning } from "../api/client";
import { useDraftPart } from "../draft/context";

/** What clears the findings of the piece as it is stored: each comes as soon as it was planned. */
export function useRemedies(on: boolean) {
  const piece = useDraftPart((s) => s.piece);
  const client = useQueryClient();
  const queryKey = ["remedies", piece.id, piece.version];
  const found = useQuery({
    queryKey,
    queryFn: async ({ signal }) => {
      const all: Mended[] = [];
      for await (const m of streamed<Mended>("/api/v1/plan/remedies", piece.doc, signal)) {
        all.push(m);
        client.setQueryData(queryKey, [...all]);
      }
      return all;
    },
    enabled: on,
    staleTime: Number.POSITIVE_INFINITY,
  }).data;
  return (w: Warning) => found?.find((m) => same(m.finding, w))?.remedy;
}

const same = (a: Warning, b: Warning) =>
  a.code === b.code && JSON.stringify([a.where, a.figures]) === JSON.stringify([b.where, b.figures]);
