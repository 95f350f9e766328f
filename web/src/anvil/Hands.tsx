import type { ReactNode } from "react";
import { say, told } from "../text/say";
import type { Shown } from "./core";
import type { Said } from "./link";

interface Props {
  shown: Shown;
  stillHot: boolean;
  canHarden: boolean;
  onGo: () => void;
  onTell: (said: Said) => void;
  onBack: () => void;
  onSheet: (sheet: "reading" | "fault" | "note" | "seen") => void;
  onLeave: () => void;
  quiet: boolean;
  onQuiet: () => void;
  taught: string;
  teaching: boolean;
  onTeach: () => void;
}

/** What can be touched: going on is most of it, the rest is for between the heats. */
export function Hands(p: Props) {
  const v = p.shown.view;
  const out = v.phase === "out";
  return (
    <div className="grid gap-[1.2vmin]">
      <button
        type="button"
        data-testid="anvil-go"
        data-next={p.shown.next}
        onClick={p.onGo}
        className="narrow min-h-[clamp(56px,11vmin,120px)] w-full rounded border-2 border-[#46ab9c] text-[clamp(26px,8vmin,88px)] leading-none text-[#6fd3c4]"
      >
        {told(p.shown.next ? `anvil.go.${p.shown.next}` : "anvil.go.end")}
      </button>
      <div className="flex flex-wrap gap-1.5">
        <Small onClick={p.onBack} disabled={!p.shown.state.undoId} hint="⌫">
          {p.shown.state.undoId
            ? say("anvil.takeBack", { what: told(`event.${p.shown.state.undoKind}`) })
            : say("anvil.nothingBack")}
        </Small>
        {out && (
          <Small onClick={() => p.onTell({ kind: "notYet" })} hint="N">
            {say("anvil.notYet")}
          </Small>
        )}
        {p.canHarden && (
          <Small onClick={() => p.onTell({ kind: "toHarden" })} hint="H">
            {say("anvil.toHarden")}
          </Small>
        )}
        {(v.treating || v.treated) && (
          <Small onClick={() => p.onSheet("seen")} hint="S">
            {say("anvil.sawIt")}
          </Small>
        )}
        {p.stillHot && (
          <Small onClick={() => p.onTell({ kind: "done" })} hint="D">
            {say("anvil.stillHot")}
          </Small>
        )}
        {out && (
          <Small onClick={() => p.onTell({ kind: "past" })} hint="P">
            {say("anvil.past")}
          </Small>
        )}
        <Small onClick={() => p.onSheet("reading")} hint="R">
          {say("anvil.reading")}
        </Small>
        <Small onClick={() => p.onSheet("fault")} hint="F">
          {say("anvil.fault")}
        </Small>
        <Small onClick={() => p.onSheet("note")} hint="M">
          {say("anvil.note")}
        </Small>
        {v.phase !== "away" && v.phase !== "finished" && (
          <Small onClick={() => p.onTell({ kind: "break" })} hint="B">
            {say("anvil.break")}
          </Small>
        )}
        <span className="flex-1" />
        <Small onClick={p.onTeach} pressed={p.teaching}>
          {p.teaching
            ? say("anvil.teaching")
            : p.taught
              ? say("anvil.taught", { key: p.taught === " " ? "␣" : p.taught })
              : say("anvil.teach")}
        </Small>
        <Small onClick={p.onQuiet} pressed={p.quiet}>
          {say("anvil.quiet")}
        </Small>
        <Small onClick={p.onLeave} hint="Esc">
          {say("anvil.leave")}
        </Small>
      </div>
    </div>
  );
}

function Small({
  children,
  onClick,
  disabled,
  hint,
  pressed,
}: {
  children: ReactNode;
  onClick: () => void;
  disabled?: boolean;
  hint?: string;
  pressed?: boolean;
}) {
  return (
    <button
      type="button"
      className="press min-h-11 !px-2.5"
      onClick={onClick}
      disabled={disabled}
      aria-pressed={pressed}
      aria-keyshortcuts={hint}
    >
      {children}
      {hint && <kbd className="ml-1.5 text-sm text-[#9ba39f] max-lg:hidden">{hint}</kbd>}
    </button>
  );
}
