import { beforeEach, expect, test } from "vitest";
import type { Event } from "./core";
import { deviceName, keep, leftBehind, loadKept, without } from "./queue";

const event = (device: string, seq: number): Event => ({
  id: `${device}-${seq}`,
  device,
  seq,
  atMs: 1_700_000_000_000 + seq,
  kind: "out",
});

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
});

test("a screen keeps its name, and what waits, over a reload", () => {
  const name = deviceName();
  expect(name).toMatch(/^[0-9a-f]{12}$/);
  expect(deviceName()).toBe(name);
  expect(keep("s", name, { seq: 2, queue: [event(name, 1), event(name, 2)], refused: [] })).toBe(true);
  expect(loadKept("s", name).queue).toHaveLength(2);
  expect(loadKept("other", name).queue).toEqual([]);
});

test("what another window left unsent is found, and only that of this session", () => {
  keep("s", "dead", { seq: 1, queue: [event("dead", 1)], refused: [] });
  keep("t", "dead", { seq: 1, queue: [event("dead", 1)], refused: [] });
  keep("s", "idle", { seq: 4, queue: [], refused: [] });
  keep("s", "me", { seq: 1, queue: [event("me", 1)], refused: [] });
  expect(leftBehind("s", "me").map((o) => o.device)).toEqual(["dead"]);
});

test("what was sent is taken out, what came meanwhile stays, what was refused is kept apart", () => {
  const k = { seq: 3, queue: [event("a", 1), event("a", 2), event("a", 3)], refused: [] };
  const left = without(k, new Set(["a-1", "a-2"]), [{ event: event("a", 2), messages: ["no such place"] }]);
  expect(left.queue.map((e) => e.id)).toEqual(["a-3"]);
  expect(left.refused.map((r) => r.event.id)).toEqual(["a-2"]);
  expect(left.seq).toBe(3);
});

test("what cannot be read is as nothing", () => {
  localStorage.setItem("coldember.fire.s.a", "{broken");
  expect(loadKept("s", "a")).toEqual({ seq: 0, queue: [], refused: [] });
});
