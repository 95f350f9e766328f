import { Check, ChevronDown } from "lucide-react";
import { Select } from "radix-ui";
import { memo, useCallback, useEffect, useId, useRef } from "react";

interface Props {
  label: string;
  value: string;
  options: { value: string; label: string; note?: string }[];
  onPick: (value: string) => void;
  error?: string;
  hint?: string;
  field?: string;
  placeholder?: string;
  /** Where the hand begins in a sheet. */
  first?: boolean;
}

/** One choice out of a few. */
export function Pick({ onPick, ...shown }: Props) {
  const latest = useRef(onPick);
  useEffect(() => {
    latest.current = onPick;
  });
  const pick = useCallback((v: string) => latest.current(v), []);
  return <Shown {...shown} onPick={pick} />;
}

/** A select is dear to draw: only when something shown is another. */
const Shown = memo(function Shown({ label, value, options, onPick, error, hint, field, placeholder, first }: Props) {
  const id = useId();
  return (
    <div>
      <span id={id} className="mb-0.5 block text-sm text-quiet">
        {label}
      </span>
      <Select.Root value={value} onValueChange={onPick}>
        <Select.Trigger
          aria-labelledby={id}
          data-field={field}
          data-first={first || undefined}
          aria-invalid={error ? true : undefined}
          className="pick flex items-center justify-between gap-2 text-left"
        >
          <Select.Value placeholder={placeholder} />
          <Select.Icon>
            <ChevronDown size={16} aria-hidden />
          </Select.Icon>
        </Select.Trigger>
        <Select.Portal>
          <Select.Content
            position="popper"
            sideOffset={4}
            className="z-50 max-h-[60vh] min-w-[var(--radix-select-trigger-width)] overflow-y-auto rounded border border-line bg-raised p-1 shadow-lg"
          >
            <Select.Viewport>
              {options.map((o) => (
                <Select.Item
                  key={o.value}
                  value={o.value}
                  className="flex cursor-pointer items-center justify-between gap-3 rounded px-2 py-1.5 outline-none data-[highlighted]:bg-plate data-[highlighted]:text-act"
                >
                  <span>
                    <Select.ItemText>{o.label}</Select.ItemText>
                    {o.note && <span className="ml-2 text-sm text-quiet">{o.note}</span>}
                  </span>
                  <Select.ItemIndicator>
                    <Check size={16} aria-hidden />
                  </Select.ItemIndicator>
                </Select.Item>
              ))}
            </Select.Viewport>
          </Select.Content>
        </Select.Portal>
      </Select.Root>
      {error && (
        <p role="alert" className="mt-0.5 text-sm text-ember">
          {error}
        </p>
      )}
      {hint && !error && <p className="mt-0.5 text-sm text-quiet">{hint}</p>}
    </div>
  );
}, alike);

function alike({ options: a, ...x }: Props, { options: b, ...y }: Props): boolean {
  return (
    (Object.keys({ ...x, ...y }) as (keyof typeof x)[]).every((k) => x[k] === y[k]) &&
    a.length === b.length &&
    a.every((o, i) => o.value === b[i]?.value && o.label === b[i]?.label && o.note === b[i]?.note)
  );
}
