import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import { act, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { useEvents } from "./events";

/** The line to the server, as the browser has it: it can be lost, and comes back by itself. */
class Line {
  static readonly CLOSED = 2;
  static last: Line | undefined;
  readyState = 1;
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  constructor() {
    Line.last = this;
  }
  addEventListener() {}
  close() {}
}

class Silent {
  onmessage = null;
  postMessage() {}
  close() {}
}

let away = false;

function List() {
  useEvents();
  const list = useQuery({
    queryKey: ["pieces"],
    queryFn: async () => {
      if (away) throw new Error("away");
      return "a rigging knife";
    },
    retry: false,
  });
  return <p>{list.isError ? "not to be had" : list.data}</p>;
}

beforeEach(() => {
  vi.stubGlobal("EventSource", Line);
  vi.stubGlobal("BroadcastChannel", Silent);
  Object.defineProperty(navigator, "locks", {
    configurable: true,
    value: { request: (_: string, __: unknown, run: () => Promise<void>) => run() },
  });
});
afterEach(() => vi.unstubAllGlobals());

it("brings a list back by itself when the server does", async () => {
  away = true;
  render(
    <QueryClientProvider client={new QueryClient()}>
      <List />
    </QueryClientProvider>,
  );
  await screen.findByText("not to be had");
  await act(async () => Line.last?.onopen?.()); // the first time it opens there is nothing to bring back
  expect(screen.getByText("not to be had")).toBeTruthy();
  away = false;
  await act(async () => {
    Line.last?.onerror?.();
    Line.last?.onopen?.();
  });
  await screen.findByText("a rigging knife");
});

it("tries again where a server that was started anew refuses, until it has its key", async () => {
  away = true;
  render(
    <QueryClientProvider client={new QueryClient()}>
      <List />
    </QueryClientProvider>,
  );
  await screen.findByText("not to be had");
  vi.useFakeTimers();
  const refused = Line.last;
  if (!refused) throw new Error("nobody listens");
  refused.readyState = Line.CLOSED;
  await act(async () => refused.onerror?.());
  expect(Line.last).toBe(refused);
  await act(async () => vi.advanceTimersByTime(3000));
  expect(Line.last).not.toBe(refused);
  vi.useRealTimers();
  away = false;
  await act(async () => Line.last?.onopen?.());
  await screen.findByText("a rigging knife");
});
