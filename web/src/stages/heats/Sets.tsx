import type { Plan, Settings } from "../../api/client";
import { useShop } from "../../api/hooks";
import { useDraftPart } from "../../draft/context";
import { told } from "../../text/say";
import { DraftPick } from "../../ui/DraftField";

const hammerKeys = ["hammerKg", "faceMm", "peenBiteMm", "peenLengthMm"] as const;
const hearthKeys = ["tempC", "atmosphere", "hotLengthMm", "fuelKgPerH"] as const;

/** Whether two tools have the same figures. */
const alike = (a: object, b: object, keys: readonly string[]) =>
  keys.every((k) => (a as Record<string, unknown>)[k] === (b as Record<string, unknown>)[k]);

const only = (a: object, keys: readonly string[]) =>
  JSON.stringify(Object.fromEntries(keys.map((k) => [k, (a as Record<string, unknown>)[k]])));

/** A tool as it is sent to be taken up. */
export const hammerText = (h: object) => only(h, hammerKeys);
export const hearthText = (h: object) => only(h, hearthKeys);
export const handText = ({ name: _, ...rest }: Settings["smiths"][number]) => JSON.stringify(rest);

/** One of the shop's set, taken up whole. */
function TakeUp({
  field,
  own,
  set,
}: {
  field: string;
  own: string;
  set: { name: string; text: string; on: boolean }[];
}) {
  const on = set.find((x) => x.on);
  if (set.length === 0) return null;
  return (
    <DraftPick
      field={field}
      label={told(`field.name.${field}`)}
      value={on ? on.text : own}
      options={[
        ...(on ? [] : [{ value: own, label: told(own) }]),
        ...set.map((x) => ({ value: x.text, label: x.name })),
      ]}
    />
  );
}

/** The shop's smiths and hammers, to work this piece with. */
export function HandAndHammer() {
  const smith = useDraftPart((s) => s.doc.request.smith);
  const shop = useShop().data as Settings | undefined;
  if (!shop) return null;
  return (
    <>
      <TakeUp
        field="smith.hand"
        own="hand.own"
        set={shop.smiths.map((h) => ({ name: h.name, text: handText(h), on: sameHand(h, smith) }))}
      />
      <TakeUp
        field="smith.hammer"
        own="hammer.own"
        set={shop.hammers.map((h) => ({ name: h.name, text: hammerText(h), on: alike(h, smith, hammerKeys) }))}
      />
    </>
  );
}

function sameHand(a: Settings["smiths"][number], b: object): boolean {
  const { name: _, machine, ...rest } = a;
  return alike(rest, b, Object.keys(rest)) && JSON.stringify(machine) === JSON.stringify((b as typeof a).machine);
}

/** The shop's forges. */
export function Hearth() {
  const fire = useDraftPart((s) => s.doc.request.fire);
  const shop = useShop().data;
  if (!shop) return null;
  return (
    <TakeUp
      field="fire.hearth"
      own="hearth.own"
      set={shop.hearths.map((h) => ({ name: h.name, text: hearthText(h), on: alike(h, fire, hearthKeys) }))}
    />
  );
}

const bathKeys = ["class", "severityPerIn", "volumeL", "warmC", "longMm"] as const;
const ovenKeys = ["way", "swingK", "longMm", "mostC", "holds", "kiln"] as const;

/** The shop's tanks. */
export function Tank({ bath }: { bath: object }) {
  const shop = useShop().data;
  if (!shop) return null;
  return (
    <TakeUp
      field="treatment.tank"
      own="bath.own"
      set={shop.baths.map((b) => ({ name: b.name, text: only(b, bathKeys), on: alike(b, bath, bathKeys) }))}
    />
  );
}

/** The shop's ovens, told by what a treatment keeps of them. */
export function Oven({ t }: { t?: { way?: string; swingK: number; ovenMm?: number; ovenMostC?: number } }) {
  const shop = useShop().data;
  if (!shop) return null;
  const on = (o: Settings["ovens"][number]) =>
    t !== undefined &&
    (t.way ?? "oven") === o.way &&
    t.swingK === o.swingK &&
    (t.ovenMm ?? 0) === (o.longMm ?? 0) &&
    (t.ovenMostC ?? 0) === (o.mostC ?? 0);
  return (
    <TakeUp
      field="treatment.oven"
      own="oven.own"
      set={shop.ovens.map((o) => ({ name: o.name, text: only(o, ovenKeys), on: on(o) }))}
    />
  );
}

/** The shop's handle material. */
export function Kept() {
  const shop = useShop().data;
  const block = useDraftPart((s) => s.doc.request.finish?.block);
  if (!shop || shop.blocks.length === 0) return null;
  return (
    <TakeUp
      field="finish.kept"
      own="block.own"
      set={shop.blocks.map((b) => ({
        name: b.name,
        text: only(b, ["material", "count", "lengthMm", "heightMm", "widthMm"]),
        on: block !== undefined && alike(b, block, ["lengthMm", "heightMm", "widthMm"]),
      }))}
    />
  );
}

const anvils = ["anvil", "block", "rail", "stone"] as const satisfies readonly NonNullable<Plan["anvil"]>[];

/** What is worked on: an anvil, or what stands in for one. */
export function WorkedOn() {
  const on = useDraftPart((s) => s.plan.anvil) || "own";
  return (
    <DraftPick
      field="smith.anvil"
      label={told("field.name.smith.anvil")}
      value={on}
      options={[...(on === "own" ? [on] : []), ...anvils].map((v) => ({ value: v, label: told(`anvil.${v}`) }))}
    />
  );
}
