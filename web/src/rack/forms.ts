import type { StockItem } from "../api/client";
import { say } from "../text/say";
import { print, type System } from "../units/print";

export const barForms = ["flat", "square", "round", "hex", "octagon"] as const;
export type BarForm = (typeof barForms)[number];
export type Form = StockItem["form"];

/** Every form, bars first; a tube is there to be refused by name. */
export const forms: Form[] = [
  ...barForms,
  "ball",
  "roller",
  "taperedRound",
  "taperedFlat",
  "coil",
  "leaf",
  "race",
  "disc",
  "cable",
  "chain",
  "layers",
  "tube",
];

type Figure = Exclude<keyof StockItem, "form" | "layers" | "holes" | "dead" | "$schema">;

/** The figures that describe a piece of this form, as one measures it in the shop. */
export const formFields: Record<Form, Figure[]> = {
  flat: ["widthMm", "thicknessMm", "lengthMm"],
  square: ["sideMm", "lengthMm"],
  round: ["diameterMm", "lengthMm"],
  hex: ["acrossFlatsMm", "lengthMm"],
  octagon: ["acrossFlatsMm", "lengthMm"],
  ball: ["diameterMm"],
  roller: ["diameterMm", "lengthMm"],
  taperedRound: ["startDiameterMm", "endDiameterMm", "lengthMm"],
  taperedFlat: [
    "startWidthMm",
    "endWidthMm",
    "startThicknessMm",
    "endThicknessMm",
    "lengthMm",
    "teethMm",
    "bendRadiusMm",
  ],
  coil: ["wireDiameterMm", "meanDiameterMm", "pitchMm", "turns"],
  leaf: ["widthMm", "thicknessMm", "chordMm", "riseMm"],
  race: ["outerDiameterMm", "innerDiameterMm", "widthMm"],
  disc: ["diameterMm", "thicknessMm", "innerDiameterMm", "shareFraction", "stripWidthMm"],
  cable: ["diameterMm", "lengthMm", "solidFraction"],
  chain: ["wireDiameterMm", "linkLengthMm", "linkWidthMm", "links"],
  layers: ["widthMm", "lengthMm"],
  tube: ["diameterMm", "wallMm", "lengthMm"],
};

export const isBar = (f: Form): f is BarForm => (barForms as readonly string[]).includes(f);

/** What a piece measures across: "25 × 5 mm". */
export function barSize(p: StockItem, units: System): string {
  const one = (v: number | undefined) => print.length(v ?? 0, units).replace(/ (mm|in)$/, "");
  const last = (v: number | undefined) => print.length(v ?? 0, units);
  switch (p.form) {
    case "flat":
    case "leaf":
      return `${one(p.widthMm)} × ${last(p.thicknessMm)}`;
    case "square":
      return `${one(p.sideMm)} × ${last(p.sideMm)}`;
    case "round":
    case "ball":
    case "cable":
    case "tube":
      return `ø ${last(p.diameterMm)}`;
    case "roller":
      return `ø ${one(p.diameterMm)} × ${last(p.lengthMm)}`;
    case "disc":
      return `ø ${one(p.diameterMm)} × ${last(p.thicknessMm)}`;
    case "taperedRound":
      return `ø ${one(p.startDiameterMm)}–${last(p.endDiameterMm)}`;
    case "taperedFlat":
      return `${one(p.startWidthMm)} × ${last(p.startThicknessMm)}`;
    case "coil":
    case "chain":
      return `ø ${last(p.wireDiameterMm)}`;
    case "race":
      return `ø ${one(p.outerDiameterMm)} × ${last(p.widthMm)}`;
    case "layers":
      return `${one(p.widthMm)} × ${last((p.layers ?? []).reduce((t, l) => t + l.count * l.thicknessMm, 0))}`;
    default:
      return `${say(`form.${p.form}`)} ${last(p.acrossFlatsMm)}`;
  }
}
