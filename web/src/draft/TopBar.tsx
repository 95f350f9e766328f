import {
  Archive,
  BookmarkPlus,
  Copy,
  Download,
  FlipHorizontal2,
  Maximize,
  MoreHorizontal,
  Redo2,
  Undo2,
  UserRound,
  Users,
  ZoomIn,
  ZoomOut,
} from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { memo, type ReactNode, useState } from "react";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, ask } from "../api/client";
import { GiveTo, useClass } from "../school/GiveTo";
import { mayChange, useMe } from "../school/me";
import { say, told } from "../text/say";
import { over } from "../ui/over";
import { released } from "../ui/released";
import { useDraft, useDraftState } from "./context";
import { menuItem, PrintMenu } from "./PrintMenu";

interface Props {
  zoom: number;
  onZoom: (z: number) => void;
  flip: boolean;
  onFlip: () => void;
}

/** Name, state of saving, undo, view and the card for the fire. */
export const TopBar = memo(function TopBar({ zoom, onZoom, flip, onFlip }: Props) {
  const draft = useDraft();
  const { piece, save, refusal } = useDraftState();
  return (
    <header className="no-print flex flex-wrap items-center gap-x-1 gap-y-1 border-b border-line px-3 py-1.5">
      <Name />
      <span
        role="status"
        data-save={save}
        className={`mr-auto px-2 text-sm ${save === "saved" ? "text-quiet" : save === "saving" || save === "waiting" ? "text-chalk" : "text-ember"}`}
      >
        {say(`save.${save}`)}
      </span>
      <Tool
        label={say("ui.undo")}
        off={!piece.canUndo}
        onClick={() => void draft.undo()}
        icon={<Undo2 size={17} aria-hidden />}
      />
      <Tool
        label={say("ui.redo")}
        off={!piece.canRedo}
        onClick={() => void draft.redo()}
        icon={<Redo2 size={17} aria-hidden />}
      />
      <span className="mx-1 h-6 w-px bg-line max-sm:hidden" />
      <Tool label={say("view.flip")} pressed={flip} onClick={onFlip} icon={<FlipHorizontal2 size={17} aria-hidden />} />
      <Tool
        label={say("view.out")}
        off={zoom <= 1}
        onClick={() => onZoom(Math.max(1, zoom / 1.25))}
        icon={<ZoomOut size={17} aria-hidden />}
      />
      <Tool
        label={say("view.in")}
        off={zoom >= 6}
        onClick={() => onZoom(Math.min(6, zoom * 1.25))}
        icon={<ZoomIn size={17} aria-hidden />}
      />
      <Tool
        label={say("view.fit")}
        off={zoom === 1}
        onClick={() => onZoom(1)}
        icon={<Maximize size={17} aria-hidden />}
      />
      <span className="mx-1 h-6 w-px bg-line max-sm:hidden" />
      <PrintMenu id={piece.id} />
      <More />
      {(save === "refused" || save === "offline") && (
        <p role="alert" className="flex w-full flex-wrap items-center gap-3 px-2 pb-1 text-ember">
          {save === "refused" ? refusal : say("save.away")}
          <button type="button" className="press" onClick={draft.tryNow}>
            {say("ui.retry")}
          </button>
        </p>
      )}
    </header>
  );
});

function Tool({
  label,
  icon,
  onClick,
  off,
  pressed,
}: {
  label: string;
  icon: ReactNode;
  onClick: () => void;
  off?: boolean;
  pressed?: boolean;
}) {
  return (
    <button
      type="button"
      className="press press-plain px-2"
      title={label}
      aria-label={label}
      aria-pressed={pressed}
      disabled={off}
      onClick={onClick}
    >
      {icon}
    </button>
  );
}

/** The name of the piece, renamed where it stands. */
function Name() {
  const draft = useDraft();
  const s = useDraftState();
  const text = s.typed.name ?? s.doc.name;
  const wrong = s.errors.name;
  return (
    <span className="relative min-w-0">
      <input
        aria-label={say("piece.name")}
        aria-invalid={wrong ? true : undefined}
        data-field="name"
        className="narrow w-[min(24rem,56vw)] truncate rounded border border-transparent bg-transparent px-1 py-0.5 text-2xl font-semibold hover:border-line focus:border-act"
        value={text}
        onChange={(e) => draft.type("name", e.target.value)}
        onBlur={() => void draft.flush()}
        onKeyDown={(e) => {
          if (e.key === "Enter") e.currentTarget.blur();
          if (e.key === "Escape") draft.revert("name");
        }}
      />
      {wrong && (
        <span
          role="alert"
          className="absolute left-1 top-full z-10 rounded border border-ember bg-raised px-2 text-sm text-ember"
        >
          {wrong.message}
        </span>
      )}
    </span>
  );
}

function More() {
  const draft = useDraft();
  const { piece, doc } = useDraftState();
  const go = useNavigate();
  const me = useMe();
  const [busy, setBusy] = useState(false);
  const [giving, setGiving] = useState(false);
  const names = useClass();
  const run = async (f: () => Promise<unknown>) => {
    setBusy(true);
    try {
      await draft.flush();
      await f();
    } catch (e) {
      toast.error(e instanceof Error ? e.message : say("ui.offline"));
    } finally {
      setBusy(false);
    }
  };
  const path = { params: { path: { id: piece.id } } };
  const menu = (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="press press-plain px-2" aria-label={say("piece.more")} disabled={busy}>
        <MoreHorizontal size={18} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal container={over()}>
        <DropdownMenu.Content align="end" className="z-50 min-w-56 rounded border border-line bg-raised p-1 shadow-lg">
          <DropdownMenu.Item
            className={menuItem}
            onSelect={() =>
              void run(async () => {
                const a = await ask(
                  api.POST("/api/v1/pieces/{id}/duplicate", {
                    ...path,
                    body: { name: "" },
                  }),
                );
                go(`/pieces/${a.piece.id}`);
              })
            }
          >
            <Copy size={16} aria-hidden /> {say("pieces.duplicateShort")}
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={menuItem}
            onSelect={() =>
              void run(async () => {
                const { request, picture } = draft.get().doc;
                const { design, allowances } = request;
                await ask(
                  api.POST("/api/v1/patterns", { body: { name: doc.name, tags: [], design, allowances, picture } }),
                );
                toast(say("piece.patternKept", { name: doc.name }));
              })
            }
          >
            <BookmarkPlus size={16} aria-hidden /> {say("piece.keepPattern")}
          </DropdownMenu.Item>
          <DropdownMenu.Label className="mt-1 border-t border-line px-3 pt-2 text-sm text-quiet">
            {say("export.title")}
          </DropdownMenu.Label>
          {["svg", "dxf", "3mf", "stl", "json"].map((f) => (
            <DropdownMenu.Item key={f} className={menuItem} asChild>
              <a href={`/api/v1/pieces/${piece.id}/export/${f}`} download data-export={f}>
                <Download size={16} aria-hidden /> {told(`export.${f}`)}
              </a>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-line" />
          {(me.role !== "smith" || doc.owner || doc.shared || me.class) && mayChange(me, doc.owner) && (
            <DropdownMenu.Item
              className={menuItem}
              data-do="share"
              onSelect={() => void draft.choose("shared", doc.shared ? "no" : "yes")}
            >
              <Users size={16} aria-hidden /> {say(doc.shared ? "school.unshare" : "school.share")}
            </DropdownMenu.Item>
          )}
          {names.length > 0 && (
            // after the key that chose it, which would open the choice in the sheet too
            <DropdownMenu.Item className={menuItem} data-do="give" onSelect={() => released(() => setGiving(true))}>
              <UserRound size={16} aria-hidden /> {say("school.give")}
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Item
            className={menuItem}
            onSelect={() =>
              void run(async () => {
                await ask(api.POST("/api/v1/pieces/{id}/archive", path));
                go("/");
              })
            }
          >
            <Archive size={16} aria-hidden /> {say("pieces.archiveShort")}
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
  return (
    <>
      {menu}
      <GiveTo open={giving} onClose={() => setGiving(false)} />
    </>
  );
}
