import { expect, test } from "vitest";
import { clockAt, moved } from "./order";

test("a piece is moved by one, and no further than the ends", () => {
  expect(moved(["a", "b", "c"], "b", -1)).toEqual(["b", "a", "c"]);
  expect(moved(["a", "b", "c"], "b", 1)).toEqual(["a", "c", "b"]);
  expect(moved(["a", "b"], "a", -1)).toEqual(["a", "b"]);
  expect(moved(["a", "b"], "x", 1)).toEqual(["a", "b"]);
});

test("a time of the day is told by the clock", () => {
  const at = new Date(2026, 10, 26, 8, 0);
  expect(clockAt(at, 0)).toBe("08:00");
  expect(clockAt(at, 365.4)).toBe("14:05");
  expect(clockAt(at, 17 * 60)).toBe("01:00");
});
