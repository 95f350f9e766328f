import { useCallback, useEffect, useRef, useState } from "react";
import { api, ask, Refused } from "../api/client";
import type { components } from "../api/schema";
import { say } from "../text/say";

export type Action = components["schemas"]["PracticeAction"];
export type Room = NonNullable<components["schemas"]["PlayIn"]["room"]>;
type Played = components["schemas"]["PracticePlayed"];

export interface Play {
  played?: Played;
  actions: Action[];
  undone: number;
  wrong: string;
  busy: boolean;
  room: Room;
  look(r: Room): void;
  act(a: Action): void;
  undo(): void;
  again(): void;
}

interface Kept {
  actions: Action[];
  seed: number;
  undone: number;
  room?: Room;
}

const keyOf = (exercise: string) => `coldember.practice.${exercise}`;

function kept(exercise: string): Kept {
  try {
    const v = JSON.parse(localStorage.getItem(keyOf(exercise)) ?? "") as Kept;
    if (Array.isArray(v.actions) && typeof v.seed === "number") return v;
  } catch {
    // nothing was played yet
  }
  return { actions: [], seed: Math.floor(Math.random() * 2 ** 31), undone: 0 };
}

/**
 * What is played: a list of actions, which the core plays from the beginning every time, so that taking back is leaving
 * out. It stays in this browser until it is begun anew.
 */
export function usePlay(exercise: string, piece: boolean): Play {
  const [game, setGame] = useState<Kept>(() => kept(exercise));
  const [played, setPlayed] = useState<Played>();
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const waiting = useRef(false);

  const play = useCallback(
    async (next: Kept) => {
      if (waiting.current) return;
      waiting.current = true;
      setBusy(true);
      try {
        const what = piece ? { pieceId: exercise } : { exercise };
        const body = { ...what, seed: next.seed, room: next.room, actions: next.actions };
        setPlayed(await ask(api.POST("/api/v1/practice/play", { body })));
        setGame(next);
        setWrong("");
        localStorage.setItem(keyOf(exercise), JSON.stringify(next));
      } catch (e) {
        setWrong(e instanceof Refused ? (e.problem.fields?.[0]?.message ?? e.problem.detail) : say("ui.offline"));
      }
      waiting.current = false;
      setBusy(false);
    },
    [exercise, piece],
  );
  useEffect(() => void play(kept(exercise)), [exercise, play]);

  return {
    played,
    actions: game.actions,
    undone: game.undone,
    wrong,
    busy,
    room: game.room ?? "lit",
    look: (room) => void play({ ...game, room }),
    act: (a) => void play({ ...game, actions: [...game.actions, a] }),
    undo: () => {
      if (game.actions.length > 0) void play({ ...game, actions: game.actions.slice(0, -1), undone: game.undone + 1 });
    },
    again: () => void play({ ...game, actions: [], seed: Math.floor(Math.random() * 2 ** 31), undone: 0 }),
  };
}
