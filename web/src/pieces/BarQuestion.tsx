import { useState } from "react";
import type { Stock } from "../api/client";
import { useSteelName, useSteels, useUnits } from "../api/hooks";
import { type BarForm, barForms, barSize, formFields } from "../rack/forms";
import { say } from "../text/say";
import { Pick } from "../ui/Pick";
import { Typed } from "../ui/Typed";
import type { useTyped } from "../ui/useTyped";
import { print } from "../units/print";
import { Option } from "./Option";

/** The choice of a bar that is not on the rack. */
export const ownBar = "own";

/** What bar: one of the rack, or one that is measured here. */
export function BarQuestion({
  bars,
  chosen,
  onChoose,
  narrow,
  form,
  onForm,
  typed: t,
}: {
  bars: Stock[];
  chosen: string;
  onChoose: (id: string) => void;
  narrow: boolean;
  form: BarForm;
  onForm: (f: BarForm) => void;
  typed: ReturnType<typeof useTyped>;
}) {
  const units = useUnits();
  const steels = useSteels();
  const steelName = useSteelName();
  const [all, setAll] = useState(!narrow);
  const shown = all ? bars : bars.filter((s) => s.id === chosen);
  return (
    <>
      <div role="radiogroup" aria-label={say("new.whatBar")} className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
        {shown.map((s) => (
          <Option key={s.id} name="bar" checked={s.id === chosen} onCheck={() => onChoose(s.id)}>
            <span className="narrow block text-lg">
              {steelName(s.steelId)} · {s.bar ? "" : `${say(`form.${s.piece.form}`)} `}
              {barSize(s.piece, units)}
            </span>
            <span className="block text-sm text-quiet">
              {s.name}, {say("rack.free", { length: print.length(Math.max(0, s.freeMm), units) })}
            </span>
          </Option>
        ))}
        {all && (
          <Option name="bar" checked={chosen === ownBar} onCheck={() => onChoose(ownBar)}>
            <span className="narrow block text-lg">{say("new.otherBar")}</span>
            <span className="block text-sm text-quiet">{say("new.otherBarNote")}</span>
          </Option>
        )}
      </div>
      {!all && (
        <button type="button" className="press press-plain mt-2" onClick={() => setAll(true)}>
          {say("new.anotherBar")}
        </button>
      )}
      {chosen === ownBar && (
        <>
          <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-5">
            <Pick
              label={say("field.name.bar.form")}
              value={form}
              onPick={(v) => onForm(v as BarForm)}
              options={barForms.map((f) => ({ value: f, label: say(`form.${f}`) }))}
            />
            <Pick
              label={say("field.name.steelId")}
              value={t.texts.steelId ?? ""}
              onPick={(v) => t.put("steelId", v)}
              placeholder={say("rack.whichSteel")}
              error={t.errorOf("steelId")?.message}
              field="steelId"
              first={bars.length === 0}
              options={(steels.data ?? []).map((g) => ({
                value: g.id,
                label: g.name,
                note: `${print.temperature(g.forgeLowC, units)}–${print.temperature(g.forgeHighC, units)}`,
              }))}
            />
            {formFields[form].map((f) => (
              <Typed
                key={f}
                label={say(`field.name.bar.${f}`)}
                {...t.props(`bar.${f}`, 0)}
                text={t.texts[`bar.${f}`] ?? ""}
              />
            ))}
          </div>
          <p className="mt-2 text-sm text-quiet">{say("new.barNeeds", { length: print.length(1000, units) })}</p>
        </>
      )}
    </>
  );
}
