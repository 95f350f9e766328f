import { Square } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { speak, tone, wakeSound } from "../anvil/sound";
import type { Timer } from "../api/client";
import { useTimers, useTimerWork } from "../api/hooks";
import { say } from "../text/say";
import { clock, leftS } from "./left";

/** It rings again after so long, until it is stopped, s. */
const againS = 20;

/** What is waited for, over every page: what is left by the server's clock, ringing when it is due. */
export function Timers() {
  const { data } = useTimers();
  const work = useTimerWork();
  const [now, setNow] = useState(() => Date.now());
  const rung = useRef(new Map<string, number>());
  const items = data?.items ?? [];
  const running = items.length > 0;
  useEffect(() => {
    if (!running) return;
    setNow(Date.now());
    const t = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(t);
  }, [running]);
  const at = now + (data?.aheadMs ?? 0);
  useEffect(() => {
    for (const t of items) {
      if (leftS(t.dueAt, at) > 0) continue;
      const last = rung.current.get(t.id);
      if (last !== undefined && now - last < againS * 1000) continue;
      rung.current.set(t.id, now);
      tone(660, 0.8);
      if (last === undefined) speak(nameOf(t));
    }
  }, [items, at, now]);
  if (!running) return null;
  return (
    <section
      aria-label={say("timer.name")}
      className="no-print flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line bg-raised px-3 py-1"
      data-testid="timers"
    >
      {items.map((t) => {
        const left = leftS(t.dueAt, at);
        return (
          <span key={t.id} className="flex min-w-0 items-center gap-2" data-timer={t.kind} data-due={left <= 0}>
            <span className={`narrow text-xl ${left <= 0 ? "text-ember" : ""}`} role="timer">
              {clock(left)}
            </span>
            {t.pieceId ? (
              <Link to={`/pieces/${t.pieceId}/harden`} className="min-w-0 truncate hover:text-act">
                {nameOf(t)}
              </Link>
            ) : (
              <span className="min-w-0 truncate">{nameOf(t)}</span>
            )}
            <button
              type="button"
              className="press press-plain min-h-11 !px-2"
              aria-label={say("timer.stop", { name: nameOf(t) })}
              title={say("timer.stopShort")}
              onClick={() => {
                wakeSound();
                work.stop.mutate(t.id);
              }}
            >
              <Square size={15} aria-hidden />
            </button>
          </span>
        );
      })}
      <a className="ml-auto text-sm text-quiet hover:text-act" href="/api/v1/timers.ics" download>
        {say("timer.calendar")}
      </a>
    </section>
  );
}

const nameOf = (t: Timer): string => (t.piece ? `${t.piece}: ${t.label}` : t.label);
