import { describe, expect, it } from "vitest";
import type { Station } from "../api/client";
import { planOf } from "../test/plan";
import { glow } from "./glow";
import { edgeOnPath, extent, flatPath, layOut, outline, runs, twistPath } from "./layout";

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

describe("a bent and twisted piece", () => {
  const st = (x: number, s: number, e: number, more: Partial<Station> = {}): Station => ({
    x,
    s,
    e,
    t: 4,
    z: "tang",
    ...more,
  });
  const at = (x: number, y: number) => `${x} ${y}`;

  it("is outlined by the points of its spine and edge, wherever they lie", () => {
    const turned = [st(0, 2, -2), st(10, 2, -2, { sx: 12, ex: 8 })];
    expect(outline(turned, at)).toBe("M0 2L12 2L8 -2L0 -2Z");
    expect(extent(turned).length).toBe(12);
  });

  it("hangs as far as its eye does, whichever side is up", () => {
    expect(extent([st(0, 2, -2), st(5, -20, -16)])).toMatchObject({ top: 2, bottom: -20 });
  });

  it("is one run where only its lean changes, and two at a shoulder", () => {
    const lean = [st(0, 2, -2, { z: "ricasso" }), st(1, 1, -2.9, { sx: 1.9, ex: 1 })];
    expect(runs(lean)[0]?.stations).toHaveLength(2);
    expect(runs([st(0, 9, -9, { z: "ricasso" }), st(0, 2, -2)])[0]?.stations).toHaveLength(1);
  });

  it("has a line for every quarter turn", () => {
    const lines = (w: number) => twistPath([st(0, 2, -2), st(50, 2, -2, { w })], at).split("M").length - 1;
    expect([0, 89, 90, 359, 360, 720].map(lines)).toEqual([0, 0, 1, 3, 4, 8]);
  });

  it("is seen once from the spine where it comes back over itself", () => {
    const l = layOut(planOf(), view);
    const eye = [st(0, 2, -2), st(10, 2, -2), st(6, -6, -9), st(9, 1, -1)];
    expect(edgeOnPath(eye, l.finished, l).split("L")).toHaveLength(4);
  });
});
