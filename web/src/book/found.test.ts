import { expect, test } from "vitest";
import { found, type Progress } from "./found";

const day = (d: string) => new Date(`${d}T12:00`).getTime();
const entry: Progress = {
  phase: "finished",
  step: 9,
  steps: 9,
  trips: 12,
  heats: 12,
  sittings: 2,
  startedMs: day("2026-10-20"),
  lastMs: day("2026-10-22"),
  faults: ["bent"],
  blows: 300,
  lastsS: 4000,
  steelId: "80CrV2",
  hand: "Yard hand",
  name: "Rigging knife",
};

test("a session is found by any of its words, in any order", () => {
  for (const words of ["", "rigging", "knife yard", "80crv2", "BENT", "second"])
    expect(found(entry, "80CrV2", { words, from: "", to: "" }), words).toBe(words !== "second");
});

test("a session is found by any day of it", () => {
  const on = (from: string, to: string) => found(entry, "80CrV2", { words: "", from, to });
  expect(on("2026-10-22", "")).toBe(true);
  expect(on("2026-10-23", "")).toBe(false);
  expect(on("", "2026-10-20")).toBe(true);
  expect(on("", "2026-10-19")).toBe(false);
  expect(on("2026-10-21", "2026-10-21")).toBe(true);
});
