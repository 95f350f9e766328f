import { useDraft, useDraftPart, valueAt } from "../draft/context";
import { Pick } from "./Pick";
import { Typed } from "./Typed";

interface Props {
  field: string;
  label: string;
  hideLabel?: boolean;
  className?: string;
  hint?: string;
  /** Shown in place of the stored figure: what stands where none is set. */
  value?: number | string;
}

/** A figure of the piece, typed into the draft. */
export function DraftField({ field, value: instead, ...rest }: Props) {
  const draft = useDraft();
  const stored = useDraftPart((s) => valueAt(s.doc.request, field) ?? 0);
  const value = instead ?? stored;
  const text = useDraftPart((s) => s.typed[field]);
  const error = useDraftPart((s) => s.errors[field]);
  return (
    <Typed
      field={field}
      value={value}
      text={text}
      error={error}
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
}: Omit<Props, "value"> & { options: { value: string; label: string; note?: string }[]; value?: string }) {
  const draft = useDraft();
  const stored = useDraftPart((s) => String(valueAt(s.doc.request, field) ?? ""));
  const error = useDraftPart((s) => s.errors[field]?.message);
  return (
    <Pick
      label={label}
      value={value ?? stored}
      options={options}
      onPick={(v) => draft.choose(field, v)}
      error={error}
      hint={hint}
      field={field}
    />
  );
}
