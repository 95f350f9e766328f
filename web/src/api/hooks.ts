import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useContext } from "react";
import type { System } from "../units/print";
import {
  api,
  ask,
  type Doc,
  type Edit,
  type NewTimer,
  type Pattern,
  type Piece,
  type Plan,
  type Settings,
  type Stock,
} from "./client";

/** What can be listed, by the name of its resource. */
interface Listed {
  pieces: Piece;
  patterns: Pattern;
  stock: Stock;
}

const items = <T>(d: { items: T[] }) => d.items;
const setAside = (d: { unreadable: { id: string; newer: boolean }[] }) => d.unreadable;

/** One query for a list and for what of it cannot be read. */
function listOf<K extends keyof Listed>(kind: K, archived: boolean) {
  const query = { params: { query: { archived } } };
  const calls = {
    pieces: () => ask(api.GET("/api/v1/pieces", query)),
    patterns: () => ask(api.GET("/api/v1/patterns", query)),
    stock: () => ask(api.GET("/api/v1/stock", query)),
  };
  return {
    queryKey: [kind, archived],
    queryFn: calls[kind] as () => Promise<{ items: Listed[K][]; unreadable: { id: string; newer: boolean }[] }>,
  };
}

export const usePieces = (archived = false) => useQuery({ ...listOf("pieces", archived), select: items });
export const usePatterns = (archived = false) => useQuery({ ...listOf("patterns", archived), select: items });
export const useStock = (archived = false) => useQuery({ ...listOf("stock", archived), select: items });

/** What of a list is set aside because it cannot be read. */
export const useSetAside = (kind: keyof Listed) => useQuery({ ...listOf(kind, false), select: setAside }).data ?? [];

const planIds = new WeakMap<Plan, number>();
let plansSeen = 0;

/** A short name for a plan that was answered, since a plan itself is too long for a key. */
function idOf(plan: Plan): number {
  let id = planIds.get(plan);
  if (id === undefined) {
    id = ++plansSeen;
    planIds.set(plan, id);
  }
  return id;
}

/** The piece after every heat of a plan, asked for once it is wanted; the last ones are kept until they come. */
export const useStates = (doc: Doc, plan: Plan, wanted: boolean) =>
  useQuery({
    queryKey: ["states", idOf(plan)],
    queryFn: () => ask(api.POST("/api/v1/plan/states", { body: doc })),
    enabled: wanted,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
  }).data;

export const useSteels = () =>
  useQuery({
    queryKey: ["steels"],
    queryFn: () => ask(api.GET("/api/v1/steels")),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** The name of a grade by its id. */
export function useSteelName(): (id: string) => string {
  const steels = useSteels();
  return (id) => steels.data?.find((g) => g.id === id)?.name ?? id;
}

/** What of the library comes of a piece of stock; nothing is asked without one. */
export const useFits = (item: Stock | undefined) =>
  useQuery({
    queryKey: ["fits", item?.id, item?.version],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/v1/stock/{id}/fits", { params: { path: { id: item?.id ?? "" } }, signal })),
    enabled: !!item?.usable,
    staleTime: 60_000,
  });

export const useSalvage = () =>
  useQuery({
    queryKey: ["salvage"],
    queryFn: () => ask(api.GET("/api/v1/salvage")),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** The book of all pieces: every session, the newest first. */
export const useSessions = () => useQuery({ queryKey: ["sessions"], queryFn: () => ask(api.GET("/api/v1/sessions")) });

/** The newest session of a piece. */
export const useEntry = (pieceId: string) => useSessions().data?.find((e) => e.pieceId === pieceId);

/** What a session came to. */
export const useBook = (id: string | undefined) =>
  useQuery({
    queryKey: ["book", id],
    queryFn: () => ask(api.GET("/api/v1/sessions/{id}/book", { params: { path: { id: id ?? "" } } })),
    enabled: !!id,
  });

/** What is waited for; by how much the server's clock is ahead of this one, ms. */
export const useTimers = () =>
  useQuery({
    queryKey: ["timers"],
    queryFn: async () => {
      const t = await ask(api.GET("/api/v1/timers"));
      return { items: t.items, aheadMs: t.nowMs - Date.now() };
    },
    refetchInterval: 60_000,
  });

/** Begins and stops timers; every page shows them. */
export function useTimerWork() {
  const client = useQueryClient();
  const done = () => client.invalidateQueries({ queryKey: ["timers"] });
  return {
    start: useMutation({
      mutationFn: (body: NewTimer) => ask(api.POST("/api/v1/timers", { body })),
      onSettled: done,
    }),
    stop: useMutation({
      mutationFn: (id: string) => ask(api.POST("/api/v1/timers/{id}/stop", { params: { path: { id } } })),
      onSettled: done,
    }),
  };
}

export const useShop = () => useQuery({ queryKey: ["shop"], queryFn: () => ask(api.GET("/api/v1/shop")) });

/** Who and what else may reach the shop. */
export const useAccess = (wanted = true) =>
  useQuery({ queryKey: ["access"], queryFn: () => ask(api.GET("/api/v1/access")), enabled: wanted });

/** Copies of everything; made and put back here. */
export const useCopies = () => useQuery({ queryKey: ["copies"], queryFn: () => ask(api.GET("/api/v1/copies")) });

export function useMakeCopy() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => ask(api.POST("/api/v1/copies")),
    onSettled: () => client.invalidateQueries({ queryKey: ["copies"] }),
  });
}

export const usePutBack = () =>
  useMutation({
    mutationFn: (name: string) => ask(api.POST("/api/v1/copies/{name}/restore", { params: { path: { name } } })),
  });

/** The units of the shop, kept by the frame of every page. */
export const Units = createContext<System>("mm");

/** The units everything is shown and typed in. */
export const useUnits = (): System => useContext(Units);

/** Changes settings; the version seen goes along, so that two windows cannot overwrite each other. */
export function useEditShop() {
  const client = useQueryClient();
  return useMutation({
    scope: { id: "shop" }, // one after the other, each upon the version that the last one left
    mutationFn: (edits: Edit[]) => {
      const version = client.getQueryData<Settings>(["shop"])?.version ?? 0;
      return ask(api.PATCH("/api/v1/shop", { body: { version, edits } }));
    },
    onSuccess: (s) => client.setQueryData(["shop"], s),
    onError: () => client.invalidateQueries({ queryKey: ["shop"] }),
  });
}
