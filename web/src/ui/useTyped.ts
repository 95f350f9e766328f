import { useRef, useState } from "react";
import { type Edit, type FieldMessage, Refused } from "../api/client";
import { useUnits } from "../api/hooks";
import { say } from "../text/say";

/** Fields typed into a form that is sent as a whole; refusals come back beside their field. */
export function useTyped(first: Record<string, string> = {}) {
  const units = useUnits();
  const [texts, setTexts] = useState<Record<string, string>>(first);
  const [errors, setErrors] = useState<Record<string, FieldMessage>>({});
  const [general, setGeneral] = useState("");
  // fields that tell what is wrong with them; all else is told together
  const telling = useRef(new Set<string>());
  const put = (field: string, text: string) => {
    setTexts((t) => ({ ...t, [field]: text }));
    setErrors(({ [field]: _, ...rest }) => rest);
  };
  const edits = (fields?: string[]): Edit[] =>
    Object.entries(texts)
      .filter(([f]) => !fields || fields.includes(f))
      .map(([field, text]) => ({ field, text, units }));
  /** Runs a call; on a refusal shows what is wrong and answers undefined. */
  const attempt = async <T>(call: () => Promise<T>): Promise<T | undefined> => {
    setGeneral("");
    try {
      return await call();
    } catch (e) {
      const fields = e instanceof Refused ? (e.problem.fields ?? []) : [];
      setErrors(Object.fromEntries(fields.map((f) => [f.field, f])));
      const loose = fields.filter((f) => !telling.current.has(f.field)).map((f) => f.message);
      setGeneral(fields.length ? loose.join(" ") : e instanceof Refused ? e.problem.detail : say("ui.offline"));
      return undefined;
    }
  };
  const errorOf = (field: string): FieldMessage | undefined => {
    telling.current.add(field);
    return errors[field];
  };
  const props = (field: string, value: number | string | undefined) => ({
    field,
    value,
    text: texts[field],
    error: errorOf(field),
    onType: (t: string) => put(field, t),
    onRevert: () => put(field, ""),
    onDone: () => {},
  });
  return { texts, errors, general, put, edits, attempt, props, errorOf, setTexts };
}
