import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, ask, type FieldMessage, Refused, type Stock } from "../api/client";
import { useUnits } from "../api/hooks";
import { say } from "../text/say";

/** A piece of stock being edited: every field is kept as it is finished; what cannot be stays as typed. */
export function useItem(item: Stock) {
  const client = useQueryClient();
  const units = useUnits();
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [errors, setErrors] = useState<Record<string, FieldMessage>>({});
  const [general, setGeneral] = useState("");
  const version = useRef(item.version);
  version.current = Math.max(version.current, item.version);
  const drop = (field: string) => setTexts(({ [field]: _, ...rest }) => rest);
  const failed = (words: string) => {
    setGeneral(words);
    return false;
  };
  // one after the other: a second field that is done before the first is kept would come with the version of before
  const last = useRef<Promise<unknown>>(Promise.resolve());
  /** Whether it was kept. */
  const save = (field: string, text: string): Promise<boolean> => {
    const kept = last.current.then(() => keep(field, text));
    last.current = kept;
    return kept;
  };
  const keep = async (field: string, text: string): Promise<boolean> => {
    setGeneral("");
    try {
      const s = await ask(
        api.PATCH("/api/v1/stock/{id}", {
          params: { path: { id: item.id } },
          body: { version: version.current, edits: [{ field, text, units }] },
        }),
      );
      version.current = s.version;
      client.setQueryData<{ items: Stock[] }>(["stock", false], (all) =>
        all ? { ...all, items: all.items.map((x) => (x.id === s.id ? s : x)) } : all,
      );
      drop(field);
      setErrors(({ [field]: _, ...rest }) => rest);
      return true;
    } catch (e) {
      if (!(e instanceof Refused)) return failed(say("ui.offline"));
      if (e.problem.status === 409) {
        await client.invalidateQueries({ queryKey: ["stock"] });
        return failed(e.problem.detail);
      }
      const f = e.problem.fields?.find((x) => x.field === field) ?? e.problem.fields?.[0];
      if (!f) return failed(e.problem.detail);
      setErrors((all) => ({ ...all, [field]: f }));
      return false;
    }
  };
  const props = (field: string, value: number | string | undefined) => ({
    field,
    value,
    text: texts[field],
    error: errors[field],
    onType: (t: string) => setTexts((all) => ({ ...all, [field]: t })),
    onRevert: () => {
      drop(field);
      setErrors(({ [field]: _, ...rest }) => rest);
    },
    onDone: () => {
      const t = texts[field];
      if (t !== undefined) void save(field, t);
    },
  });
  return { props, save, errors, general };
}

export type Item = ReturnType<typeof useItem>;
