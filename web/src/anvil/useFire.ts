import { useCallback, useEffect, useState, useSyncExternalStore } from "react";
import { api, ask } from "../api/client";
import { type Saved, useSaved } from "../api/events";
import { onShelf } from "../shelf/onShelf";
import { fold } from "./core";
import { Link, type LinkState } from "./link";
import { claimName } from "./queue";

/** How often the clock of a screen is looked at, ms. */
const tickMs = 200;

/** The session of a piece, taken to the fire if it is not there yet. */
export function useLink(pieceId: string): { link?: Link; error?: Error; retry: () => void } {
  const [link, setLink] = useState<Link>();
  const [error, setError] = useState<Error>();
  const [tries, setTries] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: tries asks again
  useEffect(() => {
    let gone = false;
    let made: Link | undefined;
    setError(undefined);
    const loading = fold();
    loading.catch(() => {}); // told of by the link
    Promise.all([
      onShelf // a screen on the shelf takes nothing to the fire by itself
        ? ask(api.GET("/api/v1/pieces/{id}/fire", { params: { path: { id: pieceId } } }))
        : ask(api.POST("/api/v1/pieces/{id}/fire", { params: { path: { id: pieceId } }, body: {} })),
      claimName(),
    ]).then(
      ([session, device]) => {
        if (gone || !session.shown) return;
        made = new Link(session, session.shown, loading, device);
        setLink(made);
      },
      (e: Error) => !gone && setError(e),
    );
    return () => {
      gone = true;
      made?.close();
      setLink(undefined);
    };
  }, [pieceId, tries]);
  const id = link?.session.id;
  useSaved(
    useCallback(
      (e: Saved) => {
        if (e.kind === "session" && e.id === id) link?.hurry();
      },
      [link, id],
    ),
  );
  return { link, error, retry: () => setTries(tries + 1) };
}

/** What a screen shows now; the clock runs on by itself. */
export function useShown(link: Link): LinkState {
  const s = useSyncExternalStore(link.subscribe, link.get);
  useEffect(() => {
    const t = setInterval(link.tick, tickMs);
    return () => clearInterval(t);
  }, [link]);
  return s;
}
