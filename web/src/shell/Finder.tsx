import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { api, ask } from "../api/client";
import { useEditShop, usePatterns, usePieces, useShop, useSteelName, useStock } from "../api/hooks";
import { chapters } from "../help/chapters";
import { locale, say, told } from "../text/say";
import { Sheet } from "../ui/Sheet";
import { words } from "../words/words";
import { type Found, settings, sought } from "./found";

/** Letters that a search of what was written wants at least. */
const fewest = 3;

const shownMost = 14;

/** What was written with these letters, and faults that are called so. */
function useWritten(text: string): Found[] {
  const wanted = useDeferredValue(text.trim());
  const found = useQuery({
    queryKey: ["find", wanted],
    queryFn: () => ask(api.GET("/api/v1/find", { params: { query: { text: wanted } } })),
    enabled: wanted.length >= fewest,
    staleTime: 5000,
  });
  if (wanted.length < fewest) return [];
  return (found.data ?? []).map((f, i) => {
    const at = f.atMs ? `, ${new Date(f.atMs).toLocaleDateString(locale())}` : "";
    return {
      id: `said-${i}`,
      label: `${f.name}: ${f.said.length > 90 ? `${f.said.slice(0, 90)}…` : f.said}${at}`,
      kind: say(f.kind === "fault" ? "nav.fault" : "nav.note"),
      to: f.stockId ? `/rack/${f.stockId}` : f.sessionId ? `/pieces/${f.pieceId}/log` : `/pieces/${f.pieceId}`,
    };
  });
}

/** What can be done from anywhere, and with the piece that is open. */
function useActions(onKeys: () => void): Found[] {
  const edit = useEditShop();
  const shop = useShop();
  const here = /^\/pieces\/([^/]+)/.exec(useLocation().pathname)?.[1];
  const kind = say("nav.action");
  const flip = (field: string, a: string, b: string, is: boolean) => () => edit.mutate([{ field, text: is ? b : a }]);
  const day = document.documentElement.dataset.theme === "day";
  const list: Found[] = [
    { id: "new", label: say("pieces.new"), kind, to: "/?new" },
    { id: "sheet", label: say("do.sheet"), kind, to: "/sheet" },
    { id: "newPattern", label: say("do.newPattern"), kind, to: "/patterns" },
    { id: "units", label: say("do.units"), kind, act: flip("units", "mm", "in", shop.data?.units !== "in") },
    { id: "theme", label: say("do.theme"), kind, act: flip("theme", "day", "night", day) },
    { id: "keys", label: say("do.keys"), kind, act: onKeys },
    { id: "walk", label: say("do.walk"), kind, act: () => edit.mutate([{ field: "walk", text: "1" }]) },
  ];
  if (!here) return list;
  const open = (path: string) => () => void window.open(`/api/v1/pieces/${here}/${path}`, "_blank");
  return [
    { id: "anvil", label: say("do.anvil"), kind, to: `/pieces/${here}/fire` },
    { id: "practise", label: say("do.practise"), kind, to: `/practice/piece/${here}` },
    { id: "card", label: say("do.card"), kind, act: open("card.pdf") },
    { id: "share", label: say("do.share"), kind, act: open("share.zip") },
    ...list,
  ];
}

/** Finds pieces, bars, patterns, pages, actions, settings, words of the trade, the handbook, and what was written. */
export function Finder({ open, onClose, onKeys }: { open: boolean; onClose: () => void; onKeys: () => void }) {
  const go = useNavigate();
  const pieces = usePieces(false);
  const stock = useStock();
  const patterns = usePatterns();
  const steelName = useSteelName();
  const actions = useActions(onKeys);
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const written = useWritten(text);
  const set = useMemo(settings, []);
  const terms = useMemo(words, []);
  useEffect(() => {
    if (open) {
      setText("");
      setAt(0);
    }
  }, [open]);
  const page = (id: string, label: string, to: string): Found => ({ id, label, kind: say("nav.page"), to });
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
    ...actions,
    page("practice", say("practice.title"), "/practice"),
    page("eye", say("eye.title"), "/practice/colours"),
    page("learned", say("learned.title"), "/learned"),
    page("hour", say("hour.title"), "/hour"),
    page("help", say("help.title"), "/help"),
    ...["pieces", "patterns", "rack", "cuts", "words", "shop", "book", "day"].map((p) =>
      page(p, told(`nav.${p}`), p === "pieces" ? "/" : `/${p}`),
    ),
    ...set,
    ...terms.map((w) => ({
      id: `word-${w.id}`,
      label: w.name,
      kind: say("nav.word"),
      also: w.says,
      to: `/words/${w.id}`,
    })),
    ...chapters.map((c) => ({
      id: `help-${c.id}`,
      label: told(`help.${c.id}.title`),
      kind: say("nav.chapter"),
      also: told(`help.${c.id}.words`),
      to: `/help/${c.id}`,
    })),
  ];
  // what somebody wrote comes before what is only said somewhere
  const best = sought(all, text);
  const found = [...best.slice(0, shownMost - Math.min(6, written.length)), ...written].slice(0, shownMost);
  const take = (f: Found | undefined) => {
    if (!f) return;
    onClose();
    if (f.act) f.act();
    else if (f.to) go(f.to);
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
        placeholder={say("find.label")}
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
        {found.map((f, i) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the combobox above takes the keys
          <div
            key={f.id}
            id={`found-${f.id}`}
            role="option"
            tabIndex={-1}
            aria-selected={i === at}
            onClick={() => take(f)}
            className={`flex cursor-pointer justify-between gap-4 rounded px-2 py-2 ${i === at ? "bg-plate text-act" : ""}`}
          >
            <span className="min-w-0">{f.label}</span>
            <span className="shrink-0 text-sm text-quiet">{f.kind}</span>
          </div>
        ))}
        {found.length === 0 && <p className="px-2 py-2 text-quiet">{say("find.none")}</p>}
      </div>
    </Sheet>
  );
}
