import { describe, expect, it } from "vitest";
import { localNumber, print, setDecimal } from "../units/print";
import { count, figures, has, heatColour, say, told, word } from "./say";

/** Every source file of the front end, as text. */
const sources = import.meta.glob<string>(["../**/*.ts", "../**/*.tsx", "!../**/*.test.*"], {
  query: "?raw",
  import: "default",
  eager: true,
});

describe("the catalogue", () => {
  it("has words for every code that the pages say", () => {
    const missing: string[] = [];
    let seen = 0;
    for (const [file, text] of Object.entries(sources)) {
      for (const [, code] of text.matchAll(/\bsay\(\s*"([^"]+)"/g)) {
        seen++;
        if (code && !has(code)) missing.push(`${file}: ${code}`);
      }
      for (const [, code] of text.matchAll(/\bcount\(\s*"([^"]+)"/g))
        if (code && !has(`${code}.one`)) missing.push(`${file}: ${code}.one`);
      for (const [, field] of text.matchAll(/\bf="([^"]+)"/g))
        if (field && !has(`field.name.${field}`)) missing.push(`${file}: field.name.${field}`);
      for (const [, field] of text.matchAll(/\bfield="((?:design|bar|sizing|smith|fire|choices|allowances)\.[^"]+)"/g))
        if (field && !has(`field.name.${field}`)) missing.push(`${file}: field.name.${field}`);
      for (const [, code] of text.matchAll(/<Term code="([^"]+)"/g))
        if (code && !has(`term.${code}`)) missing.push(`${file}: term.${code}`);
    }
    expect(missing).toEqual([]);
    expect(seen).toBeGreaterThan(100);
  });
  it("fills placeholders and never goes silent", () => {
    expect(say("heats.bead", { heat: "Heat 3", op: "Bevels" })).toBe("Heat 3, Bevels");
    expect(told("no.such.code")).toBe("no.such.code");
    expect(count("heats", 1)).toBe("1 heat");
    expect(count("heats", 14)).toBe("14 heats");
  });
  it("writes figures as the language does, and leaves names and addresses as they are", () => {
    setDecimal(",");
    try {
      expect(say("heats.bead", { heat: "Heat 1.5", op: "Bevels" })).toBe("Heat 1,5, Bevels");
      expect(say("shop.remove", { name: "Bar 12.5" })).toContain("Bar 12.5");
      expect(print.length(12.5, "mm")).toBe("12,5 mm");
      expect(localNumber("127.0.0.1:7420, v1.2.3, 1.5 mm.")).toBe("127.0.0.1:7420, v1.2.3, 1,5 mm.");
    } finally {
      setDecimal(".");
    }
  });
  it("prints figures in the smith's units", () => {
    expect(figures({ needMm: 127.26, ratio: 5 }, "mm")).toEqual({ needMm: "127.3 mm", ratio: "5" });
    expect(figures({ needMm: 25.4 }, "in")).toEqual({ needMm: "1 in" });
    expect(heatColour(1061, "mm")).toBe("bright orange");
    expect(heatColour(900, "mm,sooner")).toBe("orange");
    expect(heatColour(900, "mm,comma")).toBe("light red");
    expect(word("heatColour.900", "in,C,sooner")).toBe("orange");
    expect(word("bath.fastOil", "mm")).toBe(told("bath.fastOil"));
  });
});
