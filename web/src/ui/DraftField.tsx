import { useDraft, useDraftState, valueAt } from "../draft/context";
import { Pick } from "./Pick";
import { Typed } from "./Typed";

interface Props {
  field: string;
  label: string;
  hideLabel?: boolean;
  className?: string;
  hint?: string;
}

/** A figure of the piece, typed into the draft. */
export function DraftField({ field, ...rest }: Props) {
  const draft = useDraft();
  const s = useDraftState();
  return (
    <Typed
      field={field}
      value={valueAt(s.doc.request, field) ?? 0}
      text={s.typed[field]}
      error={s.errors[field]}
      onType={(t) => draft.type(field, t)}
      onRevert={() => draft.revert(field)}
      onDone={() => void draft.flush()}
      {...rest}
    />
  );
}

/** A choice of the piece. */
export function DraftPick({
  field,
  label,
  options,
  value,
  hint,
}: Props & { options: { value: string; label: string; note?: string }[]; value?: string }) {
  const draft = useDraft();
  const s = useDraftState();
  const now = value ?? String(valueAt(s.doc.request, field) ?? "");
  return (
    <Pick
      label={label}
      value={now}
      options={options}
      onPick={(v) => draft.choose(field, v)}
      error={s.errors[field]?.message}
      hint={hint}
      field={field}
    />
  );
}
