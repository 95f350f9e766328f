import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, ask, Refused } from "../../api/client";
import { useBook, useEntry, useUnits } from "../../api/hooks";
import type { components } from "../../api/schema";
import { useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { Group } from "../../ui/Group";
import { Pick as Choice } from "../../ui/Pick";
import { print } from "../../units/print";
import { dayAndTime } from "../log/words";
import type { Finished } from "./useFinish";
import { finalWords } from "./words";

const typed = ["massG", "balanceMm", "warpMm", "behindMm", "workMin"] as const;
type Typed = (typeof typed)[number];
type Pick3 = Pick<components["schemas"]["FinalNote"], "file" | "cuts" | "flexes">;

/** What the finished knife came to, against what it was to: into the book. */
export function AsFinished({ f }: { f: Finished }) {
  const { piece, plan } = useDraftState();
  const units = useUnits();
  const entry = useEntry(piece.id);
  const book = useBook(entry?.id).data?.book;
  const client = useQueryClient();
  const [text, setText] = useState<Partial<Record<Typed, string>>>({});
  const [picks, setPicks] = useState<Pick3>({ file: "", cuts: "", flexes: "" });
  const [wrong, setWrong] = useState<{ field: string; message: string }>();
  const keep = useMutation({
    mutationFn: () =>
      ask(
        api.POST("/api/v1/pieces/{id}/finished", {
          params: { path: { id: piece.id } },
          body: {
            texts: Object.fromEntries(Object.entries(text).filter(([, v]) => v.trim() !== "")),
            file: picks.file,
            cuts: picks.cuts,
            flexes: picks.flexes,
            units,
          },
        }),
      ),
    onSuccess: async () => {
      setText({});
      setWrong(undefined);
      await client.invalidateQueries();
    },
    onError: (e) => {
      const first = e instanceof Refused ? e.problem.fields?.[0] : undefined;
      setWrong({
        field: first?.field ?? "",
        message: first?.message ?? (e instanceof Refused ? e.problem.detail : say("ui.offline")),
      });
    },
  });
  const aims: Partial<Record<Typed, string>> = {
    massG: print.mass(plan.whole.massG, units),
    balanceMm: print.length(plan.whole.balanceFromPointMm, units),
    behindMm: print.thickness(Math.round(f.edge.behindMm * 100) / 100, units),
    workMin: String(Math.round(f.account.min - (f.account.hours.find((h) => h.what === "forging")?.min ?? 0))),
  };
  const unit = (k: Typed) => (k === "massG" ? "g" : k === "workMin" ? "" : print.unit("xMm", units));
  const choice = (k: "file" | "cuts" | "flexes", options: string[], words: string) => (
    <Choice
      label={told(`final.${k}`)}
      field={`final-${k}`}
      value={picks[k] || "none"}
      options={options.map((v) => ({ value: v, label: told(`${words}.${v}`) }))}
      onPick={(v) => setPicks({ ...picks, [k]: v === "none" ? "" : v } as Pick3)}
    />
  );
  return (
    <form
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        keep.mutate();
      }}
      data-testid="as-finished"
    >
      <Group title={say("final.title")}>
        {(book?.final ?? []).map((t) => (
          <p key={t.id} className="col-span-2" data-final>
            <span className="text-quiet">{dayAndTime(t.onMs)}</span> {finalWords(t.final, units)}
          </p>
        ))}
        {typed.map((k) => (
          <label key={k}>
            <span className="mb-0.5 block text-sm text-quiet">
              {[told(`final.${k}`), unit(k)].filter(Boolean).join(", ")}
            </span>
            <input
              className="w-full rounded border border-line bg-plate px-2 py-1.5"
              data-final-field={k}
              autoComplete="off"
              value={text[k] ?? ""}
              aria-invalid={wrong?.field === `final.${k}` ? true : undefined}
              onChange={(e) => setText({ ...text, [k]: e.target.value })}
            />
            {aims[k] && <span className="text-sm text-quiet">{say("final.planned", { v: aims[k] ?? "" })}</span>}
          </label>
        ))}
        {choice("file", ["none", "skates", "bites"], "file")}
        {choice("cuts", ["none", "passed", "failed"], "outcome")}
        {choice("flexes", ["none", "passed", "failed"], "outcome")}
        {wrong && (
          <p role="alert" className="col-span-2 text-ember">
            {wrong.message}
          </p>
        )}
        <button type="submit" className="press justify-self-start" data-testid="final-keep">
          {say("final.keep")}
        </button>
      </Group>
    </form>
  );
}
