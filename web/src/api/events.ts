import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import type { components } from "./schema";

export type Saved = components["schemas"]["Saved"];

/** The lists that change when something of a kind is saved. */
const touches: Record<Saved["kind"], string[]> = {
  piece: ["pieces", "stock"],
  pattern: ["patterns"],
  stock: ["stock", "cuts"],
  shop: ["shop"],
  session: ["sessions", "book"],
  timer: ["timers"],
  access: ["access", "me"],
  practised: ["practised"],
  all: [],
};

const listeners = new Set<(e: Saved) => void>();

/** Hears of everything that is saved, in this window or another, while the component is there. */
export function useSaved(hear: (e: Saved) => void): void {
  useEffect(() => {
    listeners.add(hear);
    return () => {
      listeners.delete(hear);
    };
  }, [hear]);
}

const channelName = "coldember.saved";

/** A line that was refused is tried again after this, ms. */
const againMs = 3000;

/**
 * Listens to the server, for all windows of this browser: a browser keeps only a few connections to one place, and
 * a window that listens holds one for as long as it is open. The window that has the lock listens, and tells the
 * others; when it goes another takes over. Returns how to stop.
 */
function listen(hear: (e: Saved) => void, back: () => void): () => void {
  const stop = new AbortController();
  const channel = new BroadcastChannel(channelName);
  channel.onmessage = (m: MessageEvent<Saved | "back">) => (m.data === "back" ? back() : hear(m.data));
  const connect = () =>
    new Promise<void>((done) => {
      let source: EventSource | undefined;
      let lost = false;
      const open = () => {
        if (stop.signal.aborted) return;
        const line = new EventSource("/api/v1/events"); // connects again by itself
        source = line;
        line.onerror = () => {
          lost = true;
          // a server that was started anew refuses, until the page has its key: then the browser gives up
          if (line.readyState === EventSource.CLOSED) setTimeout(open, againMs);
        };
        line.onopen = () => {
          if (!lost) return;
          lost = false;
          channel.postMessage("back");
          back();
        };
        line.addEventListener("saved", (m: MessageEvent<string>) => {
          const e = JSON.parse(m.data) as Saved;
          channel.postMessage(e);
          hear(e);
        });
      };
      open();
      stop.signal.addEventListener("abort", () => {
        source?.close();
        done();
      });
    });
  navigator.locks.request(channelName, { signal: stop.signal }, connect).catch(() => {
    // stopped before it was its turn
  });
  return () => {
    stop.abort();
    channel.close();
  };
}

/** Keeps the lists of every page fresh while something is saved elsewhere. */
export function useEvents(): void {
  const client = useQueryClient();
  useEffect(() => {
    if (typeof EventSource === "undefined" || !navigator.locks) return;
    const hear = (e: Saved) => {
      if (e.kind === "all") {
        // another copy of everything is in its place: nothing that is shown holds any more
        location.reload();
        return;
      }
      for (const key of touches[e.kind]) void client.invalidateQueries({ queryKey: [key] });
      for (const f of listeners) f(e);
    };
    // the server was away: what was saved meanwhile was not heard of, and what failed can be had again
    const back = () => void client.invalidateQueries();
    let stop = listen(hear, back);
    const leave = () => stop();
    const comeBack = (e: PageTransitionEvent) => {
      if (!e.persisted) return;
      stop = listen(hear, back);
      back();
    };
    addEventListener("pagehide", leave);
    addEventListener("pageshow", comeBack);
    return () => {
      removeEventListener("pagehide", leave);
      removeEventListener("pageshow", comeBack);
      stop();
    };
  }, [client]);
}
