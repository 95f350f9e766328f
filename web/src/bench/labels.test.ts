import { describe, expect, it } from "vitest";
import type { Heat, Plan } from "../api/client";
import { planOf } from "../test/plan";
import { chalkLabels } from "./Bar";
import { dimsOf } from "./Dims";
import { around, type Box, place, shared } from "./labels";
import { layOut } from "./layout";
import { readingLabels } from "./Readings";

/** A sequence of figures between nought and one that is always the same. */
function dice(seed: number): () => number {
  let s = seed;
  return () => {
    s = (s * 1664525 + 1013904223) % 4294967296;
    return s / 4294967296;
  };
}

const zones = ["point", "blade", "ricasso", "tang"] as const;

/** A piece that nobody would think of: its stretches are from very short to very long. */
function anyPiece(roll: () => number): Plan {
  const plan = structuredClone(planOf());
  const between = (a: number, b: number) => a * (b / a) ** roll(); // as often small as large
  const spans = (lengths: number[]) => {
    let x = 0;
    return zones.map((zone, i) => {
      const fromMm = x;
      x += lengths[i] ?? 0;
      return { zone, fromMm, toMm: x };
    });
  };
  const finished = [between(3, 80), between(15, 900), between(4, 40), between(8, 220)];
  const bar = finished.map((l) => l * between(0.05, 1.2));
  const high = between(8, 90);
  const thick = between(1.5, 9);
  const stations = (s: { zone: string; fromMm: number; toMm: number }[]) =>
    s.flatMap((z) => [z.fromMm, z.toMm].map((x) => ({ x, s: 0, e: -high, t: thick, z: z.zone })));
  const f = spans(finished);
  const cut = bar.reduce((a, b) => a + b, 0) + 3;
  Object.assign(plan.bar, {
    marks: spans(bar),
    cutLengthMm: cut,
    widthMm: between(6, 60),
    thicknessMm: between(2, 30),
  });
  Object.assign(plan.drawing, { finishedZones: f, forgedZones: f, finished: stations(f), forged: stations(f) });
  return plan;
}

/** Pairs of boxes that lie over each other. */
function over(boxes: Box[]): number {
  let n = 0;
  for (const [i, a] of boxes.entries()) for (const b of boxes.slice(i + 1)) if (shared(a, b) > 0) n++;
  return n;
}

const views = [390, 768, 844, 920].flatMap((widthPx) =>
  [false, true].map((flip) => ({ widthPx, heightPx: 640, zoom: 1, flip })),
);
const systems = ["mm", "in", "in,64"];

describe("labels of 200 pieces of any size", () => {
  const roll = dice(7);
  const pieces = Array.from({ length: 200 }, () => anyPiece(roll));
  const each = (check: (plan: Plan, l: ReturnType<typeof layOut>, system: string, n: number) => void) => {
    for (const [n, plan] of pieces.entries()) {
      const view = views[n % views.length];
      if (view) check(plan, layOut(plan, view), systems[n % systems.length] ?? "mm", n);
    }
  };
  it("of the chalk marks never overlap, nor leave the drawing", () => {
    each((plan, l, system, n) => {
      const boxes = [...chalkLabels(plan, l, system, "Bar · 1084, 25 × 5 mm").values()];
      expect(boxes.length, `piece ${n}`).toBe(3);
      expect(over(boxes), `piece ${n}`).toBe(0);
      for (const b of boxes) {
        expect(b.x - b.w / 2).toBeGreaterThanOrEqual(0);
        expect(b.x + b.w / 2).toBeLessThanOrEqual(l.widthPx);
        expect(b.y - b.h / 2).toBeGreaterThanOrEqual(0);
        expect(b.y + b.h / 2).toBeLessThanOrEqual(l.bar.topY);
      }
    });
  });
  it("of the dimensions never overlap", () => {
    each((plan, l, _, n) => {
      const boxes = dimsOf(plan, l, true).map((d) => ({ x: d.x, y: d.y, w: 70, h: 25 }));
      expect(boxes.length).toBe(8);
      expect(over(boxes), `piece ${n}`).toBe(0);
    });
  });
  it("of the calipers never overlap", () => {
    each((plan, l, system, n) => {
      const end = plan.drawing.forgedZones.at(-1)?.toMm ?? 1;
      const at = [roll(), roll(), roll()].map((u) => u * end * (n % 5 === 0 ? 0.05 : 1)).sort((a, b) => a - b);
      const readings = at.map((atMm) => ({ zone: "blade", atMm, heightMm: 24.3 + n, thicknessMm: 4.55 }));
      const step = { readings } as unknown as Heat;
      expect(over(readingLabels(step, l, system)), `piece ${n}`).toBe(0);
    });
  });
});

describe("placing", () => {
  it("takes the first place that is free, and the one least in the way where none is", () => {
    const at: [number, number][] = [
      [0, 0],
      [30, 0],
    ];
    const placed = place(["a", "b", "c"].map((id) => ({ id, w: 20, h: 10, at })));
    expect(placed.get("a")?.x).toBe(0);
    expect(placed.get("b")?.x).toBe(30);
    expect(placed.get("c")?.x).toBe(0);
    expect(place([{ id: "a", w: 20, h: 10, at }], [{ x: 2, y: 2, w: 9, h: 9 }]).get("a")?.x).toBe(30);
  });
  it("goes out from a spot, the nearest first", () => {
    const spots = around(10, 5, { side: 4, sides: 2, line: -10, lines: 2 });
    expect(spots[0]).toEqual([10, 5]);
    expect(spots).toHaveLength(10);
    const far = spots.map(([x, y]) => Math.abs(x - 10) + 1.6 * Math.abs(y - 5));
    expect(far).toEqual([...far].sort((a, b) => a - b));
  });
});
