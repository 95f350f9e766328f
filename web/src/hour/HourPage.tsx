import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft, Printer, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { api, ask, type FieldMessage, Refused } from "../api/client";
import { useEditShop, useShop, useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { Typed } from "../ui/Typed";
import { FoundList, Narrower } from "./FoundList";

export type Hour = components["schemas"]["HourRead"];

type Task = components["schemas"]["HourTask"];

/** Figures that are chosen, not typed. */
const choices: Record<string, { options: string[]; words: string }> = {
  face: { options: ["flat", "round", "peenAcross", "peenAlong"], words: "face" },
  file: { options: ["", "skates", "bites"], words: "file" },
};

/** An hour at the forge with a scrap bar: what is done, what was read, and what it tells. */
export function HourPage() {
  useTitle(say("hour.title"));
  const shop = useShop();
  const client = useQueryClient();
  const edit = useEditShop();
  const hours = useQuery({ queryKey: ["hours"], queryFn: () => ask(api.GET("/api/v1/hours")) });
  if (shop.isPending || hours.isPending) return <Loading />;
  if (shop.isError) return <Failed error={shop.error} retry={() => void shop.refetch()} />;
  if (hours.isError) return <Failed error={hours.error} retry={() => void hours.refetch()} />;
  const send = async (edits: { field: string; text: string }[]) => {
    await edit.mutateAsync(edits.map((e) => ({ ...e, units: shop.data.system })));
    await client.invalidateQueries({ queryKey: ["hours"] });
    await client.invalidateQueries({ queryKey: ["learned"] });
  };
  const items = hours.data.items ?? [];
  const without = shop.data.smiths.filter((s) => !items.some((h) => h.hour.smith === s.name));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="hour-page">
      <header className="mb-2 flex flex-wrap items-center gap-3">
        <Link to="/shop" className="press press-plain">
          <ArrowLeft size={18} aria-hidden /> {say("nav.shop")}
        </Link>
        <h1 className="mr-auto text-3xl">{say("hour.title")}</h1>
        <a className="press" href="/api/v1/hours/sheet.pdf" target="_blank" rel="noreferrer" data-testid="hour-sheet">
          <Printer size={18} aria-hidden /> {say("hour.sheet")}
        </a>
      </header>
      <p className="mb-4 max-w-3xl text-quiet">{say("hour.note")}</p>
      {items.map((h, i) => (
        <One key={h.hour.smith} h={h} at={i} tasks={hours.data.tasks ?? []} onSend={send} />
      ))}
      <div className="flex flex-wrap gap-2">
        {without.map((s) => (
          <button
            key={s.name}
            type="button"
            className="press"
            data-begin={s.name}
            onClick={() => void send([{ field: "hours.add", text: s.name }])}
          >
            {say("hour.begin", { name: s.name })}
          </button>
        ))}
      </div>
    </div>
  );
}

function One({
  h,
  at,
  tasks,
  onSend,
}: {
  h: Hour;
  at: number;
  tasks: Task[];
  onSend: (edits: { field: string; text: string }[]) => Promise<void>;
}) {
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [errors, setErrors] = useState<Record<string, FieldMessage>>({});
  const units = useUnits();
  const drop = (field: string) => {
    setTexts(({ [field]: _, ...rest }) => rest);
    setErrors(({ [field]: _, ...rest }) => rest);
  };
  const send = async (field: string, text: string) => {
    try {
      await onSend([{ field, text }]);
      drop(field);
    } catch (e) {
      const f = e instanceof Refused ? e.problem.fields?.[0] : undefined;
      const error = f ?? { field, code: "", message: e instanceof Error ? e.message : say("ui.offline"), offset: -1 };
      setErrors((x) => ({ ...x, [field]: error }));
    }
  };
  const figures = h.hour as unknown as Record<string, number | undefined>;
  const pick = (name: string, value: string, options: string[], words: string) => (
    <Pick
      key={name}
      label={told(`field.name.hours.${name}`)}
      field={`hours.${at}.${name}`}
      value={value}
      options={options.map((o) => ({ value: o, label: told(`${words}.${o || "none"}`) }))}
      onPick={(v) => void send(`hours.${at}.${name}`, v)}
      error={errors[`hours.${at}.${name}`]?.message}
    />
  );
  return (
    <section className="mb-10 max-w-6xl" data-hour={h.hour.smith}>
      <div className="mb-3 flex flex-wrap items-center gap-3 border-b border-line pb-1">
        <h2 className="mr-auto text-2xl">{h.hour.smith}</h2>
        <button
          type="button"
          className="press"
          aria-pressed={!h.hour.off}
          onClick={() => void send(`hours.${at}.off`, h.hour.off ? "no" : "yes")}
        >
          {say(h.hour.off ? "hour.off" : "hour.on")}
        </button>
        <button
          type="button"
          className="press press-plain"
          onClick={() => void onSend([{ field: "hours.remove", text: String(at) }])}
        >
          <Trash2 size={16} aria-hidden /> {say("hour.remove")}
        </button>
      </div>
      <div className="grid gap-6 lg:grid-cols-[1fr_22rem]">
        <div className="grid gap-6">
          <p className="text-quiet">{say("hour.bar")}</p>
          {tasks.map((t) => (
            <fieldset key={t.code} className="grid gap-2" data-task={t.code}>
              <legend className="narrow text-xl">{told(`hour.task.${t.code}`)}</legend>
              <p>{told(`hour.how.${t.code}`)}</p>
              {(t.cautions ?? []).map((c) => (
                <p key={c} className="border-l-2 border-ember pl-2 text-sm">
                  {told(c)}
                </p>
              ))}
              <div className="grid grid-cols-2 gap-x-4 gap-y-2 sm:grid-cols-3">
                {(t.fields ?? []).map((f) => {
                  const field = `hours.${at}.${f}`;
                  const choice = choices[f];
                  if (choice) return pick(f, String(figures[f] ?? ""), choice.options, choice.words);
                  return (
                    <Typed
                      key={f}
                      field={field}
                      value={figures[f] ?? 0}
                      label={told(`field.name.hours.${f}`)}
                      text={texts[field] ?? (figures[f] ? undefined : "")}
                      error={errors[field]}
                      onType={(x) => setTexts((was) => ({ ...was, [field]: x }))}
                      onRevert={() => drop(field)}
                      onDone={() => texts[field] && void send(field, texts[field])}
                    />
                  );
                })}
              </div>
            </fieldset>
          ))}
        </div>
        <aside className="grid content-start gap-3 self-start lg:sticky lg:top-0" data-testid="hour-found">
          <h3 className="narrow text-xl">{say("hour.found")}</h3>
          <FoundList h={h} units={units} onSend={onSend} />
          <Narrower h={h} units={units} />
        </aside>
      </div>
    </section>
  );
}
