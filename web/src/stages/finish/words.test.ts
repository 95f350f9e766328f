import { expect, it } from "vitest";
import { about, bandOf } from "./words";

it("tells in which step of a tenth a thickness falls", () => {
  expect([0, 0.05, 0.1, 0.29, 0.3].map(bandOf)).toEqual([0, 0, 1, 2, 3]);
  expect(bandOf(-0.3)).toBe(-1);
  expect(bandOf(-0.01)).toBe(0);
});

it("tells minutes while they are few", () => {
  expect([0.2, 12.4, 89, 90, 340].map(about)).toEqual(["1 min", "12 min", "89 min", "1.5 h", "5.7 h"]);
});
