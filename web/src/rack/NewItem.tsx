import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, ask } from "../api/client";
import { useSalvage, useSteels, useUnits } from "../api/hooks";
import { say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { Typed } from "../ui/Typed";
import { useTyped } from "../ui/useTyped";
import { type Form, formFields, forms, isBar } from "./forms";

const newBar = "bar";
const layerKinds = ["layers", "others"] as const;

/** What it was, which form, what it measures: the rest is asked on its own page. */
export function NewItem() {
  const client = useQueryClient();
  const steels = useSteels();
  const units = useUnits();
  const salvage = useSalvage();
  const go = useNavigate();
  const [form, setForm] = useState<Form>("flat");
  const [origin, setOrigin] = useState(newBar);
  const [known, setKnown] = useState("no");
  const t = useTyped({ name: "" });
  const asksSteel = origin === newBar || known === "yes";
  const was = (id: string) => {
    setOrigin(id);
    const usual = salvage.data?.origins?.find((o) => o.id === id)?.form;
    if (usual) setForm(usual as Form);
  };
  const save = async () => {
    const fields = ["name", "count", ...formFields[form].map((f) => `piece.${f}`)];
    const layers = form === "layers" ? layerKinds.filter((k) => t.texts[`${k}.count`] || t.texts[`${k}.thick`]) : [];
    const said = [
      ...layers.map((k) => ({
        field: "layer.add",
        text: `${t.texts[`${k}.count`] ?? ""}; ${t.texts[`${k}.thick`] ?? ""}`,
        units,
      })),
      { field: "origin", text: origin },
      ...(origin === newBar ? [] : [{ field: "known", text: known }]),
      ...(asksSteel ? [{ field: "steelId", text: t.texts.steelId ?? "" }] : []),
    ];
    const made = await t.attempt(() =>
      ask(api.POST("/api/v1/stock", { body: { form, edits: [...t.edits(fields), ...said] } })),
    );
    if (!made) return;
    await client.invalidateQueries({ queryKey: ["stock"] });
    go(`/rack/${made.id}`);
  };
  return (
    <form
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <Typed label={say("rack.name")} {...t.props("name", "")} text={t.texts.name ?? ""} />
      <div className="grid grid-cols-2 gap-3">
        <Pick
          label={say("rack.origin")}
          value={origin}
          onPick={was}
          options={(salvage.data?.origins ?? []).map((o) => ({ value: o.id, label: told(`origin.${o.id}`) }))}
          field="origin"
        />
        <Pick
          label={say("field.name.bar.form")}
          value={form}
          onPick={(v) => {
            setForm(v as Form);
            // some forms tell what a piece was: steel is not sold in them
            const told = salvage.data?.origins?.filter((o) => o.form === v) ?? [];
            if (origin === newBar && told.length === 1 && !isBar(v as Form)) setOrigin(told[0]?.id ?? newBar);
          }}
          options={forms.map((f) => ({ value: f, label: say(`form.${f}`) }))}
          field="form"
        />
        {formFields[form].map((f) => (
          <Typed
            key={f}
            label={say(`field.name.bar.${f}`)}
            {...t.props(`piece.${f}`, 0)}
            text={t.texts[`piece.${f}`] ?? ""}
          />
        ))}
        {form === "layers" &&
          layerKinds.map((k, i) => (
            <fieldset key={k} className="col-span-2 grid grid-cols-2 gap-3">
              <legend className="mb-0.5 text-sm text-quiet">{say(i === 0 ? "rack.layers" : "rack.layersOther")}</legend>
              <Typed label={say("rack.layerCount")} {...t.props(`${k}.count`, "")} text={t.texts[`${k}.count`] ?? ""} />
              <Typed label={say("rack.layerThick")} {...t.props(`${k}.thick`, "")} text={t.texts[`${k}.thick`] ?? ""} />
            </fieldset>
          ))}
        <Typed label={say("rack.howMany")} {...t.props("count", 1)} />
        {origin !== newBar && (
          <Pick
            label={say("rack.known")}
            value={known}
            onPick={setKnown}
            options={["yes", "no"].map((v) => ({ value: v, label: told(`rack.known.${v}`) }))}
            field="known"
          />
        )}
        {asksSteel && (
          <Pick
            label={say("field.name.steelId")}
            value={t.texts.steelId ?? ""}
            onPick={(v) => t.put("steelId", v)}
            options={(steels.data ?? []).map((g) => ({ value: g.id, label: g.name }))}
            placeholder={say("rack.whichSteel")}
            error={t.errorOf("steelId")?.message}
            field="steelId"
          />
        )}
      </div>
      <p className="text-sm text-quiet">{say(asksSteel ? "rack.newNote" : "rack.newPresumed")}</p>
      {t.general && (
        <p role="alert" className="text-ember">
          {t.general}
        </p>
      )}
      <button type="submit" className="press press-act justify-self-end">
        {say("ui.keep")}
      </button>
    </form>
  );
}
