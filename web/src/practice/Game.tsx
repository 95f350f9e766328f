import { Flame, Hammer, RotateCcw, Undo2 } from "lucide-react";
import { useEffect, useState } from "react";
import { useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { figures, heatColour, say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { print } from "../units/print";
import { Marks } from "./Marks";
import { Piece } from "./Piece";
import { type Action, type Room, usePlay } from "./usePlay";

type Exercise = components["schemas"]["PracticeExercise"];
type Way = NonNullable<Action["way"]>;
type Face = NonNullable<Action["face"]>;
const ways: Way[] = ["flat", "edge", "end"];
const faces: Face[] = ["flat", "peenAcross", "peenAlong", "round"];
const seconds = [5, 10, 20, 40, 60, 80, 120, 180];

/** One exercise: the piece, what can be done to it, what the coach says, and how it stands. */
export function Game({ ex, piece = false }: { ex: Exercise; piece?: boolean }) {
  const units = useUnits();
  const play = usePlay(ex.id, piece);
  const [at, setAt] = useState(20);
  const [way, setWay] = useState<Way>("flat");
  const [face, setFace] = useState<Face>("flat");
  const [blows, setBlows] = useState(3);
  const [hold, setHold] = useState(80);
  const p = play.played;
  const strike = () => play.act({ do: "strike", atMm: at, way, face, blows });
  const fire = () => play.act({ do: "fire", seconds: hold, atMm: at });

  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      const in_ = e.target instanceof HTMLElement && e.target.closest("input, select, [role=combobox], [role=listbox]");
      if (in_ || e.ctrlKey || e.metaKey || e.altKey || !p) return;
      const step = e.shiftKey ? 10 : 2;
      const act: Record<string, () => void> = {
        ArrowRight: () => setAt(Math.min(p.lengthMm, at + step)),
        ArrowLeft: () => setAt(Math.max(0, at - step)),
        " ": strike,
        f: fire,
        e: () => setWay(ways[(ways.indexOf(way) + 1) % ways.length] ?? "flat"),
        Backspace: play.undo,
      };
      const f = act[e.key];
      if (!f) return;
      e.preventDefault();
      e.stopPropagation();
      f();
    };
    window.addEventListener("keydown", on, true);
    return () => window.removeEventListener("keydown", on, true);
  });

  if (!p) return play.wrong ? <p role="alert">{play.wrong}</p> : null;
  const here = p.places.reduce((a, b) => (Math.abs(b.x - at) < Math.abs(a.x - at) ? b : a));
  return (
    <div className="grid gap-x-10 gap-y-4 xl:grid-cols-[minmax(0,1fr)_minmax(300px,400px)]">
      <div className="grid content-start gap-3">
        <Piece p={p} at={at} onAt={setAt} />
        <p className="tabular-nums text-quiet" data-testid="practice-here">
          {print.length(Math.round(at), units)}: {print.thickness(here.wideMm, units)} ×{" "}
          {print.thickness(here.thickMm, units)},{" "}
          {say("practice.hottest", { temp: print.temperature(here.tempC, units), colour: heatColour(here.tempC) })}
        </p>
        <div className="flex flex-wrap items-end gap-3">
          <Pick
            field="practice.room"
            label={say("eye.room")}
            value={play.room}
            options={(["dark", "lit", "day"] as const).map((r) => ({ value: r, label: told(`eye.room.${r}`) }))}
            onPick={(r) => play.look(r as Room)}
          />
          <fieldset className="flex gap-3">
            <legend className="text-sm text-quiet">{say("practice.way")}</legend>
            {ways.map((w) => (
              <label key={w} className="flex min-h-10 items-center gap-2">
                <input type="radio" name="way" checked={way === w} onChange={() => setWay(w)} />
                {told(`practice.way.${w}`)}
              </label>
            ))}
          </fieldset>
          {way === "flat" && (
            <Pick
              field="practice.face"
              label={say("practice.face")}
              value={face}
              options={faces.map((f) => ({ value: f, label: told(`face.${f}`) }))}
              onPick={(f) => setFace(f as Face)}
            />
          )}
          <label>
            <span className="mb-0.5 block text-sm text-quiet">{say("practice.blows")}</span>
            <input
              type="number"
              min={1}
              max={30}
              className="pick w-20"
              data-testid="practice-blows"
              value={blows}
              onChange={(e) => setBlows(Math.max(1, Math.min(30, Number(e.target.value) || 1)))}
            />
          </label>
          <button type="button" className="press press-act min-h-11" onClick={strike} data-testid="practice-strike">
            <Hammer size={16} aria-hidden /> {say("practice.strike")}
          </button>
          <Pick
            field="practice.for"
            label={say("practice.for")}
            value={String(hold)}
            options={seconds.map((s) => ({ value: String(s), label: print.duration(s) }))}
            onPick={(s) => setHold(Number(s))}
          />
          <button type="button" className="press min-h-11" onClick={fire} data-testid="practice-fire">
            <Flame size={16} aria-hidden /> {say("practice.fire")}
          </button>
          <button
            type="button"
            className="press min-h-11"
            onClick={play.undo}
            disabled={play.actions.length === 0}
            data-testid="practice-undo"
          >
            <Undo2 size={16} aria-hidden /> {say("practice.undo")}
          </button>
          <button type="button" className="press min-h-11" onClick={play.again} disabled={play.actions.length === 0}>
            <RotateCcw size={16} aria-hidden /> {say("practice.again")}
          </button>
        </div>
        {play.wrong && (
          <p role="alert" className="text-ember">
            {play.wrong}
          </p>
        )}
        <div role="status" className="grid min-h-20 content-start gap-1 text-lg" data-testid="coach">
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
        <p className="text-sm text-quiet">{say("practice.keys")}</p>
      </div>
      <Marks ex={ex} p={p} undone={play.undone} />
    </div>
  );
}
