/** The figures that each machine is described by. */
export const machineFields = {
  powerHammer: ["tupKg", "speedMPerS", "ratePerS", "biteMm"],
  press: ["forceKN", "speedMPerS", "ratePerS", "biteMm"],
} as const;

/** A thermal cycle, as against an operation of the hammer. */
export const isCycle = (kind: string | undefined) => kind === "normalise" || kind === "anneal";
