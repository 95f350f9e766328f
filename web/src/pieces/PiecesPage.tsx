import { useQueryClient } from "@tanstack/react-query";
import { Archive, ArchiveRestore, Copy, Plus } from "lucide-react";
import { lazy, Suspense, useCallback, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { toast } from "sonner";
import { api, ask, type Piece } from "../api/client";
import { useEntry, usePieces, useShop, useSteelName, useUnits } from "../api/hooks";
import { Silhouette } from "../bench/Silhouette";
import { FileButton, patternEndings, usePatternIn } from "../patterns/PatternIn";
import { mayChange, useMe } from "../school/me";
import { useTitle } from "../shell/focus";
import { useKeys } from "../shell/keys";
import { Failed, Loading, SetAside } from "../shell/States";
import { moreWords } from "../text/language";
import { count, locale, say, told } from "../text/say";
import { DropFiles } from "../ui/DropFiles";
import { print } from "../units/print";

const News = lazy(async () => {
  const [m] = await Promise.all([import("./News"), moreWords()]);
  return { default: m.News };
});
// The three questions come when they are asked.
const NewPiece = lazy(() => import("./NewPiece").then((m) => ({ default: m.NewPiece })));

/** Every piece of work, drawn to one scale on a long shelf. */
export function PiecesPage() {
  useTitle(say("nav.pieces"));
  const [search, setSearch] = useSearchParams();
  const [archived, setArchived] = useState(false);
  const pieces = usePieces(archived);
  const shop = useShop();
  const creating = search.has("new");
  const file = usePatternIn(useCallback((made: string) => setSearch({ new: "", pattern: made }), [setSearch]));
  const setCreating = (on: boolean) => setSearch(on ? { new: "" } : {});
  useKeys({ n: () => setCreating(true) });
  const longest = Math.max(1, ...(pieces.data ?? []).map((p) => p.summary.sketch.at(-1)?.x ?? 0));
  const scale = Math.min(1.15, 380 / longest);
  return (
    <DropFiles
      endings={[...patternEndings, "zip"]}
      what={say("drop.patternOrPiece")}
      onFile={(f) => void file.take(f)}
      className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6"
    >
      <header className="mb-4 flex flex-wrap items-end gap-3">
        <h1 className="mr-auto text-3xl">{say("nav.pieces")}</h1>
        <button
          type="button"
          className="press press-plain"
          aria-pressed={archived}
          onClick={() => setArchived(!archived)}
        >
          <Archive size={16} aria-hidden /> {say("pieces.archived")}
        </button>
        <FileButton
          accept=".json,.svg,.dxf,.png,.jpg,.jpeg,.zip"
          label={say("patterns.fromFile")}
          onFile={(f) => void file.take(f)}
        />
        <button type="button" className="press press-act" onClick={() => setCreating(true)}>
          <Plus size={18} aria-hidden /> {say("pieces.new")}
        </button>
      </header>
      {(shop.data?.news.length ?? 0) > 0 && (
        <Suspense>
          <News />
        </Suspense>
      )}
      <SetAside kind="pieces" />
      {pieces.isPending ? (
        <Loading />
      ) : pieces.isError ? (
        <Failed error={pieces.error} retry={() => void pieces.refetch()} />
      ) : pieces.data.length === 0 ? (
        <Empty archived={archived} onNew={() => setCreating(true)} />
      ) : (
        <ul className="border-t border-line">
          {pieces.data.map((p) => (
            <Row key={p.id} piece={p} scale={scale} />
          ))}
        </ul>
      )}
      {creating && (
        <Suspense>
          <NewPiece
            open={creating}
            start={{ pattern: search.get("pattern") ?? undefined, stock: search.get("stock") ?? undefined }}
            onClose={() => setCreating(false)}
          />
        </Suspense>
      )}
      {file.sheet}
    </DropFiles>
  );
}

function Empty({ archived, onNew }: { archived: boolean; onNew: () => void }) {
  if (archived) return <p className="text-quiet">{say("pieces.noneArchived")}</p>;
  return (
    <div className="max-w-xl">
      <p className="mb-4 text-lg">{say("pieces.none")}</p>
      <button type="button" className="press press-act" onClick={onNew}>
        <Plus size={18} aria-hidden /> {say("pieces.new")}
      </button>
    </div>
  );
}

type Progress = NonNullable<ReturnType<typeof useEntry>>["progress"];

/** How far a piece is at the fire. */
function atFire(p: Progress): string {
  const at = p.lastMs ? new Date(p.lastMs).toLocaleDateString(locale(), { day: "numeric", month: "short" }) : "";
  if (p.phase === "finished") return say("pieces.forged", { n: p.trips, at });
  return say(p.phase === "away" || p.phase === "ready" ? "pieces.atHeat" : "pieces.forgingNow", {
    n: p.trips,
    of: p.heats,
    at,
  });
}

function Row({ piece, scale }: { piece: Piece; scale: number }) {
  const steelName = useSteelName();
  const units = useUnits();
  const client = useQueryClient();
  const go = useNavigate();
  const { doc, summary: s } = piece;
  const at = useEntry(piece.id)?.progress;
  const me = useMe();
  const refresh = () => client.invalidateQueries({ queryKey: ["pieces"] });
  const shelve = async (way: "archive" | "restore") => {
    const params = { params: { path: { id: piece.id } } };
    await ask(
      way === "archive"
        ? api.POST("/api/v1/pieces/{id}/archive", params)
        : api.POST("/api/v1/pieces/{id}/restore", params),
    );
    await refresh();
    if (way === "archive")
      toast(say("pieces.archivedOne", { name: doc.name }), {
        action: { label: say("ui.undo"), onClick: () => void shelve("restore") },
      });
  };
  const copy = async () => {
    const a = await ask(
      api.POST("/api/v1/pieces/{id}/duplicate", {
        params: { path: { id: piece.id } },
        body: { name: "" },
      }),
    );
    await refresh();
    go(`/pieces/${a.piece.id}`);
  };
  return (
    <li className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-line py-3">
      <Link to={`/pieces/${piece.id}`} className="group flex min-w-0 flex-1 flex-wrap items-center gap-x-6 gap-y-2">
        <span className="flex w-[390px] max-w-full items-center">
          <Silhouette stations={s.sketch} scale={scale} label={told(`shape.${s.shape}`)} />
        </span>
        <span className="min-w-56 flex-1">
          <span className="narrow block text-xl group-hover:text-act">{doc.name}</span>
          <span className="block text-quiet">
            {steelName(s.steelId)} · {print.length(s.bladeMm, units)} · {print.mass(s.massG, units)} ·{" "}
            {print.reckoned(s.cutLengthMm, s.lowMm ?? 0, s.highMm ?? 0, units)} {say("pieces.ofBar")} ·{" "}
            {count("pieces.heats", s.heats)}
          </span>
          {doc.owner && (
            <span className="block text-quiet" data-owner>
              {doc.owner === me.name ? say("school.mine") : say("school.of", { name: doc.owner })}
              {doc.shared && ` · ${say("school.shared")}`}
            </span>
          )}
          {!doc.owner && doc.shared && <span className="block text-quiet">{say("school.shared")}</span>}
          {at && <span className="block text-act">{atFire(at)}</span>}
          {s.stops > 0 && <span className="block text-ember">{count("pieces.stops", s.stops)}</span>}
        </span>
      </Link>
      <span className="flex gap-1">
        <button
          type="button"
          className="press press-plain"
          aria-label={say("pieces.duplicate", { name: doc.name })}
          title={say("pieces.duplicateShort")}
          onClick={() => void copy()}
        >
          <Copy size={17} aria-hidden />
        </button>
        {!mayChange(me, doc.owner) ? null : piece.archived ? (
          <button
            type="button"
            className="press press-plain"
            aria-label={say("pieces.restore", { name: doc.name })}
            title={say("pieces.restoreShort")}
            onClick={() => void shelve("restore")}
          >
            <ArchiveRestore size={17} aria-hidden />
          </button>
        ) : (
          <button
            type="button"
            className="press press-plain"
            aria-label={say("pieces.archive", { name: doc.name })}
            title={say("pieces.archiveShort")}
            onClick={() => void shelve("archive")}
          >
            <Archive size={17} aria-hidden />
          </button>
        )}
      </span>
    </li>
  );
}
