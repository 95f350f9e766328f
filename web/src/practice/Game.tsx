import { useEffect, useState } from "react";
import { useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { figures, heatColour, say, told } from "../text/say";
import { print } from "../units/print";
import { Advice } from "./Advice";
import { BesideHeats } from "./BesideHeats";
import { Controls, faces, fireOf, type Grip, strikeOf, supports, tapOf, ways } from "./Controls";
import { KeepIt } from "./KeepIt";
import { Marks } from "./Marks";
import { Piece } from "./Piece";
import { usePlay } from "./usePlay";

type Exercise = components["schemas"]["PracticeExercise"];

const start: Grip = {
  at: 20,
  way: "flat",
  side: "near",
  face: "flat",
  support: "face",
  method: "pinchOut",
  blows: 3,
  hold: 80,
};

const after = <T,>(all: T[], one: T): T => all[(all.indexOf(one) + 1) % all.length] ?? one;

/** One exercise: the piece, what can be done to it, what the coach says, and how it stands. */
export function Game({ ex, piece = false }: { ex: Exercise; piece?: boolean }) {
  const units = useUnits();
  const play = usePlay(ex.id, piece);
  const [grip, setGrip] = useState(start);
  const hold = (g: Partial<Grip>) => setGrip({ ...grip, ...g });
  const p = play.played;
  const body = piece ? { pieceId: ex.id } : { exercise: ex.id };

  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      const in_ = e.target instanceof HTMLElement && e.target.closest("input, select, [role=combobox], [role=listbox]");
      if (in_ || e.ctrlKey || e.metaKey || e.altKey || !p) return;
      const step = e.shiftKey ? 10 : 2;
      const act: Record<string, () => void> = {
        ArrowRight: () => hold({ at: Math.min(p.lengthMm, grip.at + step) }),
        ArrowLeft: () => hold({ at: Math.max(0, grip.at - step) }),
        " ": () => play.act(strikeOf(grip)),
        f: () => play.act(fireOf(grip)),
        e: () => hold({ way: after(ways, grip.way) }),
        s: () => hold({ side: grip.side === "near" ? "far" : "near" }),
        t: () => play.act(tapOf("straighten", grip)),
        h: () => play.act(tapOf("bend", grip)),
        b: () => play.act({ do: "brush" }),
        c: () => play.run(!play.running),
        g: () => hold({ face: after(faces, grip.face) }),
        u: () => hold({ support: after(supports, grip.support) }),
        Backspace: play.undo,
      };
      const f = act[e.key] ?? (/^[1-9]$/.test(e.key) ? () => hold({ blows: Number(e.key) }) : undefined);
      if (!f) return;
      e.preventDefault();
      e.stopPropagation();
      f();
    };
    window.addEventListener("keydown", on, true);
    return () => window.removeEventListener("keydown", on, true);
  });

  if (!p) return play.wrong ? <p role="alert">{play.wrong}</p> : null;
  const here = p.places.reduce((a, b) => (Math.abs(b.x - grip.at) < Math.abs(a.x - grip.at) ? b : a));
  return (
    <div className="grid gap-x-10 gap-y-4 xl:grid-cols-[minmax(0,1fr)_minmax(300px,400px)]">
      <div className="grid content-start gap-3">
        <Piece p={p} at={grip.at} onAt={(at) => hold({ at })} />
        <p className="tabular-nums text-quiet" data-testid="practice-here">
          {print.length(Math.round(grip.at), units)}: {print.thickness(here.wideMm, units)} ×{" "}
          {print.thickness(here.thickMm, units)}
          {here.edgeMm < here.spineMm * 0.97 &&
            ` (${say("practice.edgeOf", { mm: print.thickness(here.edgeMm, units) })})`}
          ,{" "}
          {say("practice.hottest", {
            temp: print.temperature(here.tempC, units),
            colour: heatColour(here.tempC, units),
          })}
        </p>
        {p.places.some((c) => c.off) && <p className="text-sm text-quiet">{say("practice.map")}</p>}
        {play.wrong && (
          <p role="alert" className="text-ember">
            {play.wrong}
          </p>
        )}
        <div role="status" className="grid min-h-24 sm:min-h-20 content-start gap-1 text-lg" data-testid="coach">
          {p.said.map((s, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: sentences follow one another
            <p key={i} className={s.warns ? "border-l-2 border-ember pl-3" : ""} data-said={s.code}>
              {told(s.code, figures(s.figures, units))}
            </p>
          ))}
          {p.done && (
            <p className="border-l-2 border-act pl-3 text-xl" data-testid="practice-done">
              {say("practice.done")}
            </p>
          )}
        </div>
        <Controls grip={grip} hold={hold} play={play} />
        <Advice play={play} body={body} />
        <p className="text-sm text-quiet">{say("practice.keys")}</p>
        <BesideHeats play={play} body={body} piece={piece} />
      </div>
      <div className="grid content-start gap-6">
        <Marks ex={ex} p={p} undone={play.undone} />
        <KeepIt play={play} body={body} />
      </div>
    </div>
  );
}
