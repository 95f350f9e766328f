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
  room: Room;
  seed: number;
  /** It cools while one looks at it. */
  running: boolean;
  run(on: boolean): void;
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

/** How often the clock goes on, s. */
const tickS = 0.5;

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
  // what was asked for last; one question is on its way, and no touch is lost while it is
  const wanted = useRef(game);
  const good = useRef(game);
  const asking = useRef(false);

  const play = useCallback(
    async (next: Kept) => {
      wanted.current = next;
      if (asking.current) return;
      asking.current = true;
      for (;;) {
        const now = wanted.current;
        try {
          const what = piece ? { pieceId: exercise } : { exercise };
          const body = { ...what, seed: now.seed, room: now.room, actions: now.actions };
          const p = await ask(api.POST("/api/v1/practice/play", { body }));
          good.current = now;
          localStorage.setItem(keyOf(exercise), JSON.stringify(now));
          setPlayed(p);
          setGame(now);
          setWrong("");
          if (wanted.current === now) break;
        } catch (e) {
          wanted.current = good.current; // what was refused is not done
          setWrong(e instanceof Refused ? (e.problem.fields?.[0]?.message ?? e.problem.detail) : say("ui.offline"));
          break;
        }
      }
      asking.current = false;
    },
    [exercise, piece],
  );
  useEffect(() => void play(wanted.current), [play]);
  const last = () => wanted.current;

  const [running, setRunning] = useState(false);
  useEffect(() => {
    if (!running) return;
    const t = setInterval(() => {
      const g = wanted.current;
      const end = g.actions.at(-1);
      // what lies waiting is one thing, however long
      const actions =
        end?.do === "wait"
          ? [...g.actions.slice(0, -1), { ...end, seconds: Math.min(1200, (end.seconds ?? 0) + tickS) }]
          : [...g.actions, { do: "wait" as const, seconds: tickS }];
      if (g.actions.length > 0 && !asking.current) void play({ ...g, actions });
    }, tickS * 1000);
    return () => clearInterval(t);
  }, [running, play]);

  return {
    played,
    actions: game.actions,
    undone: game.undone,
    wrong,
    room: game.room ?? "lit",
    seed: game.seed,
    running,
    run: setRunning,
    look: (room) => void play({ ...last(), room }),
    act: (a) => void play({ ...last(), actions: [...last().actions, a] }),
    undo: () => {
      const g = last();
      if (g.actions.length > 0) void play({ ...g, actions: g.actions.slice(0, -1), undone: g.undone + 1 });
    },
    again: () => void play({ ...last(), actions: [], seed: Math.floor(Math.random() * 2 ** 31), undone: 0 }),
  };
}
