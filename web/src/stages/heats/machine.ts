import { has, told } from "../../text/say";

export const machines = ["none", "striker", "powerHammer", "press", "rollingMill"] as const;
export type MachineKind = Exclude<(typeof machines)[number], "none">;

/** The figures that each machine is described by. */
export const machineFields = {
  striker: ["tupKg", "speedMPerS", "ratePerS", "biteMm"],
  powerHammer: ["tupKg", "speedMPerS", "ratePerS", "biteMm"],
  press: ["forceKN", "speedMPerS", "ratePerS", "biteMm"],
  rollingMill: ["rollMm", "draftMm", "speedMPerS", "ratePerS"],
} as const satisfies Record<MachineKind, readonly string[]>;

/** What a machine's figure is called: a striker has a sledge where a hammer has a tup. */
export const machineLabel = (kind: MachineKind, field: string): string => {
  const own = `field.name.${kind}.${field}`;
  return told(has(own) ? own : `field.name.smith.machine.${field}`);
};

/** The shapes of what a machine strikes with, named as that trade does. */
export const diesOf = (kind: MachineKind): { value: string; label: string }[] =>
  kind === "rollingMill"
    ? []
    : ["flat", "drawing", "crowned"].map((v) => ({
        value: v,
        label: told(`${kind === "striker" ? "striker" : "dies"}.${v}`),
      }));

export const machineNote = (kind: MachineKind): string => {
  const own = `machine.note.${kind}`;
  return told(has(own) ? own : "machine.note");
};

/** A thermal cycle: it comes when all is forged. */
export const isCycle = (kind: string | undefined) => kind === "normalise" || kind === "anneal" || kind === "soften";

/** A thermal cycle or the hardening, as against an operation of the hammer. */
export const isTreatment = (kind: string | undefined) => isCycle(kind) || kind === "harden";
