import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { usePatterns, usePieces, useSteelName, useStock } from "../api/hooks";
import { say, told } from "../text/say";
import { Sheet } from "../ui/Sheet";
import { words } from "../words/words";

interface Found {
  id: string;
  label: string;
  kind: string;
  to: string;
}

/** Finds any piece, bar or page by a few letters of its name. */
export function Finder({ open, onClose }: { open: boolean; onClose: () => void }) {
  const go = useNavigate();
  const pieces = usePieces(false);
  const stock = useStock();
  const patterns = usePatterns();
  const steelName = useSteelName();
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  useEffect(() => {
    if (open) {
      setText("");
      setAt(0);
    }
  }, [open]);
  const all: Found[] = [
    ...(pieces.data ?? []).map((p) => ({ id: p.id, label: p.doc.name, kind: say("nav.piece"), to: `/pieces/${p.id}` })),
    ...(patterns.data ?? []).map((p) => ({
      id: `pattern-${p.id}`,
      label: p.name,
      kind: say("nav.pattern"),
      to: `/patterns/${p.id}`,
    })),
    ...(stock.data ?? []).map((s) => ({
      id: s.id,
      label: `${s.name}, ${steelName(s.steelId)}`,
      kind: say("nav.bar"),
      to: `/rack/${s.id}`,
    })),
    ...words.map((w) => ({ id: `word-${w.id}`, label: w.name, kind: say("nav.word"), to: `/words/${w.id}` })),
    { id: "practice", label: say("practice.title"), kind: say("nav.page"), to: "/practice" },
    { id: "eye", label: say("eye.title"), kind: say("nav.page"), to: "/practice/colours" },
    { id: "new", label: say("pieces.new"), kind: say("nav.action"), to: "/?new" },
    ...["pieces", "patterns", "rack", "cuts", "words", "shop", "book", "day"].map((p) => ({
      id: p,
      label: told(`nav.${p}`),
      kind: say("nav.page"),
      to: p === "pieces" ? "/" : `/${p}`,
    })),
  ];
  const found = all.filter((f) =>
    text
      .toLowerCase()
      .split(/\s+/)
      .every((w) => f.label.toLowerCase().includes(w)),
  );
  const take = (f: Found | undefined) => {
    if (!f) return;
    onClose();
    go(f.to);
  };
  return (
    <Sheet open={open} onClose={onClose} title={say("find.title")}>
      <input
        className="pick"
        role="combobox"
        aria-expanded="true"
        aria-controls="found"
        aria-activedescendant={found[at] ? `found-${found[at].id}` : undefined}
        aria-label={say("find.label")}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
          if (by && found.length) {
            e.preventDefault();
            setAt((at + by + found.length) % found.length);
          }
          if (e.key === "Enter") take(found[at]);
        }}
      />
      <div id="found" role="listbox" aria-label={say("find.title")} className="mt-2">
        {found.slice(0, 12).map((f, i) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the combobox above takes the keys
          <div
            key={f.id}
            id={`found-${f.id}`}
            role="option"
            tabIndex={-1}
            aria-selected={i === at}
            onClick={() => take(f)}
            className={`flex cursor-pointer justify-between rounded px-2 py-2 ${i === at ? "bg-plate text-act" : ""}`}
          >
            <span>{f.label}</span>
            <span className="text-sm text-quiet">{f.kind}</span>
          </div>
        ))}
        {found.length === 0 && <p className="px-2 py-2 text-quiet">{say("find.none")}</p>}
      </div>
    </Sheet>
  );
}
