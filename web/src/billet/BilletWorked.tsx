import { say, told } from "../text/say";
import { Group } from "../ui/Group";
import type { Recipe, TypedIn } from "./BilletSteps";

type Option = { value: string; label: string };
const patterns = ["straight", "twist", "ladder", "pressed", "dimple", "endGrain", "mosaic", "cable", "chain"] as const;
const patternFields: Record<string, readonly string[]> = {
  straight: [],
  twist: ["turnsPer100Mm"],
  ladder: ["pitchMm", "depthMm", "halfWidthMm"],
  pressed: ["pitchMm", "depthMm", "halfWidthMm"],
  dimple: ["pitchMm", "depthMm", "radiusMm"],
  endGrain: ["sliceMm", "turnsPer100Mm"],
  mosaic: ["sliceMm", "fours", "turnsPer100Mm"],
  cable: ["fill.cableMm", "fill.wireMm", "fill.rimShare", "turnsPer100Mm"],
  chain: ["fill.linkBarMm", "fill.linkMm", "fill.linkWideMm", "fill.canMm", "fill.across", "fill.up"],
};
const turning: readonly string[] = ["twist", "endGrain", "mosaic", "cable"];

/** A figure of the recipe by its dotted name; 0 where it is not said. */
function figure(r: Recipe, field: string): number {
  let at: unknown = r;
  for (const part of field.split(".")) at = (at as Record<string, unknown> | undefined)?.[part];
  return Number(at ?? 0);
}

/** The pattern that is worked into the bar, the bars beside each other, and the steel of the edge. */
export function BilletWorked({
  r,
  typed,
  pick,
  grades,
}: {
  r: Recipe;
  typed: TypedIn;
  pick: (field: string, value: string, label: string, options: Option[]) => React.ReactNode;
  grades: Option[];
}) {
  const words = (values: readonly string[], prefix: string) =>
    values.map((v) => ({ value: v, label: told(`${prefix}.${v}`) }));
  const ends = r.pattern === "endGrain" || r.pattern === "mosaic";
  return (
    <Group title={say("billet.worked")}>
      {pick("pattern", r.pattern, say("billet.worked"), words(patterns, "pattern"))}
      {turning.includes(r.pattern) &&
        (r.turnsPer100Mm ?? 0) > 0 &&
        pick("hand", r.hand || "right", say("field.billet.hand"), words(["right", "left"], "hand"))}
      {(patternFields[r.pattern] ?? []).map((f) =>
        typed(f, figure(r, f), told(`field.billet.${f.replace("fill.", "")}`)),
      )}
      {r.pattern === "mosaic" &&
        pick("onCorner", r.onCorner ? "yes" : "no", say("billet.onCorner"), words(["no", "yes"], "yesno"))}
      {typed("beside", Math.max(1, r.beside ?? 1), say(ends ? "billet.rows" : "billet.beside"))}
      {(r.beside ?? 1) > 1 &&
        r.pattern === "twist" &&
        pick("alternate", r.alternate ? "yes" : "no", say("billet.alternates"), words(["no", "yes"], "yesno"))}
      {pick("edgeSteelId", r.edgeSteelId || "none", say("billet.edge"), [
        { value: "none", label: say("billet.edge.none") },
        ...grades,
      ])}
      {r.edgeSteelId && (
        <>
          {pick(
            "edgeWay",
            r.edgeWay || "below",
            say("billet.edgeWay"),
            words(["below", "wrapped", "cleft"], "edgeWay"),
          )}
          {typed("edgeMm", r.edgeMm ?? 0, say(r.edgeWay ? "billet.edgeUp" : "billet.edgeMm"))}
          {r.edgeWay && typed("edgeThickMm", r.edgeThickMm ?? 0, told(`billet.edgeThick.${r.edgeWay}`))}
        </>
      )}
    </Group>
  );
}
