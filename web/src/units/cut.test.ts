import { describe, expect, it } from "vitest";
import type { Plan } from "../api/client";
import { cutOf } from "./cut";

describe("what is taken of the stock", () => {
  const plan = {
    bar: { cutLengthMm: 20, lowMm: 19, highMm: 23 },
    ledger: [{ code: "ledger.start", massG: 100 }],
  } as unknown as Plan;
  it("is a length of a bar and the weight of a ball, each with its range", () => {
    expect(cutOf(plan, "flat", "mm")).toBe("20 mm (19–23)");
    expect(cutOf(plan, "ball", "mm")).toBe("100 g (95–115)");
    const heavy = { ...plan, ledger: [{ code: "ledger.start", massG: 1000 }] } as unknown as Plan;
    expect(cutOf(heavy, "ball", "mm")).toBe("1 kg (950 g–1.15 kg)");
    expect(cutOf({ ...plan, ledger: [] } as Plan, "ball", "mm")).toBe("20 mm (19–23)");
  });
});
