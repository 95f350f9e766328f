import { Flame, Hammer, Hand, RotateCcw, Undo2 } from "lucide-react";
import { say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { print } from "../units/print";
import type { Action, Play, Room } from "./usePlay";

export type Way = NonNullable<Action["way"]>;
type Face = NonNullable<Action["face"]>;
type Support = NonNullable<Action["support"]>;
type Side = NonNullable<Action["side"]>;

/** How the piece is struck next. */
export interface Grip {
  at: number;
  way: Way;
  side: Side;
  face: Face;
  support: Support;
  method: NonNullable<Action["method"]>;
  blows: number;
  hold: number;
}

export const ways: Way[] = ["flat", "edge", "corner", "bevel", "end"];
export const faces: Face[] = ["flat", "peenAcross", "peenAlong", "round"];
export const supports: Support[] = ["face", "edge", "horn", "fuller"];
const seconds = [5, 10, 20, 40, 60, 80, 120, 180];

/** What is done with the piece as it is held. */
export const strikeOf = (g: Grip): Action => ({
  do: "strike",
  atMm: g.at,
  way: g.way,
  side: g.side,
  blows: g.blows,
  ...(g.way === "flat" ? { face: g.face, support: g.support } : {}),
  ...(g.way === "bevel" ? { method: g.method } : {}),
});
export const fireOf = (g: Grip): Action => ({ do: "fire", seconds: g.hold, atMm: g.at });
/** Straightened or bent lying flat, or where it lies on edge, on edge. */
export const tapOf = (what: "straighten" | "bend", g: Grip): Action => ({
  do: what,
  atMm: g.at,
  way: g.way === "edge" ? "edge" : "flat",
  side: g.side,
  blows: g.blows,
});

/** What can be done, by hand: with the pointer or a finger; every one of them has its key. */
export function Controls({ grip, hold, play }: { grip: Grip; hold: (g: Partial<Grip>) => void; play: Play }) {
  const sides = ["near", "far"] as const;
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <fieldset className="flex flex-wrap gap-x-3">
          <legend className="text-sm text-quiet">{say("practice.way")}</legend>
          {ways.map((w) => (
            <label key={w} className="flex min-h-10 items-center gap-1.5">
              <input type="radio" name="way" checked={grip.way === w} onChange={() => hold({ way: w })} data-way={w} />
              {told(`practice.way.${w}`)}
            </label>
          ))}
        </fieldset>
        {grip.way !== "end" && (
          <fieldset className="flex gap-3">
            <legend className="text-sm text-quiet">{say("practice.up")}</legend>
            {sides.map((s) => (
              <label key={s} className="flex min-h-10 items-center gap-1.5">
                <input
                  type="radio"
                  name="side"
                  checked={grip.side === s}
                  onChange={() => hold({ side: s })}
                  data-side={s}
                />
                {told(`practice.side.${grip.way === "edge" ? "edge." : ""}${s}`)}
              </label>
            ))}
          </fieldset>
        )}
        {grip.way === "flat" && (
          <>
            <Pick
              field="practice.face"
              label={say("practice.face")}
              value={grip.face}
              options={faces.map((f) => ({ value: f, label: told(`face.${f}`) }))}
              onPick={(f) => hold({ face: f as Face })}
            />
            <Pick
              field="practice.support"
              label={say("tool.support")}
              value={grip.support}
              options={supports.map((f) => ({ value: f, label: told(`support.${f}`) }))}
              onPick={(f) => hold({ support: f as Support })}
            />
          </>
        )}
        {grip.way === "bevel" && (
          <Pick
            field="practice.method"
            label={say("practice.method")}
            value={grip.method}
            options={(["pinchOut", "pushIn"] as const).map((m) => ({ value: m, label: told(`method.${m}`) }))}
            onPick={(m) => hold({ method: m as Grip["method"] })}
          />
        )}
      </div>
      <div className="flex flex-wrap items-end gap-2">
        <label>
          <span className="mb-0.5 block text-sm text-quiet">{say("practice.blows")}</span>
          <input
            type="number"
            min={1}
            max={30}
            className="pick w-20"
            data-testid="practice-blows"
            value={grip.blows}
            onChange={(e) => hold({ blows: Math.max(1, Math.min(30, Number(e.target.value) || 1)) })}
          />
        </label>
        <button
          type="button"
          className="press press-act min-h-11"
          onClick={() => play.act(strikeOf(grip))}
          data-testid="practice-strike"
        >
          <Hammer size={16} aria-hidden /> {say("practice.strike")}
        </button>
        <button
          type="button"
          className="press min-h-11"
          onClick={() => play.act(tapOf("straighten", grip))}
          data-testid="practice-straighten"
        >
          <Hand size={16} aria-hidden /> {say("practice.straighten")}
        </button>
        <button
          type="button"
          className="press min-h-11"
          onClick={() => play.act(tapOf("bend", grip))}
          data-testid="practice-bend"
        >
          {say("practice.bend")}
        </button>
        <button
          type="button"
          className="press min-h-11"
          onClick={() => play.act({ do: "brush" })}
          data-testid="practice-brush"
        >
          {say("practice.brush")}
        </button>
        <span className="flex items-end gap-2">
          <button
            type="button"
            className="press min-h-11"
            onClick={() => play.act(fireOf(grip))}
            data-testid="practice-fire"
          >
            <Flame size={16} aria-hidden /> {say("practice.fire")}
          </button>
          <Pick
            field="practice.for"
            label={say("practice.for")}
            value={String(grip.hold)}
            options={seconds.map((s) => ({ value: String(s), label: print.duration(s) }))}
            onPick={(s) => hold({ hold: Number(s) })}
          />
        </span>
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
        <Pick
          field="practice.room"
          label={say("eye.room")}
          value={play.room}
          options={(["dark", "lit", "day"] as const).map((r) => ({ value: r, label: told(`eye.room.${r}`) }))}
          onPick={(r) => play.look(r as Room)}
        />
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            checked={play.running}
            onChange={(e) => play.run(e.target.checked)}
            data-testid="practice-clock"
          />
          {say("practice.clock")}
        </label>
      </div>
    </div>
  );
}
