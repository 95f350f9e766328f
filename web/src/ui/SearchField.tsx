import { Search } from "lucide-react";

/** A field that a list is narrowed by. */
export function SearchField({ label, text, onType }: { label: string; text: string; onType: (t: string) => void }) {
  return (
    <label className="relative block w-72 max-w-full">
      <span className="sr-only">{label}</span>
      <Search size={16} aria-hidden className="absolute left-2.5 top-1/2 -translate-y-1/2 text-quiet" />
      <input
        className="pick"
        style={{ paddingLeft: "2rem" }}
        value={text}
        placeholder={label}
        onChange={(e) => onType(e.target.value)}
      />
    </label>
  );
}
