import { useCallback, useEffect, useRef, useState } from "react";
import { type Deaf, type Ear, type Heard, openEar } from "./ear";

const onKey = "coldember.ear";
const endsKey = "coldember.ear.ends";

export interface Listening {
  on: boolean;
  deaf?: Deaf;
  /** How many blows have taught it this anvil, of how many. */
  learned: number;
  wanted: number;
  /** Blows since the piece came out, as heard and as put right. */
  blows: number;
  paused: boolean;
  /** Whether it was heard last what was struck. */
  last?: "heard" | "blow" | "tap" | "far";
  /** It knows this anvil, and counts. */
  known: boolean;
  /** Of a step on an anvil that it does not know: sounds that may have been blows. */
  unsure: number;
  /** It could not learn from what was said last. */
  tooFew: boolean;
  /** The step had so many blows: it learns from them, and they are counted. */
  teach(blows: number): void;
  /** The smith chose that a pause ends the step. */
  ends: boolean;
  toggle(): void;
  toggleEnds(): void;
  right(by: number): void;
  forget(): void;
}

/**
 * Listens for blows while the piece is out of the fire. What it hears is told as the smith would tell it; it ends a step
 * by itself only where the smith chose so.
 */
export function useEar(
  out: boolean,
  trip: string,
  told: (sign: "firstBlow" | "lastBlow", ends: boolean) => void,
): Listening {
  const [on, setOn] = useState(() => localStorage.getItem(onKey) === "1");
  const [deaf, setDeaf] = useState<Deaf>();
  const [ends, setEnds] = useState(() => localStorage.getItem(endsKey) === "1");
  const [heard, setHeard] = useState<Heard>();
  const [righted, setRighted] = useState(0);
  const [tooFew, setTooFew] = useState(false);
  const ear = useRef<Ear | undefined>(undefined);
  const now = useRef({ out, told, ends });
  now.current = { out, told, ends };

  useEffect(() => {
    if (!on) return;
    let gone = false;
    setDeaf(undefined);
    openEar((h) => {
      if (!now.current.out) {
        if (h.count.blows > 0) ear.current?.fresh(false);
        setHeard({ ...h, count: { blows: 0, paused: false } });
        return;
      }
      setHeard(h);
      for (const s of h.signs ?? []) now.current.told(s, now.current.ends);
    }).then(
      (e) => {
        if (typeof e === "string") {
          setDeaf(e);
          setOn(false);
          localStorage.removeItem(onKey);
        } else if (gone) e.close();
        else {
          ear.current = e;
          e.fresh(now.current.out);
        }
      },
      () => setDeaf("none"),
    );
    return () => {
      gone = true;
      ear.current?.close();
      ear.current = undefined;
      setHeard(undefined);
    };
  }, [on]);

  // every time it comes out is counted from nought
  // biome-ignore lint/correctness/useExhaustiveDependencies: a trip is another counting
  useEffect(() => {
    ear.current?.fresh(out);
    setRighted(0);
    setTooFew(false);
  }, [out, trip]);

  const toggle = useCallback(() => {
    setOn((was) => {
      if (was) localStorage.removeItem(onKey);
      else localStorage.setItem(onKey, "1");
      return !was;
    });
  }, []);
  const toggleEnds = useCallback(() => {
    setEnds((was) => {
      localStorage.setItem(endsKey, was ? "0" : "1");
      return !was;
    });
  }, []);
  return {
    on,
    deaf,
    learned: heard?.learned ?? 0,
    wanted: heard?.wanted ?? 10,
    blows: Math.max(0, (heard?.count.blows ?? 0) + righted),
    paused: heard?.count.paused ?? false,
    known: heard?.known ?? false,
    unsure: heard?.unsure ?? 0,
    tooFew,
    teach: (blows) => {
      const taught = ear.current?.teach(blows) ?? false;
      setTooFew(!taught);
      if (taught) setRighted(blows);
    },
    last: heard?.hits?.at(-1)?.kind,
    ends,
    toggle,
    toggleEnds,
    right: (by) => setRighted(righted + by),
    forget: () => ear.current?.forget(),
  };
}
