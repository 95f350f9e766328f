import { useQueryClient } from "@tanstack/react-query";
import { Archive, ArchiveRestore } from "lucide-react";
import { useCallback, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, ask, type Pattern } from "../api/client";
import { usePatterns, useUnits } from "../api/hooks";
import { Silhouette } from "../bench/Silhouette";
import { useTitle } from "../shell/focus";
import { NotThere } from "../shell/NotThere";
import { Failed, Loading, SetAside } from "../shell/States";
import { say } from "../text/say";
import { DropFiles } from "../ui/DropFiles";
import { SearchField } from "../ui/SearchField";
import { print } from "../units/print";
import { FileButton, patternEndings, usePatternIn } from "./PatternIn";
import { PatternSheet } from "./PatternSheet";

/** Blades longer than this, mm, do not set the scale of the others; they are drawn smaller, and it is said. */
const longMm = 420;
const roomPx = 380;

/** The library: every pattern at one scale, searched by name, tag or shape. */
export function PatternsPage() {
  useTitle(say("nav.patterns"));
  const [off, setOff] = useState(false);
  const patterns = usePatterns(off);
  const { id } = useParams();
  const go = useNavigate();
  const [text, setText] = useState("");
  const file = usePatternIn(useCallback((made: string) => go(`/patterns/${made}`), [go]));
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = (patterns.data ?? []).filter((p) => {
    const all =
      `${p.name} ${p.tags.join(" ")} ${say(`shape.${p.design.shape}`)} ${say(`tangKind.${p.design.tangKind}`)}`.toLowerCase();
    return words.every((w) => all.includes(w));
  });
  const lengths = (patterns.data ?? []).map((p) => p.sketch.at(-1)?.x ?? 0);
  const longest = Math.max(1, ...lengths.filter((mm) => mm <= longMm));
  const open = patterns.data?.find((p) => p.id === id);
  if (id && patterns.data && !patterns.isFetching && !open) return <NotThere />;
  return (
    <DropFiles
      endings={patternEndings}
      what={say("drop.pattern")}
      onFile={(f) => void file.take(f)}
      className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6"
    >
      <header className="mb-4 flex flex-wrap items-end gap-3">
        <h1 className="mr-auto text-3xl">{say("nav.patterns")}</h1>
        <FileButton
          accept=".json,.svg,.dxf,.png,.jpg,.jpeg"
          label={say("patterns.fromFile")}
          onFile={(f) => void file.take(f)}
        />
        <button type="button" className="press press-plain" aria-pressed={off} onClick={() => setOff(!off)}>
          <Archive size={16} aria-hidden /> {say("patterns.off")}
        </button>
        <SearchField label={say("patterns.search")} text={text} onType={setText} />
      </header>
      <SetAside kind="patterns" />
      {patterns.isPending ? (
        <Loading />
      ) : patterns.isError ? (
        <Failed error={patterns.error} retry={() => void patterns.refetch()} />
      ) : shown.length === 0 ? (
        <p className="text-quiet">{say(text ? "patterns.noneFound" : off ? "patterns.noneOff" : "patterns.none")}</p>
      ) : (
        <ul className="border-t border-line">
          {shown.map((p) => (
            <Row key={p.id} pattern={p} scale={Math.min(1.15, roomPx / longest)} />
          ))}
        </ul>
      )}
      <PatternSheet pattern={open} onClose={() => go("/patterns")} />
      {file.sheet}
    </DropFiles>
  );
}

function Row({ pattern: p, scale: common }: { pattern: Pattern; scale: number }) {
  const scale = Math.min(common, roomPx / Math.max(1, p.sketch.at(-1)?.x ?? 1));
  const units = useUnits();
  const client = useQueryClient();
  const go = useNavigate();
  const copy = async () => {
    const made = await ask(api.POST("/api/v1/patterns/{id}/duplicate", { params: { path: { id: p.id } } }));
    await client.invalidateQueries({ queryKey: ["patterns"] });
    go(`/patterns/${made.id}`);
  };
  const putBack = async () => {
    const params = { params: { path: { id: p.id } } };
    await ask(api.POST("/api/v1/patterns/{id}/restore", { ...params, body: { version: p.version } }));
    await client.invalidateQueries({ queryKey: ["patterns"] });
  };
  return (
    <li className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-line py-3">
      <Link to={`/patterns/${p.id}`} className="group flex min-w-0 flex-1 flex-wrap items-center gap-x-6 gap-y-2">
        <span className="flex w-[390px] max-w-full items-center">
          <Silhouette stations={p.sketch} scale={scale} label={say(`shape.${p.design.shape}`)} />
        </span>
        <span className="min-w-56 flex-1">
          <span className="narrow block text-xl group-hover:text-act">{p.name}</span>
          <span className="block text-quiet">
            {say(`shape.${p.design.shape}`)} · {print.length(p.design.lengthMm, units)} ×{" "}
            {print.length(p.design.heightMm, units)} × {print.thickness(p.design.spineMm, units)} ·{" "}
            {say("patterns.revision", { n: p.revision })}
            {p.tags.length > 0 && ` · ${p.tags.join(", ")}`}
            {scale < common && ` · ${say("patterns.smaller")}`}
          </span>
        </span>
      </Link>
      {p.archived ? (
        <button type="button" className="press" onClick={() => void putBack()} data-off={p.name}>
          <ArchiveRestore size={16} aria-hidden /> {say("patterns.putBack")}
        </button>
      ) : (
        <button type="button" className="press press-plain" onClick={() => void copy()}>
          {say("pieces.duplicateShort")}
        </button>
      )}
    </li>
  );
}
