import type { Plan } from "../../api/client";
import { say } from "../../text/say";
import { isTreatment } from "./machine";

/** Which of its kind a trip to the fire is: heats of forging, cycles after it and the hardening are counted apart. */
export interface Counted {
  kind: "heat" | "cycle" | "harden";
  n: number;
  of: number;
}

/** Every trip in order, as list, rail and step view count it. */
export function counted(plan: Plan): Counted[] {
  const kindOf = new Map(plan.operations.map((o) => [o.id, o.kind]));
  const kinds = plan.heats.map((h) => {
    const kind = kindOf.get(h.parts[0]?.operation ?? "");
    if (kind === "harden") return kind;
    return isTreatment(kind) ? ("cycle" as const) : ("heat" as const);
  });
  const n = { heat: 0, cycle: 0, harden: 0 };
  return kinds.map((kind) => {
    n[kind]++;
    return { kind, n: n[kind], of: kinds.filter((k) => k === kind).length };
  });
}

/** "Heat 4 of 13", "Cycle 1 of 3". */
export function heatName(plan: Plan, number: number): string {
  const c = counted(plan)[number - 1];
  if (!c) return "";
  if (c.kind === "harden") return say("op.harden");
  return say(c.kind === "cycle" ? "heats.cycleOf" : "heats.heatOf", { n: c.n, of: c.of });
}
