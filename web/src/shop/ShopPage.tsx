import { Plus, Trash2 } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { AccessPanel } from "../access/AccessPanel";
import { type FieldMessage, Refused, type Settings } from "../api/client";
import { useEditShop, useShop } from "../api/hooks";
import { ShelfPanel } from "../shelf/ShelfPanel";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { gripMaterials } from "../stages/blade/materials";
import { diesOf, machineFields, machineLabel, machines } from "../stages/heats/machine";
import { languages, nameOf, spoken } from "../text/language";
import { say, told } from "../text/say";
import { Group } from "../ui/Group";
import { Pick } from "../ui/Pick";
import { Typed } from "../ui/Typed";
import { CopiesPanel } from "./CopiesPanel";

const smithFields = ["hammerKg", "faceMm", "peenBiteMm", "peenLengthMm"] as const;
const tongsFields = ["leastMm", "mostMm", "wideMm"] as const;
const bathFields = ["warmC", "volumeL", "longMm", "severityPerIn"] as const;
const ovenFields = ["swingK", "longMm", "mostC", "holds"] as const;
const blockFields = ["lengthMm", "heightMm", "widthMm", "count"] as const;
const bathClasses = ["mediumOil", "fastOil", "veryFastOil", "stillOil", "water", "brine", "plates"];
const fireFields = ["tempC", "hotLengthMm", "fuelKgPerH", "atmosphere"] as const;

/** Units, paper, the smiths of the shop and the forge. */
export function ShopPage() {
  useTitle(say("nav.shop"));
  const shop = useShop();
  if (shop.isPending) return <Loading />;
  if (shop.isError) return <Failed error={shop.error} retry={() => void shop.refetch()} />;
  return <ShopForm shop={shop.data} />;
}

/** Goes to the field that ?at= names, and into it. */
function useField() {
  const [search] = useSearchParams();
  const field = search.get("at");
  useEffect(() => {
    if (!field) return;
    const at = document.querySelector<HTMLElement>(
      `main [data-field="${CSS.escape(field)}"], main [data-add="${CSS.escape(field)}"]`,
    );
    for (let d = at?.closest("details"); d; d = d.parentElement?.closest("details") ?? null) d.open = true;
    at?.scrollIntoView({ block: "center" });
    (at?.matches("[data-add]") ? at.querySelector("button") : at)?.focus();
  }, [field]);
}

function ShopForm({ shop }: { shop: Settings }) {
  useField();
  const edit = useEditShop();
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [errors, setErrors] = useState<Record<string, FieldMessage>>({});
  const drop = (field: string) => {
    setTexts(({ [field]: _, ...rest }) => rest);
    setErrors(({ [field]: _, ...rest }) => rest);
  };
  const send = async (field: string, text: string) => {
    try {
      await edit.mutateAsync([{ field, text, units: shop.system }]);
      drop(field);
    } catch (e) {
      const f = e instanceof Refused ? e.problem.fields?.[0] : undefined;
      setErrors((x) => ({
        ...x,
        [field]: f ?? { field, code: "", message: e instanceof Error ? e.message : say("ui.offline"), offset: -1 },
      }));
    }
  };
  const typed = (field: string, value: number | string, label: string, hint?: string) => (
    <Typed
      key={field}
      hint={hint}
      field={field}
      value={value}
      label={label}
      text={texts[field]}
      error={errors[field]}
      onType={(t) => setTexts((x) => ({ ...x, [field]: t }))}
      onRevert={() => drop(field)}
      onDone={() => texts[field] !== undefined && void send(field, texts[field])}
    />
  );
  const pick = (field: string, value: string, label: string, options: string[], prefix: string) => (
    <Pick
      label={label}
      field={field}
      value={value}
      options={options.map((o) => ({ value: o, label: told(`${prefix}.${o}`) }))}
      onPick={(v) => void send(field, v)}
      error={errors[field]?.message}
    />
  );
  /** Tools of one kind: each with its figures, and the usual ones to add. */
  const set = <K extends string, T extends { [P in K]?: number } & { name: string }>(
    name: "hammers" | "hearths" | "tongs" | "baths" | "ovens" | "blocks",
    adding: string,
    tools: T[],
    fields: readonly K[],
    labels: string,
    usual: string[],
    prefix: string,
    choice?: (i: number, tool: T) => ReactNode,
    shows?: (tool: T, field: K) => boolean,
  ) => (
    <section>
      <h2 className="mt-8 mb-3 text-2xl">{say(`shop.${name}`)}</h2>
      <div className="grid max-w-5xl gap-8 sm:grid-cols-2 lg:grid-cols-3">
        {tools.map((tool, i) => (
          <Group key={tool.name} title={tool.name}>
            {typed(`${name}.${i}.name`, tool.name, say("shop.toolName"))}
            {choice?.(i, tool)}
            {fields
              .filter((k) => shows?.(tool, k) ?? true)
              .map((k) => typed(`${name}.${i}.${k}`, tool[k] ?? 0, told(`field.name.${labels}.${k}`)))}
            <button
              type="button"
              className="press press-plain self-end justify-self-start"
              onClick={() => void send(`${name}.remove`, String(i))}
            >
              <Trash2 size={16} aria-hidden /> {say("shop.remove", { name: tool.name })}
            </button>
          </Group>
        ))}
      </div>
      <div className="mt-4 flex flex-wrap items-center gap-2" data-add={`${name}.add`}>
        <span className="text-quiet">{told(adding)}:</span>
        {usual.map((k) => (
          <button key={k} type="button" className="press" onClick={() => void send(`${name}.add`, k)}>
            <Plus size={16} aria-hidden /> {told(`${prefix}.${k}`)}
          </button>
        ))}
      </div>
    </section>
  );
  const f = shop.fire;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6">
      <div className="mb-4 flex flex-wrap items-end gap-4">
        <h1 className="mr-auto text-3xl">{say("nav.shop")}</h1>
        <Link className="press" to="/hour" data-testid="to-hour">
          {say("hour.title")}
        </Link>
        <Link className="press" to="/learned" data-testid="to-learned">
          {say("learned.title")}
        </Link>
        <Link className="press" to="/book" data-testid="to-book">
          {say("book.title")}
        </Link>
      </div>
      <div className="grid max-w-5xl gap-8 lg:grid-cols-2">
        <Group title={say("shop.looks")}>
          {pick("units", shop.units, say("shop.units"), ["mm", "in"], "units")}
          {pick("fraction", String(shop.fraction), say("shop.fraction"), ["32", "64"], "fraction")}
          {pick("temperature", shop.temperature, say("shop.temperature"), ["C", "F"], "temperature")}
          {pick("heatWords", shop.heatWords, say("shop.heatWords"), ["usual", "sooner"], "heatWords")}
          <Pick
            label={say("shop.language")}
            value={shop.language || spoken()}
            options={languages.map((l) => ({ value: l, label: nameOf(l) }))}
            onPick={(v) => void send("language", v)}
            field="language"
            error={errors.language?.message}
          />
          {pick("theme", shop.theme, say("shop.theme"), ["night", "day", "system"], "theme")}
          {pick("paper", shop.paper, say("shop.paper"), ["a4", "letter"], "paper")}
        </Group>
        <Group title={say("heats.fire")}>
          {typed("fire.tempC", f.tempC, say("field.name.fire.tempC"))}
          {typed("fire.hotLengthMm", f.hotLengthMm, say("field.name.fire.hotLengthMm"))}
          {typed("fire.carryS", f.carryS, say("field.name.fire.carryS"))}
          {typed("fire.brushS", f.brushS, say("field.name.fire.brushS"))}
          {typed("fire.fuelKgPerH", f.fuelKgPerH, say("field.name.fire.fuelKgPerH"))}
          {typed("fire.atmosphere", f.atmosphere, say("field.name.fire.atmosphere"))}
        </Group>
        <Group title={say("money.title")}>
          {typed("prices.steelPrice", shop.prices.steelPrice ?? 0, say("field.name.prices.steelPrice"))}
          {typed("prices.fuelPrice", shop.prices.fuelPrice ?? 0, say("field.name.prices.fuelPrice"))}
          {typed("prices.hourPrice", shop.prices.hourPrice ?? 0, say("field.name.prices.hourPrice"))}
          {typed("hoursPerWeek", shop.hoursPerWeek, say("field.name.hoursPerWeek"))}
          <p className="col-span-2 text-sm text-quiet">{say("money.note")}</p>
        </Group>
        {shop.smiths.map((h, i) => (
          <Group key={h.name} title={h.name}>
            {typed(`smiths.${i}.name`, h.name, say("shop.smithName"))}
            {pick(`smiths.${i}.skill`, h.skill, say("new.sure"), ["learning", "steady", "sure"], "skill")}
            {typed(`smiths.${i}.hammerKg`, h.hammerKg, say("field.name.smith.hammerKg"))}
            {typed(`smiths.${i}.faceMm`, h.faceMm, say("field.name.smith.faceMm"))}
            {typed(`smiths.${i}.peenBiteMm`, h.peenBiteMm, say("field.name.smith.peenBiteMm"))}
            {typed(`smiths.${i}.peenLengthMm`, h.peenLengthMm, say("field.name.smith.peenLengthMm"))}
            {typed(`smiths.${i}.anvilKg`, h.anvilKg, say("field.name.smith.anvilKg"))}
            {pick(
              `smiths.${i}.machine`,
              h.machine?.kind ?? "none",
              say("field.name.smith.machine"),
              [...machines],
              "machine",
            )}
            {h.machine && diesOf(h.machine.kind).length > 0 && (
              <Pick
                label={machineLabel(h.machine.kind, "dies")}
                value={h.machine.dies}
                options={diesOf(h.machine.kind)}
                onPick={(v) => void send(`smiths.${i}.machine.dies`, v)}
              />
            )}
            {h.machine &&
              machineFields[h.machine.kind].map((f) =>
                typed(`smiths.${i}.machine.${f}`, h.machine?.[f] ?? 0, h.machine ? machineLabel(h.machine.kind, f) : f),
              )}
            {shop.smiths.length > 1 && (
              <button
                type="button"
                className="press press-plain justify-self-start"
                onClick={() => void send("smiths.remove", String(i))}
              >
                <Trash2 size={16} aria-hidden /> {say("shop.removeSmith", { name: h.name })}
              </button>
            )}
          </Group>
        ))}
        <div>
          <button
            type="button"
            className="press"
            onClick={() => void send("smiths.add", `${say("shop.newSmith")} ${shop.smiths.length + 1}`)}
          >
            <Plus size={16} aria-hidden /> {say("shop.addSmith")}
          </button>
        </div>
      </div>
      {set("hammers", "shop.addHammer", shop.hammers, smithFields, "smith", ["light", "usual", "heavy"], "hammer")}
      {set(
        "hearths",
        "shop.addHearth",
        shop.hearths,
        fireFields,
        "fire",
        ["gas", "largeGas", "charcoal", "coke", "pit"],
        "hearth",
      )}
      {set(
        "tongs",
        "shop.addTongs",
        shop.tongs,
        tongsFields,
        "tongs",
        ["thin", "thick", "box", "vee"],
        "tongs",
        (i, t) => pick(`tongs.${i}.jaw`, t.jaw, say("field.name.tongs.jaw"), ["flatJaw", "boxJaw", "veeJaw"], "tongs"),
        (t, k) => k !== "wideMm" || t.jaw === "boxJaw",
      )}
      {set(
        "baths",
        "shop.addBath",
        shop.baths,
        bathFields,
        "baths",
        ["mediumOil", "fastOil", "veryFastOil", "water", "brine", "plates"],
        "bath",
        (i, b) => pick(`baths.${i}.class`, b.class, say("field.name.baths.class"), bathClasses, "bath"),
        (b, k) => k !== "volumeL" || b.class !== "plates",
      )}
      {set(
        "ovens",
        "shop.addOven",
        shop.ovens,
        ovenFields,
        "ovens",
        ["kitchen", "sand", "kiln", "oilBath"],
        "oven",
        (i, o) => (
          <>
            {pick(`ovens.${i}.way`, o.way, say("field.name.ovens.way"), ["oven", "sand", "oilBath"], "way")}
            {pick(`ovens.${i}.kiln`, o.kiln ? "yes" : "no", say("field.name.ovens.kiln"), ["no", "yes"], "kiln")}
          </>
        ),
      )}
      {set(
        "blocks",
        "shop.addBlock",
        shop.blocks,
        blockFields,
        "blocks",
        ["block", "scales", "long"],
        "block",
        (i, b) =>
          pick(`blocks.${i}.material`, b.material, say("field.name.blocks.material"), gripMaterials, "material"),
      )}
      <AccessPanel />
      <ShelfPanel />
      <CopiesPanel
        fields={
          <>
            {typed("copies.folder", shop.copies.folder, say("field.name.copies.folder"), say("copies.beside"))}
            {typed("copies.keep", shop.copies.keep, say("field.name.copies.keep"))}
          </>
        }
      />
      <p className="mt-8 max-w-3xl border-t border-line pt-3 text-quiet">{say("caution.general")}</p>
    </div>
  );
}
