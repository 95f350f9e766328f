import { expect, test } from "vitest";
import { moved } from "./order";

test("an operation is moved and the others keep their order", () => {
  expect(moved(["a", "b", "c", "d"], "d", 1)).toEqual(["a", "d", "b", "c"]);
  expect(moved(["a", "b", "c", "d"], "a", 2)).toEqual(["b", "c", "a", "d"]);
});

test("past an end is that end, and what is not there moves nothing", () => {
  expect(moved(["a", "b"], "a", 9)).toEqual(["b", "a"]);
  expect(moved(["a", "b"], "b", -3)).toEqual(["b", "a"]);
  expect(moved(["a", "b"], "x", 0)).toEqual(["a", "b"]);
});
