import { describe, expect, it } from "vitest";
import cases from "../../../internal/text/print.json";
import { decimalText, print, type System, setDecimal, typedMm } from "./print";

describe("printing", () => {
  const by: Record<string, (v: number, s: System) => string> = {
    length: print.length,
    thickness: print.thickness,
    mass: print.mass,
    temperature: print.temperature,
    speed: print.speed,
    massRate: print.massRate,
    massPrice: print.massPrice,
    rest: print.rest,
  };
  it.each(cases)("agrees with the server: $kind $value", (c) => {
    const { kind, value, low, high, ...systems } = c as unknown as {
      kind: string;
      value: number;
      low?: number;
      high?: number;
    } & Record<string, string>;
    const printed = (system: string) =>
      low === undefined ? by[kind]?.(value, system) : print.reckoned(value, low, high ?? 0, system);
    for (const [system, want] of Object.entries(systems)) expect(printed(system)).toBe(want);
  });
  it("opens a field with what is stored, short where it can be", () => {
    expect(print.edit("lengthMm", 25.4, "in")).toBe("1");
    expect(print.edit("lengthMm", 31.75, "in")).toBe("1 1/4");
    expect(print.edit("lengthMm", 9.525, "in")).toBe("3/8");
    expect(print.edit("lengthMm", 100, "in")).toBe("3.937");
    expect(print.edit("lengthMm", 86.5, "mm")).toBe("86.5");
    expect(print.edit("thumbLossFraction", 0.08, "mm")).toBe("8");
    expect(print.edit("tempC", 1200, "in")).toBe("2192");
    expect(print.edit("hammerKg", 1.3, "mm")).toBe("1.3");
  });
  it("knows the unit of a name", () => {
    expect(
      ["widthMm", "hammerKg", "tempC", "fuelKgPerH", "carryS", "speedMPerS", "bevelFraction", "atmosphere"].map((n) =>
        print.unit(n, "mm"),
      ),
    ).toEqual(["mm", "kg", "°C", "kg/h", "s", "m/s", "%", ""]);
    expect(print.unit("widthMm", "in")).toBe("in");
  });
  it("knows what is said for a millimetre from a length", () => {
    expect(print.edit("turnsPer100Mm", 7, "in")).toBe("7");
    expect(print.unit("turnsPer100Mm", "in")).toBe("");
    expect(print.unit("holdSPerMm", "in")).toBe("s/mm");
  });
  it("prints second moments", () => {
    expect(print.moment(1234.5, "mm")).toBe("1235 mm⁴");
    expect(print.moment(416231.4256, "in")).toBe("1.00 in⁴");
  });
  it("says durations as one would", () => {
    expect(print.duration(2.44)).toBe("2.4 s");
    expect(print.duration(3.4)).toBe("3 s");
    expect(print.duration(42)).toBe("42 s");
    expect(print.duration(1500)).toBe("25 min");
  });
});

it("a figure is typed and read with the sign that the language has before tenths", () => {
  setDecimal(",");
  try {
    expect(typedMm(12.3456789, 3)).toBe("12,346mm");
    expect(decimalText("12.500")).toBe("12,500");
    expect(print.length(12.5, "mm,comma")).toBe("12,5 mm");
    expect(print.edit("widthMm", 1.234, "mm,comma")).toBe("1,234");
    expect(print.temperature(850, "mm,F,comma")).toBe("1560 °F");
    expect(print.temperature(850, "in,C,comma")).toBe("850 °C");
  } finally {
    setDecimal(".");
  }
  expect(typedMm(12.5)).toBe("12.5mm");
});
