import { expect, it } from "vitest";
import type { Plan } from "../../api/client";
import { planOf } from "../../test/plan";
import { counted, heatName } from "./counted";

it("counts heats and cycles apart, in whatever order they come", () => {
  const plan = structuredClone(planOf());
  const kinds = ["tang", "tang", "normalise", "bevel", "normalise", "anneal", "harden"];
  Object.assign(plan, {
    operations: kinds.map((kind, i) => ({ id: String(i), kind })),
    heats: kinds.map((_, i) => ({ number: i + 1, parts: [{ operation: String(i) }] })),
  } as unknown as Plan);
  expect(counted(plan).map((c) => `${c.kind[0]}${c.n}/${c.of}`)).toEqual([
    "h1/3",
    "h2/3",
    "c1/3",
    "h3/3",
    "c2/3",
    "c3/3",
    "h1/1",
  ]);
  expect(heatName(plan, 4)).toBe("Heat 3 of 3");
  expect(heatName(plan, 5)).toBe("Cycle 2 of 3");
  expect(heatName(plan, 7)).toBe("Harden and temper");
  expect(heatName(plan, 9)).toBe("");
});
