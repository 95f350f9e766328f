import { useSteels, useStock, useUnits } from "../../api/hooks";
import { glow } from "../../bench/glow";
import { useDraft, useDraftState } from "../../draft/context";
import { type BarForm, barFields, barForms, barSize } from "../../rack/bar";
import { heatColour, say } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { print } from "../../units/print";

/** The bar and its steel: off the rack, or as measured. */
export function StockPanel() {
  const draft = useDraft();
  const { doc, plan } = useDraftState();
  const stock = useStock();
  const steels = useSteels();
  const units = useUnits();
  const bars = (stock.data ?? []).filter((s) => s.bar);
  const form = doc.request.bar.form as BarForm;
  return (
    <div className="grid gap-4">
      <section>
        <h2 className="narrow mb-1.5 border-b border-line text-lg">{say("stock.rack")}</h2>
        {bars.length === 0 && <p className="text-quiet">{say("stock.rackEmpty")}</p>}
        <ul>
          {bars.map((s) => (
            <li key={s.id}>
              <button
                type="button"
                data-stock={s.name}
                aria-pressed={s.id === doc.stockId}
                onClick={() => draft.choose("stockId", s.id)}
                className={`flex min-h-11 w-full items-center gap-3 rounded px-2 py-1 text-left ${s.id === doc.stockId ? "bg-raised text-act" : "hover:bg-raised"}`}
              >
                <BarEnd
                  width={s.piece.widthMm ?? s.piece.sideMm ?? s.piece.diameterMm ?? s.piece.acrossFlatsMm ?? 10}
                  thick={s.piece.thicknessMm ?? s.piece.sideMm ?? s.piece.diameterMm ?? s.piece.acrossFlatsMm ?? 10}
                  round={s.piece.form === "round"}
                />
                <span className="flex-1">
                  <span className="narrow block text-[17px] leading-tight">
                    {s.steelId} · {barSize(s.piece, units)}
                  </span>
                  <span className="block text-sm leading-tight text-quiet">
                    {s.name},{" "}
                    {s.freeMm < 0
                      ? say("rack.over", { length: print.length(-s.freeMm, units) })
                      : say("rack.free", { length: print.length(s.freeMm, units) })}
                  </span>
                </span>
              </button>
            </li>
          ))}
        </ul>
      </section>
      <Group title={say("stock.measured")}>
        <DraftPick
          field="bar.form"
          label={say("field.name.bar.form")}
          options={barForms.map((f) => ({ value: f, label: say(`form.${f}`) }))}
        />
        {(barFields[form] ?? []).map((f) => (
          <DraftField key={f} field={`bar.${f}`} label={say(`field.name.bar.${f}`)} />
        ))}
      </Group>
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
            {say("steel.facts", { carbon: plan.steel.carbonPct.toFixed(2), flow: plan.steel.flowFactor.toFixed(2) })}{" "}
            {say("steel.makersSheet")}
          </p>
        </div>
      </Group>
    </div>
  );
}

/** The end of a bar at its proportions. */
function BarEnd({ width, thick, round }: { width: number; thick: number; round: boolean }) {
  const k = 30 / Math.max(width, thick, 20);
  return (
    <svg width="32" height="32" aria-hidden className="shrink-0">
      {round ? (
        <circle cx="16" cy="16" r={(thick * k) / 2} fill="none" stroke="currentColor" strokeWidth="1.5" />
      ) : (
        <rect
          x={16 - (thick * k) / 2}
          y={16 - (width * k) / 2}
          width={thick * k}
          height={width * k}
          fill="none"
          stroke="currentColor"
          strokeWidth="1.5"
        />
      )}
    </svg>
  );
}

/** The forging window in the colours the eye sees. */
export function Window({ low, soak, high }: { low: number; soak: number; high: number }) {
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
          lowColour: heatColour(low),
          soak: print.temperature(soak, units),
          soakColour: heatColour(soak),
        })}
      </figcaption>
    </figure>
  );
}
