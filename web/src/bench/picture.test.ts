import { describe, expect, it } from "vitest";
import { planOf } from "../test/plan";
import { edgeOnPath, layOut, spineFace } from "./layout";
import { type Picture, pictureMatrix } from "./picture";

const plan = planOf();
const view = { widthPx: 880, heightPx: 640, zoom: 1, flip: false };
const l = layOut(plan, view);
const picture: Picture = {
  id: "x",
  widthPx: 600,
  heightPx: 200,
  xMm: 10,
  yMm: 5,
  mmPerPx: 0.2,
  turnDeg: 0,
  strengthShare: 0.5,
};

/** Where a pixel comes to lie, px of the bench. */
function put(p: Picture, layout: typeof l, px: number, py: number): [number, number] {
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = pictureMatrix(p, layout)
    .replace(/matrix\(|\)/g, "")
    .split(" ")
    .map(Number);
  return [a * px + c * py + e, b * px + d * py + f];
}

describe("a picture behind the outline", () => {
  it("lies on the scale of the bench, its corner where it is said to be", () => {
    const [x, y] = put(picture, l, 0, 0);
    expect(x).toBeCloseTo(l.x(10), 3);
    expect(y).toBeCloseTo(l.finished.baseY - 5 * l.scale, 3);
    const [far] = put(picture, l, 300, 0);
    expect((far - x) / l.scale).toBeCloseTo(60, 3);
  });
  it("turns about its corner", () => {
    const turned = { ...picture, turnDeg: 90 };
    const [x, y] = put(turned, l, 0, 0);
    const [x2, y2] = put(turned, l, 100, 0);
    expect(x2).toBeCloseTo(x, 3);
    expect((y2 - y) / l.scale).toBeCloseTo(20, 3);
  });
  it("is flipped with the bench", () => {
    const f = layOut(plan, { ...view, flip: true });
    const [a] = put(picture, f, 0, 0);
    const [b] = put(picture, f, 100, 0);
    expect(b).toBeLessThan(a);
  });
});

describe("thickness drawn large", () => {
  const large = layOut(plan, { ...view, thickTimes: 4, heldScale: l.scale });
  it("only the finished blade's spine view grows", () => {
    expect(large.finished.thickScale).toBeCloseTo(4 * l.scale, 9);
    expect(large.finished.edgeOnHalf).toBeCloseTo(4 * l.finished.edgeOnHalf, 9);
    expect(large.forged.edgeOnHalf).toBeCloseTo(l.forged.edgeOnHalf, 9);
    expect(large.finished.edgeOnY - large.finished.edgeOnHalf).toBeGreaterThan(large.finished.bottomY);
    const high = (p: string) => {
      const ys = [...p.matchAll(/,(-?[\d.]+)/g)].map((m) => Number(m[1]));
      return Math.max(...ys) - Math.min(...ys);
    };
    const path = (x: typeof l) => edgeOnPath(plan.drawing.finished, x.finished, x);
    expect(high(path(large)) / high(path(l))).toBeCloseTo(4, 1);
  });
  it("a thick grip does not lift the spine's handle", () => {
    const gripped = {
      ...plan,
      drawing: {
        ...plan.drawing,
        handle: [
          {
            what: "grip" as const,
            material: "hardwood",
            fromMm: 114,
            toMm: 225,
            widthMm: 24,
            outline: [
              [114, 2],
              [225, 2],
              [225, -26],
              [114, -26],
            ],
          },
        ],
      },
    };
    const g = layOut(gripped, { ...view, heldScale: l.scale });
    expect(g.finished.edgeOnHalf).toBeCloseTo(12 * l.scale, 6);
    expect(g.finished.edgeOnY - spineFace(gripped, g)).toBeCloseTo(2 * l.scale, 6);
    expect(g.x(225) - g.x(0)).toBeLessThan(g.widthPx);
  });
});
