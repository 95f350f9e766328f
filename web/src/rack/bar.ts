import type { StockPiece } from "../api/client";
import { say } from "../text/say";
import { print, type System } from "../units/print";

export const barForms = ["flat", "square", "round", "hex", "octagon"] as const;
export type BarForm = (typeof barForms)[number];

/** The figures that describe a bar of this form. */
export const barFields: Record<
  BarForm,
  ("widthMm" | "thicknessMm" | "sideMm" | "diameterMm" | "acrossFlatsMm" | "lengthMm")[]
> = {
  flat: ["widthMm", "thicknessMm", "lengthMm"],
  square: ["sideMm", "lengthMm"],
  round: ["diameterMm", "lengthMm"],
  hex: ["acrossFlatsMm", "lengthMm"],
  octagon: ["acrossFlatsMm", "lengthMm"],
};

/** "flat 25 × 5 mm" */
export function barSize(p: StockPiece, units: System): string {
  const one = (v: number | undefined) => print.length(v ?? 0, units).replace(/ (mm|in)$/, "");
  switch (p.form) {
    case "flat":
      return `${one(p.widthMm)} × ${print.length(p.thicknessMm ?? 0, units)}`;
    case "square":
      return `${one(p.sideMm)} × ${print.length(p.sideMm ?? 0, units)}`;
    case "round":
      return `ø ${print.length(p.diameterMm ?? 0, units)}`;
    default:
      return `${say(`form.${p.form}`)} ${print.length(p.acrossFlatsMm ?? 0, units)}`;
  }
}
