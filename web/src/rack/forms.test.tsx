import { render } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { StockItem } from "../api/client";
import { has, say } from "../text/say";
import { Drawn, extent } from "./Drawn";
import { barSize, type Form, formFields, forms, isBar } from "./forms";

/** One piece of every form. */
const pieces: Record<Form, StockItem> = {
  flat: { form: "flat", widthMm: 25, thicknessMm: 5, lengthMm: 1000 },
  square: { form: "square", sideMm: 16, lengthMm: 300 },
  round: { form: "round", diameterMm: 12, lengthMm: 400 },
  hex: { form: "hex", acrossFlatsMm: 18, lengthMm: 200 },
  octagon: { form: "octagon", acrossFlatsMm: 20, lengthMm: 200 },
  ball: { form: "ball", diameterMm: 40 },
  roller: { form: "roller", diameterMm: 24, lengthMm: 36 },
  taperedRound: { form: "taperedRound", startDiameterMm: 30, endDiameterMm: 22, lengthMm: 40 },
  taperedFlat: {
    form: "taperedFlat",
    startWidthMm: 32,
    endWidthMm: 20,
    startThicknessMm: 8,
    endThicknessMm: 5,
    lengthMm: 300,
  },
  coil: { form: "coil", wireDiameterMm: 13, meanDiameterMm: 112, pitchMm: 38, turns: 2.5 },
  leaf: { form: "leaf", widthMm: 60, thicknessMm: 8, chordMm: 700, riseMm: 90 },
  race: { form: "race", outerDiameterMm: 110, innerDiameterMm: 90, widthMm: 24 },
  disc: { form: "disc", diameterMm: 460, thicknessMm: 5, innerDiameterMm: 40, shareFraction: 0.5, stripWidthMm: 45 },
  cable: { form: "cable", diameterMm: 25, lengthMm: 250, solidFraction: 0.6 },
  chain: { form: "chain", wireDiameterMm: 12, linkLengthMm: 72, linkWidthMm: 44, links: 9 },
  layers: {
    form: "layers",
    widthMm: 40,
    lengthMm: 120,
    layers: [
      { count: 4, thicknessMm: 3 },
      { count: 3, thicknessMm: 2 },
    ],
  },
  tube: { form: "tube", diameterMm: 30, wallMm: 3, lengthMm: 200 },
};

const drawn = (p: StockItem, takenShare?: number) =>
  render(<Drawn piece={p} width={400} height={120} takenShare={takenShare} />).container.querySelector("svg");

describe("the forms of stock", () => {
  it.each(forms)("%s is named, measured and drawn within its box", (form) => {
    const p = pieces[form];
    expect(has(`form.${form}`)).toBe(true);
    for (const f of formFields[form]) expect(has(`field.name.bar.${f}`), f).toBe(true);
    expect(barSize(p, "mm")).toMatch(/\d/);
    expect(barSize(p, "mm")).toMatch(/mm$/);
    const svg = drawn(p);
    expect(Number(svg?.getAttribute("width"))).toBeLessThanOrEqual(400);
    expect(Number(svg?.getAttribute("height"))).toBeLessThanOrEqual(120);
    expect(svg?.getAttribute("aria-label")).toBe(say(`form.${form}`));
    expect(svg?.querySelectorAll("path, rect, circle").length).toBeGreaterThan(0);
  });

  it("prints sizes in the smith's units", () => {
    expect(barSize(pieces.flat, "mm")).toBe("25 × 5 mm");
    expect(barSize(pieces.roller, "mm")).toBe("ø 24 × 36 mm");
    expect(barSize(pieces.layers, "mm")).toBe("40 × 18 mm");
    expect(barSize({ form: "flat", widthMm: 25.4, thicknessMm: 6.35, lengthMm: 300 }, "in")).toBe("1 × 1/4 in");
  });

  it("knows which have one section along them", () => {
    expect(forms.filter(isBar)).toEqual(["flat", "square", "round", "hex", "octagon"]);
  });

  it("draws what a piece takes up from its own dimensions", () => {
    expect(extent(pieces.leaf)).toEqual([700, 98]);
    expect(extent(pieces.disc)).toEqual([460, 230]);
    expect(extent(pieces.coil)).toEqual([2.5 * 38 + 13, 125]);
    expect(extent(pieces.layers)).toEqual([120, 18]);
    expect(extent(pieces.ball)).toEqual([40, 40]);
  });

  it("hatches dead stretches and dashes what is spoken for", () => {
    const dead: StockItem = { ...pieces.flat, dead: [{ fromMm: 100, toMm: 150, why: "hole" }] };
    expect(drawn(dead)?.querySelector("title")?.textContent).toBe(say("why.dead.hole"));
    const widths = [...(drawn(pieces.flat, 0.25)?.querySelectorAll("rect") ?? [])].map((r) =>
      Number(r.getAttribute("width")),
    );
    expect((widths[1] ?? 0) / (widths[0] ?? 1)).toBeCloseTo(0.75, 6);
  });

  it("draws half a turn of a coil as half a turn", () => {
    const points = (turns: number) =>
      drawn({ ...pieces.coil, turns })
        ?.querySelector("path")
        ?.getAttribute("d")
        ?.split("L").length;
    expect(points(2.5)).toBe(6);
    expect(points(3)).toBe(7);
  });
});
