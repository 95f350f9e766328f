/** The figures that each machine is described by. */
export const machineFields = {
  powerHammer: ["tupKg", "speedMPerS", "ratePerS", "biteMm"],
  press: ["forceKN", "speedMPerS", "ratePerS", "biteMm"],
} as const;
