import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";
import { api, ask, type Pattern } from "../api/client";
import { usePatterns, useShop, useSteels, useStock, useUnits } from "../api/hooks";
import { Silhouette } from "../bench/Silhouette";
import { type BarForm, barForms, barSize, formFields } from "../rack/forms";
import { say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { Sheet } from "../ui/Sheet";
import { Typed } from "../ui/Typed";
import { useTyped } from "../ui/useTyped";
import { print } from "../units/print";

const skills = ["learning", "steady", "sure"];

/** Three questions, then a whole plan: what for, what bar, whose hammer and how sure a hand. */
export function NewPiece({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Sheet open={open} onClose={onClose} title={say("new.title")} wide>
      <Questions onClose={onClose} />
    </Sheet>
  );
}

function Questions({ onClose }: { onClose: () => void }) {
  const go = useNavigate();
  const client = useQueryClient();
  const patterns = usePatterns();
  const stock = useStock();
  const steels = useSteels();
  const shop = useShop();
  const units = useUnits();
  const [pattern, setPattern] = useState<Pattern>();
  const [stockId, setStockId] = useState<string>();
  const [form, setForm] = useState<BarForm>("flat");
  const [hand, setHand] = useState<string>();
  const [skill, setSkill] = useState<string>();
  const t = useTyped({ steelId: "1084" });
  const [busy, setBusy] = useState(false);
  const bars = (stock.data ?? []).filter((s) => s.usable);
  const smiths = shop.data?.smiths ?? [];
  const smith = smiths.find((h) => h.name === hand) ?? smiths[0];
  const chosen = pattern ?? patterns.data?.[0];
  const bar = stockId ?? bars[0]?.id ?? "own";
  const barEdits = () => (bar === "own" ? t.edits(["steelId", ...formFields[form].map((f) => `bar.${f}`)]) : []);
  const start = async () => {
    if (!chosen) return;
    setBusy(true);
    const a = await t.attempt(() =>
      ask(
        api.POST("/api/v1/pieces", {
          body: {
            name: t.texts.name?.trim() || chosen.name,
            patternId: chosen.id,
            stockId: bar === "own" ? undefined : bar,
            barForm: bar === "own" ? form : undefined,
            hand: smith?.name,
            skill: skill ?? smith?.skill,
            edits: barEdits(),
          },
        }),
      ),
    );
    setBusy(false);
    if (!a) return;
    await client.invalidateQueries({ queryKey: ["pieces"] });
    onClose();
    go(`/pieces/${a.piece.id}`);
  };
  return (
    <form
      className="grid gap-6"
      onSubmit={(e) => {
        e.preventDefault();
        void start();
      }}
    >
      <Question n={1} title={say("new.whatFor")}>
        <div role="radiogroup" aria-label={say("new.whatFor")} className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
          {(patterns.data ?? []).map((p) => (
            <Option key={p.id} name="pattern" checked={p.id === chosen?.id} onCheck={() => setPattern(p)}>
              <Silhouette stations={p.sketch} scale={0.62} label={say(`shape.${p.design.shape}`)} />
              <span className="narrow mt-1 block text-lg">{p.name}</span>
              <span className="block text-sm text-quiet">
                {say(`shape.${p.design.shape}`)} · {print.length(p.design.lengthMm, units)} ·{" "}
                {say(`tangKind.${p.design.tangKind}`)}
              </span>
            </Option>
          ))}
        </div>
      </Question>
      <Question n={2} title={say("new.whatBar")}>
        <div role="radiogroup" aria-label={say("new.whatBar")} className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
          {bars.map((s) => (
            <Option key={s.id} name="bar" checked={s.id === bar} onCheck={() => setStockId(s.id)}>
              <span className="narrow block text-lg">
                {s.steelId.replaceAll("-", " ")} · {s.bar ? "" : `${say(`form.${s.piece.form}`)} `}
                {barSize(s.piece, units)}
              </span>
              <span className="block text-sm text-quiet">
                {s.name}, {say("rack.free", { length: print.length(Math.max(0, s.freeMm), units) })}
              </span>
            </Option>
          ))}
          <Option name="bar" checked={bar === "own"} onCheck={() => setStockId("own")}>
            <span className="narrow block text-lg">{say("new.otherBar")}</span>
            <span className="block text-sm text-quiet">{say("new.otherBarNote")}</span>
          </Option>
        </div>
        {bar === "own" && (
          <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4">
            <Pick
              label={say("field.name.bar.form")}
              value={form}
              onPick={(v) => setForm(v as BarForm)}
              options={barForms.map((f) => ({ value: f, label: say(`form.${f}`) }))}
            />
            {formFields[form].map((f) => (
              <Typed
                key={f}
                label={say(`field.name.bar.${f}`)}
                {...t.props(`bar.${f}`, 0)}
                text={t.texts[`bar.${f}`] ?? ""}
              />
            ))}
            <Pick
              label={say("field.name.steelId")}
              value={t.texts.steelId ?? "1084"}
              onPick={(v) => t.put("steelId", v)}
              options={(steels.data ?? []).map((g) => ({
                value: g.id,
                label: g.name,
                note: `${print.temperature(g.forgeLowC, units)}–${print.temperature(g.forgeHighC, units)}`,
              }))}
            />
          </div>
        )}
      </Question>
      <Question n={3} title={say("new.whose")}>
        <div className="grid grid-cols-1 gap-3 sm:grid-cols-3">
          <Pick
            label={say("new.hammer")}
            value={smith?.name ?? ""}
            onPick={setHand}
            options={smiths.map((h) => ({ value: h.name, label: h.name, note: `${h.hammerKg} kg` }))}
          />
          <Pick
            label={say("new.sure")}
            value={skill ?? smith?.skill ?? "steady"}
            onPick={setSkill}
            options={skills.map((k) => ({ value: k, label: told(`skill.${k}`) }))}
          />
          <Typed
            label={say("new.name")}
            {...t.props("name", chosen?.name ?? "")}
            text={t.texts.name ?? chosen?.name ?? ""}
          />
        </div>
      </Question>
      {t.general && (
        <p role="alert" className="text-ember">
          {t.general}
        </p>
      )}
      <div className="flex justify-end">
        <button type="submit" className="press press-act px-6 text-lg" disabled={!chosen || busy}>
          {say("new.start")}
        </button>
      </div>
    </form>
  );
}

function Question({ n, title, children }: { n: number; title: string; children: ReactNode }) {
  return (
    <section>
      <h3 className="mb-2 text-xl">
        <span className="mr-2 text-quiet">{n}</span>
        {title}
      </h3>
      {children}
    </section>
  );
}

function Option({
  name,
  checked,
  onCheck,
  children,
}: {
  name: string;
  checked: boolean;
  onCheck: () => void;
  children: ReactNode;
}) {
  return (
    <label
      className={`block cursor-pointer rounded border p-2.5 focus-within:outline-2 focus-within:outline-act ${checked ? "border-act bg-plate" : "border-line hover:border-quiet"}`}
    >
      <input type="radio" name={name} checked={checked} onChange={onCheck} className="sr-only" />
      {children}
    </label>
  );
}
