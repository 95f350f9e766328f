import { Link } from "react-router";
import type { Zone } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { Term } from "../../ui/Term";
import { cutOf } from "../../units/cut";
import { print } from "../../units/print";
import { CutState } from "./CutState";
import { DownMarks, PrepList } from "./DownMarks";
import { SureLengths } from "./SureLengths";

/** Where to cut and where to chalk. */
export function CutPanel({ selected, onSelect }: { selected?: Zone; onSelect: (zone: Zone | undefined) => void }) {
  const { plan, doc } = useDraftState();
  const units = useUnits();
  const lump = doc.request.bar.form === "ball";
  const start = doc.request.choices.start || "bar";
  const whole = doc.request.choices.holding !== "tongs" && start === "bar";
  return (
    <div className="grid gap-4">
      <section>
        <p className="text-quiet">{say(lump ? "cut.weigh" : whole ? "card.cutLast" : "card.cut")}</p>
        <p className="narrow flex items-baseline gap-2 text-4xl text-act">
          <span data-testid="cut-length">{cutOf(plan, doc.request.bar.form, units)}</span>
        </p>
        {!lump && <SureLengths />}
        <CutState />
        {lump ? null : (
          <table className="mt-3 w-full">
            <caption className="narrow mb-1 border-b border-line text-left text-lg">
              <Term code="chalk">{say("cut.marks")}</Term>
            </caption>
            <tbody className="narrow text-[17px]">
              {plan.bar.marks.map((m) => (
                <tr key={m.zone} className={selected === m.zone ? "text-act" : ""}>
                  <th scope="row" className="py-1 text-left font-medium">
                    <button
                      type="button"
                      aria-pressed={selected === m.zone}
                      onClick={() => onSelect(selected === m.zone ? undefined : m.zone)}
                      className="flex items-center gap-2"
                    >
                      <span
                        className="inline-block h-4 w-4 rounded-sm text-center text-xs"
                        style={{ background: `var(--zone-${m.zone})` }}
                        aria-hidden
                      />
                      {say(`zone.${m.zone}`)}
                    </button>
                  </th>
                  <td className="text-right text-quiet">{print.length(m.toMm - m.fromMm, units)}</td>
                  <td className="pl-3 text-right" data-mark-at={m.zone}>
                    {print.length(m.toMm, units)}
                    {print.rest(m.toMm, units) && (
                      <span className="ml-1 text-sm text-quiet">{print.rest(m.toMm, units)}</span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {!lump && <p className="mt-1 text-sm text-quiet">{say("cut.marksNote")}</p>}
        {plan.bar.down && <DownMarks down={plan.bar.down} />}
      </section>
      {plan.prep.length > 0 && <PrepList />}
      <Group title={say("cut.loss")} term="scale">
        <DraftPick
          field="sizing.lossMode"
          label={say("field.name.sizing.lossMode")}
          options={["computed", "thumb"].map((v) => ({ value: v, label: told(`loss.${v}`) }))}
        />
        {doc.request.sizing.lossMode === "thumb" ? (
          <DraftField field="sizing.thumbLossFraction" label={say("field.name.sizing.thumbLossFraction")} />
        ) : (
          <p className="self-end pb-1 text-sm text-quiet">
            {say("cut.scaleShare", { share: (plan.bar.scaleShare * 100).toFixed(1) })}
          </p>
        )}
        <DraftField field="sizing.trimMm" label={say("field.name.sizing.trimMm")} />
        <DraftField field="sizing.kerfMm" label={say("field.name.sizing.kerfMm")} />
      </Group>
      <Group title={say("cut.holding")} fold="holding">
        <div className="col-span-2 grid gap-2">
          <DraftPick
            field="choices.start"
            label={say("field.name.choices.start")}
            value={start}
            options={["bar", "sheet"].map((v) => ({ value: v, label: told(`start.${v}`) }))}
          />
          {start === "sheet" && (
            <p className="text-sm text-quiet">
              {say("start.note")}{" "}
              <Link to="/sheet" className="text-act underline underline-offset-4">
                {say("sheet.title")}
              </Link>
            </p>
          )}
          <DraftPick
            field="choices.holding"
            label={say("field.name.choices.holding")}
            options={["wholeBar", "tongs", "weldedRod"].map((v) => ({ value: v, label: told(`holding.${v}`) }))}
          />
        </div>
      </Group>
    </div>
  );
}
