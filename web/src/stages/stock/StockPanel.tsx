import { memo } from "react";
import type { Plan } from "../../api/client";
import { useSteels, useUnits } from "../../api/hooks";
import { glow } from "../../bench/glow";
import { useDraftState } from "../../draft/context";
import { formFields, forms } from "../../rack/forms";
import { heatColour, say } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { print } from "../../units/print";
import { BitPanel } from "./BitPanel";
import { Costs } from "./Costs";
import { Hopes } from "./Hopes";
import { Largest } from "./Largest";
import { OriginPanel } from "./OriginPanel";
import { Ranking } from "./Ranking";

/** The bar and its steel: off the rack in the order it suits, or as measured. */
export function StockPanel() {
  const { doc, plan } = useDraftState();
  const steels = useSteels();
  const units = useUnits();
  const { form } = doc.request.bar;
  return (
    <div className="grid gap-4">
      <Hopes />
      <section>
        <h2 className="narrow mb-1.5 border-b border-line text-lg">{say("rank.title")}</h2>
        <Ranking />
      </section>
      <Group title={say("stock.measured")}>
        <DraftPick
          field="bar.form"
          label={say("field.name.bar.form")}
          options={forms.map((f) => ({ value: f, label: say(`form.${f}`) }))}
        />
        {formFields[form].map((f) => (
          <DraftField key={f} field={`bar.${f}`} label={say(`field.name.bar.${f}`)} />
        ))}
      </Group>
      <OriginPanel />
      <Group title={say("stock.steel")}>
        <div className="col-span-2">
          <DraftPick
            field="steelId"
            label={say("field.name.steelId")}
            options={(steels.data ?? []).map((g) => ({
              value: g.id,
              label: g.name,
              note: `${print.temperature(g.forgeLowC, units)}–${print.temperature(g.forgeHighC, units)}`,
            }))}
          />
          <Window low={plan.totals.lowC} soak={plan.totals.soakC} high={plan.steel.forgeHighC} />
          <p className="mt-1 text-sm text-quiet">
            {say("steel.facts", { alloy: alloyOf(plan.steel) })} {resists(plan.steel.flowFactor)}{" "}
            {plan.steel.standard && say("steel.standard", { standard: plan.steel.standard })} {say("steel.makersSheet")}
          </p>
        </div>
      </Group>
      <BitPanel />
      <Largest />
      <Costs />
    </div>
  );
}

/** The forging window in the colours the eye sees. */
export const Window = memo(function Window({ low, soak, high }: { low: number; soak: number; high: number }) {
  const units = useUnits();
  const from = 650;
  const to = 1300;
  const at = (c: number) => `${((c - from) / (to - from)) * 100}%`;
  const stops = [650, 730, 790, 850, 920, 980, 1050, 1120, 1180, 1250, 1300];
  return (
    <figure className="mt-2" aria-label={say("window.name")}>
      <div
        className="relative h-5 rounded-sm"
        style={{ background: `linear-gradient(90deg, ${stops.map((c) => `${glow(c)} ${at(c)}`).join(", ")})` }}
      >
        <span className="absolute inset-y-0 left-0 bg-plate/75" style={{ width: at(low) }} />
        <span className="absolute inset-y-0 right-0 bg-plate/75" style={{ left: at(high) }} />
        <span className="absolute -top-1 -bottom-1 w-0.5 bg-chalk" style={{ left: at(low) }} />
        <span className="absolute -top-1 -bottom-1 w-0.5 bg-chalk" style={{ left: at(soak) }} />
      </div>
      <figcaption className="mt-1 text-sm">
        {say("window.says", {
          low: print.temperature(low, units),
          lowColour: heatColour(low, units),
          soak: print.temperature(soak, units),
          soakColour: heatColour(soak, units),
        })}
      </figcaption>
    </figure>
  );
});

const elements = [
  ["C", "carbonPct"],
  ["Mn", "manganesePct"],
  ["Si", "siliconPct"],
  ["Ni", "nickelPct"],
  ["Cr", "chromiumPct"],
  ["Mo", "molybdenumPct"],
  ["V", "vanadiumPct"],
  ["Cu", "copperPct"],
] as const;

/** What a steel is made of beside iron. */
const alloyOf = (g: Plan["steel"]) =>
  elements
    .filter(([, key]) => g[key])
    .map(([symbol, key]) => `${symbol} ${g[key]}`)
    .join(", ");

/** How much harder it is to move than plain steel, where it is. */
function resists(flow: number): string {
  const by = Math.round(Math.abs(flow - 1) * 100);
  return by === 0 ? "" : say(flow > 1 ? "steel.harder" : "steel.easier", { by });
}
