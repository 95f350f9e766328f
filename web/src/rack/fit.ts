import type { FittingPattern } from "../api/client";
import { say } from "../text/say";
import { print, type System } from "../units/print";

/** Whether a pattern comes of a piece of stock, in words. */
export function fitWords(f: FittingPattern, units: System): string {
  if (f.feasible) return say(f.looked ? "rack.fitsUses" : "rack.fitsAbout", { share: (f.usedShare * 100).toFixed(0) });
  if (f.factor > 0)
    return say("rack.fitsScaled", { share: (f.factor * 100).toFixed(0), length: print.length(f.lengthMm, units) });
  return say(f.looked ? "rack.fitsNot" : "rack.fitsNotAsked");
}
