import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useContext } from "react";
import type { System } from "../units/print";
import { api, ask, type Edit, type Settings } from "./client";

export const usePieces = (archived: boolean) =>
  useQuery({
    queryKey: ["pieces", archived],
    queryFn: () => ask(api.GET("/api/v1/pieces", { params: { query: { archived } } })),
  });

export const usePatterns = () => useQuery({ queryKey: ["patterns"], queryFn: () => ask(api.GET("/api/v1/patterns")) });

export const useStock = () => useQuery({ queryKey: ["stock"], queryFn: () => ask(api.GET("/api/v1/stock")) });

export const useSteels = () =>
  useQuery({
    queryKey: ["steels"],
    queryFn: () => ask(api.GET("/api/v1/steels")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const useSalvage = () =>
  useQuery({
    queryKey: ["salvage"],
    queryFn: () => ask(api.GET("/api/v1/salvage")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const useShop = () => useQuery({ queryKey: ["shop"], queryFn: () => ask(api.GET("/api/v1/shop")) });

/** The units of the shop, kept by the frame of every page. */
export const Units = createContext<System>("mm");

/** The units everything is shown and typed in. */
export const useUnits = (): System => useContext(Units);

/** Changes settings; the version seen goes along, so that two windows cannot overwrite each other. */
export function useEditShop() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (edits: Edit[]) => {
      const version = client.getQueryData<Settings>(["shop"])?.version ?? 0;
      return ask(api.PATCH("/api/v1/shop", { body: { version, edits } }));
    },
    onSuccess: (s) => client.setQueryData(["shop"], s),
    onError: () => client.invalidateQueries({ queryKey: ["shop"] }),
  });
}
