import { expect, it } from "vitest";
import { rank, settings, sought } from "./found";

const of = (label: string, also = "") => ({ id: label, label, kind: "", also });

it("what begins with the letters comes first, then words that do, then what has them, then what says them elsewhere", () => {
  const all = [of("Scale", "loss to the fire"), of("Refire"), of("Edge, fire side"), of("Fire")];
  expect(sought(all, "fire").map((f) => f.label)).toEqual(["Fire", "Edge, fire side", "Refire", "Scale"]);
  expect(sought(all, "")).toHaveLength(4);
  expect(rank(of("Fire"), "anvil")).toBeUndefined();
});

it("letters with and without their marks are the same", () => {
  expect(rank(of("Cuchillo pequeño"), "pequeno")).toBe(1);
  expect(rank(of("calda", "sección"), "SECCION calda")).toBe(3);
});

it("every setting is found, once", () => {
  const all = settings();
  expect(all.length).toBeGreaterThan(20);
  expect(new Set(all.map((f) => f.id)).size).toBe(all.length);
  for (const f of all) expect(f.label).not.toMatch(/^(field|shop)\./);
});
