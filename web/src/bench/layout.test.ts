import { describe, expect, it } from "vitest";
import { planOf } from "../test/plan";
import { glow } from "./glow";
import { extent, flatPath, layOut, runs } from "./layout";
import { linesFor } from "./Readings";

const view = { widthPx: 880, heightPx: 640, zoom: 1, flip: false };

describe("the layout of the bench", () => {
  const plan = planOf();
  const l = layOut(plan, view);

  it("has one scale for all three drawings and fits the window", () => {
    const forged = l.x(214.2) - l.x(0);
    expect(forged / 214.2).toBeCloseTo(l.scale, 9);
    expect((l.barX(108) - l.barX(0)) / 108).toBeCloseTo(l.scale, 9);
    expect((l.bar.bottomY - l.bar.topY) / 25).toBeCloseTo(l.scale, 9);
    expect(l.widthPx).toBe(880);
    expect(l.x(214.2)).toBeLessThan(880);
    expect(l.finished.edgeOnY).toBeLessThan(l.heightPx);
  });

  it("stacks bar, forged shape and finished blade without overlap", () => {
    for (const [a, b] of [
      [l.bar, l.forged],
      [l.forged, l.finished],
    ] as const) {
      expect(a.edgeOnY).toBeGreaterThan(a.bottomY);
      expect(b.topY).toBeGreaterThan(a.edgeOnY + a.edgeOnHalf);
    }
  });

  it("flips end for end about the same middle", () => {
    const f = layOut(plan, { ...view, flip: true });
    expect(f.x(0)).toBeCloseTo(880 - l.x(0), 6);
    expect(f.x(50)).toBeLessThan(f.x(0));
  });

  it("scrolls when zoomed and holds its scale while dragging", () => {
    const z = layOut(plan, { ...view, zoom: 2 });
    expect(z.scale).toBeCloseTo(l.scale * 2, 9);
    expect(z.widthPx).toBeGreaterThan(880);
    expect(layOut(planOf(400), { ...view, heldScale: 3 }).scale).toBe(3);
  });

  it("breaks a long bar off and keeps its ends true", () => {
    const long = planOf(900);
    const b = layOut(long, view);
    expect(b.breaks).toHaveLength(4);
    expect(b.barX(900)).toBeLessThan(880);
    const end = (b.barX(900) - b.barX(890)) / 10;
    expect(end).toBeCloseTo(b.scale, 9);
    expect(l.breaks).toEqual([]);
  });

  it("cuts stations into runs of one zone that meet", () => {
    const r = runs(plan.drawing.finished);
    expect(r.map((x) => x.zone)).toEqual(["point", "blade", "ricasso", "tang"]);
    for (let i = 1; i < r.length; i++) expect(r[i]?.fromMm).toBeCloseTo(r[i - 1]?.toMm ?? Number.NaN, 9);
    expect(extent(plan.drawing.finished)).toMatchObject({ top: 0, bottom: -25, thick: 4, length: 210 });
    expect(flatPath(plan.drawing.finished, l.finished, l)).toMatch(/^M[\d.,L-]+Z$/);
  });
});

describe("glow", () => {
  it("brightens with heat", () => {
    const light = (c: number) =>
      glow(c)
        .match(/\d+/g)
        ?.reduce((a, n) => a + Number(n), 0) ?? 0;
    expect(light(1100)).toBeGreaterThan(light(850));
    expect(light(1300)).toBeGreaterThan(light(1100));
    expect(glow(5000)).toBe(glow(1300));
  });
});

describe("the labels of the calipers", () => {
  it("share a line where there is room, and take the next where there is none", () => {
    expect(linesFor([100, 300, 500])).toEqual([0, 0, 0]);
    expect(linesFor([519, 570, 599])).toEqual([0, 1, 2]);
    expect(linesFor([100, 180, 260])).toEqual([0, 1, 0]);
  });
});
