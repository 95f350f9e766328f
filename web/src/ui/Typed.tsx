import { useId, useState } from "react";
import type { FieldMessage } from "../api/client";
import { useUnits } from "../api/hooks";
import { print } from "../units/print";

export interface TypedProps {
  /** Dotted name; its ending tells the unit. */
  field: string;
  value: number | string | undefined;
  label: string;
  /** What is typed and not kept yet. */
  text?: string;
  error?: FieldMessage;
  onType: (text: string) => void;
  onRevert: () => void;
  onDone: () => void;
  hideLabel?: boolean;
  className?: string;
  hint?: string;
  placeholder?: string;
}

/** A figure that is typed: fractions, sums and units as the smith writes them. Enter keeps it, Escape takes it back. */
export function Typed({
  field,
  value,
  label,
  text,
  error,
  onType,
  onRevert,
  onDone,
  hideLabel,
  className = "",
  hint,
  placeholder,
}: TypedProps) {
  const units = useUnits();
  const id = useId();
  const [focused, setFocused] = useState(false);
  const name = field.split(".").at(-1) ?? field;
  const stored = typeof value === "number" ? print.edit(name, value, units) : (value ?? "");
  const unit = typeof value === "number" ? print.unit(name, units) : "";
  return (
    <div className={`typed ${className}`}>
      <label htmlFor={id} className={hideLabel ? "sr-only" : "mb-0.5 block text-sm text-quiet"}>
        {label}
      </label>
      <span className="relative block">
        <input
          id={id}
          data-field={field}
          value={text ?? stored}
          placeholder={placeholder}
          inputMode={typeof value === "number" ? "text" : undefined}
          autoComplete="off"
          spellCheck={false}
          aria-invalid={error ? true : undefined}
          aria-describedby={error ? `${id}-wrong` : undefined}
          style={unit ? { paddingRight: `${unit.length * 0.6 + 1}rem` } : undefined}
          onFocus={(e) => {
            setFocused(true);
            e.currentTarget.select();
          }}
          onBlur={() => {
            setFocused(false);
            if (text !== undefined) onDone();
          }}
          onChange={(e) => (e.target.value === stored ? onRevert() : onType(e.target.value))}
          onKeyDown={(e) => {
            if (e.key === "Enter") {
              onDone();
              e.currentTarget.select();
            }
            if (e.key === "Escape") {
              if (text === undefined) e.currentTarget.blur();
              else onRevert();
              e.stopPropagation();
            }
          }}
        />
        {unit && (
          <span className="pointer-events-none absolute inset-y-0 right-2 flex items-center text-sm text-quiet">
            {unit}
          </span>
        )}
      </span>
      {error && (
        <p id={`${id}-wrong`} role="alert" className="mt-0.5 text-sm text-ember">
          {error.offset >= 0 && text !== undefined && <Offender text={text} offset={error.offset} />}
          {error.message}
        </p>
      )}
      {hint && !error && focused && <p className="mt-0.5 text-sm text-quiet">{hint}</p>}
    </div>
  );
}

/** The typed text with the character that is wrong marked; offsets count bytes. */
function Offender({ text, offset }: { text: string; offset: number }) {
  const bytes = new TextEncoder().encode(text);
  const before = new TextDecoder().decode(bytes.slice(0, offset));
  const rest = text.slice(before.length);
  const char = [...rest][0];
  if (!char) return null;
  return (
    <span className="narrow mr-1">
      {before}
      <u className="decoration-2">{char}</u>
      {rest.slice(char.length)}:
    </span>
  );
}
