import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";
import { api, ask, type Pattern } from "../api/client";
import { useFits, usePatterns, useShop, useSteels, useStock, useUnits } from "../api/hooks";
import type { BarForm } from "../rack/forms";
import { formFields } from "../rack/forms";
import { say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { Sheet } from "../ui/Sheet";
import { Typed } from "../ui/Typed";
import { useTyped } from "../ui/useTyped";
import { print } from "../units/print";
import { BarQuestion, ownBar } from "./BarQuestion";
import { KnifeQuestion } from "./KnifeQuestion";

const skills = ["learning", "steady", "sure"];

/** What a new piece begins with: a pattern, a bar of the rack, or neither. */
export interface Start {
  pattern?: string;
  stock?: string;
}

/** Three questions, then a whole plan: what for, what bar, whose hammer and how sure a hand. */
export function NewPiece({ open, start, onClose }: { open: boolean; start: Start; onClose: () => void }) {
  const patterns = usePatterns();
  const stock = useStock();
  const steels = useSteels(); // asked for by its first letters, so they have to be there
  return (
    <Sheet
      open={open && !!patterns.data && !!stock.data && !!steels.data}
      onClose={onClose}
      title={say("new.title")}
      wide
    >
      <Questions start={start} onClose={onClose} />
    </Sheet>
  );
}

function Questions({ start, onClose }: { start: Start; onClose: () => void }) {
  const go = useNavigate();
  const client = useQueryClient();
  const patterns = usePatterns();
  const stock = useStock();
  const shop = useShop();
  const units = useUnits();
  const bars = (stock.data ?? []).filter((s) => s.usable);
  const [first, setFirst] = useState<"knife" | "bar">(start.stock ? "bar" : "knife");
  const [patternId, setPattern] = useState(start.pattern);
  const [stockId, setStock] = useState(start.stock);
  const [form, setForm] = useState<BarForm>("flat");
  const [hand, setHand] = useState<string>();
  const [skill, setSkill] = useState<string>();
  const [busy, setBusy] = useState(false);
  const t = useTyped();
  const bar = stockId ?? bars[0]?.id ?? ownBar;
  const fits = useFits(first === "bar" && bar !== ownBar ? bars.find((s) => s.id === bar) : undefined);
  const fitOf = (p: Pattern) => fits.data?.find((f) => f.pattern.id === p.id);
  const smiths = shop.data?.smiths ?? [];
  const smith = smiths.find((h) => h.name === hand) ?? smiths[0];
  const chosen =
    patterns.data?.find((p) => p.id === patternId) ??
    (first === "bar" ? fits.data?.find((f) => f.feasible)?.pattern : undefined) ??
    patterns.data?.[0];
  const fit = chosen && fitOf(chosen);
  const plan = async () => {
    if (!chosen) return;
    setBusy(true);
    const own = bar === ownBar;
    const a = await t.attempt(() =>
      ask(
        api.POST("/api/v1/pieces", {
          body: {
            name: t.texts.name?.trim() ?? "",
            patternId: chosen.id,
            stockId: own ? undefined : bar,
            barForm: own ? form : undefined,
            hand: smith?.name,
            skill: skill ?? smith?.skill,
            fitted: fit && !fit.feasible && fit.factor > 0 ? true : undefined,
            edits: own ? t.edits(["steelId", ...formFields[form].map((f) => `bar.${f}`)]) : [],
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
  const knife = (n: number) => (
    <Question key="knife" n={n} title={say("new.whatFor")}>
      <KnifeQuestion
        patterns={patterns.data ?? []}
        chosen={chosen}
        onChoose={setPattern}
        narrow={!!start.pattern}
        fits={fits.data}
        waiting={fits.isFetching}
      />
    </Question>
  );
  const what = (n: number) => (
    <Question key="bar" n={n} title={say("new.whatBar")}>
      <BarQuestion
        bars={bars}
        chosen={bar}
        onChoose={setStock}
        narrow={!!start.stock}
        form={form}
        onForm={setForm}
        typed={t}
      />
    </Question>
  );
  return (
    <form
      className="grid gap-6"
      onSubmit={(e) => {
        e.preventDefault();
        void plan();
      }}
    >
      <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <legend className="sr-only">{say("new.beginWith")}</legend>
        <span aria-hidden className="text-quiet">
          {say("new.beginWith")}
        </span>
        {(["knife", "bar"] as const).map((f) => (
          <label key={f} className="flex min-h-6 items-center gap-1.5">
            <input type="radio" name="first" checked={first === f} onChange={() => setFirst(f)} data-begin={f} />
            {say(`new.begin.${f}`)}
          </label>
        ))}
      </fieldset>
      {first === "bar" ? [what(1), knife(2)] : [knife(1), what(2)]}
      <Question n={3} title={say("new.whose")}>
        <div className="grid grid-cols-1 gap-3 sm:grid-cols-3">
          <Pick
            label={say("new.hammer")}
            value={smith?.name ?? ""}
            onPick={setHand}
            options={smiths.map((h) => ({ value: h.name, label: h.name, note: print.mass(h.hammerKg * 1000, units) }))}
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
            text={t.texts.name ?? ""}
            placeholder={chosen?.name}
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
