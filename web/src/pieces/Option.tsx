import type { ReactNode } from "react";

/** One of a few cards to choose from. */
export function Option({
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
