import { describe, expect, it } from "vitest";
import { putUp, takeDown } from "./shelf";

function storage(start: Record<string, string> = {}) {
  const kept = new Map(Object.entries(start));
  return {
    kept,
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  };
}

const at = "coldember.typed.p1";

describe("the shelf of what is typed", () => {
  it("gives back what was put up, and forgets it when nothing is left", () => {
    const s = storage();
    putUp(s, "p1", { "design.lengthMm": "4 1/2 in" });
    expect(takeDown(s, "p1")).toEqual({ "design.lengthMm": "4 1/2 in" });
    expect(takeDown(s, "p2")).toEqual({});
    putUp(s, "p1", {});
    expect(s.kept.size).toBe(0);
  });

  it("reads the first form, which had no version", () => {
    expect(takeDown(storage({ [at]: '{"notes":"longer"}' }), "p1")).toEqual({ notes: "longer" });
  });

  it.each([
    "{",
    "null",
    "7",
    '"x"',
    "[1]",
    '{"notes":7}',
    '{"v":2}',
    '{"v":2,"typed":[]}',
    '{"v":99,"typed":{"a":"b"}}',
  ])("is never stopped by %s", (text) => {
    const s = storage({ [at]: text });
    expect(takeDown(s, "p1")).toEqual({});
    expect(s.kept.get(at)).toBe(text);
  });

  it("does without storage that throws", () => {
    const no = () => {
      throw new DOMException("denied", "SecurityError");
    };
    const s = { getItem: no, setItem: no, removeItem: no };
    expect(takeDown(s, "p1")).toEqual({});
    expect(() => putUp(s, "p1", { a: "b" })).not.toThrow();
  });
});
