import { useEffect, useLayoutEffect, useMemo, useState } from "react";
import { createPortal } from "react-dom";
import { useNavigate, useParams } from "react-router";
import { api, ask } from "../api/client";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { locale, say, told } from "../text/say";
import { Beside } from "./Beside";
import { type Event, type Fold, fold, type Session } from "./core";
import { Face } from "./Face";
import { Lying } from "./Lying";
import { TimeBar } from "./TimeBar";
import { Treat } from "./Treat";

const speeds = [1, 10, 60] as const;
const tickMs = 100;
/** What nobody did anything in is passed over after so long, ms. */
const dullMs = 60_000;

/** A session as it went: the same screen at any moment of it. */
export function ReplayPage() {
  const { id = "" } = useParams();
  const [loaded, setLoaded] = useState<{ session: Session; events: Event[]; f: Fold }>();
  const [error, setError] = useState<Error>();
  useEffect(() => {
    let gone = false;
    Promise.all([
      ask(api.GET("/api/v1/sessions/{id}", { params: { path: { id } } })),
      ask(api.GET("/api/v1/sessions/{id}/events", { params: { path: { id }, query: { after: 0 } } })),
      fold(),
    ]).then(
      ([session, news, f]) => !gone && setLoaded({ session, events: news.events, f }),
      (e: Error) => !gone && setError(e),
    );
    return () => {
      gone = true;
    };
  }, [id]);
  if (error) return <Failed error={error} retry={() => location.reload()} />;
  if (!loaded) return <Loading />;
  return <Replay {...loaded} />;
}

function Replay({ session, events, f }: { session: Session; events: Event[]; f: Fold }) {
  const go = useNavigate();
  const [n, setN] = useState(Math.min(1, events.length));
  const [ms, setMs] = useState(events[0]?.atMs ?? 0);
  const [speed, setSpeed] = useState<(typeof speeds)[number]>(10);
  const [playing, setPlaying] = useState(false);
  useTitle(session.name, say("replay.title"));
  const shown = useMemo(() => {
    f.open(session.course);
    f.add(events.slice(0, n));
    return f.show("", ms);
  }, [f, session, events, n, ms]);
  const to = (k: number) => {
    const at = Math.max(0, Math.min(events.length, k));
    setN(at);
    setMs(events[at - 1]?.atMs ?? events[0]?.atMs ?? 0);
  };
  useEffect(() => {
    if (!playing) return;
    const t = setInterval(() => {
      const next = events[n];
      if (!next) return setPlaying(false);
      const now = ms + tickMs * speed;
      // a break of days is not watched
      if (next.atMs <= now || next.atMs - now > dullMs) {
        setN(n + 1);
        setMs(next.atMs);
      } else setMs(now);
    }, tickMs);
    return () => clearInterval(t);
  }, [playing, speed, n, ms, events]);
  const leave = () => go(`/pieces/${session.pieceId}/log`);
  // with the picture and not after it: a key pressed at the first sight of the screen counts
  useLayoutEffect(() => {
    const on = (e: KeyboardEvent) => {
      const act = {
        " ": () => setPlaying((p) => !p),
        ArrowRight: () => to(n + 1),
        ArrowLeft: () => to(n - 1),
        Escape: leave,
      }[e.key];
      if (!act) return;
      e.preventDefault();
      e.stopPropagation();
      act();
    };
    window.addEventListener("keydown", on, true);
    return () => window.removeEventListener("keydown", on, true);
  });
  const v = shown.view;
  const step = session.course.steps[v.step];
  const heat = session.course.heats[(step?.heat ?? session.course.heats.length) - 1];
  const last = events[n - 1];
  return createPortal(
    <div
      role="region"
      aria-label={session.name}
      data-theme="night"
      data-testid="replay"
      data-events={n}
      data-phase={v.phase}
      className="fixed inset-0 z-40 flex flex-col gap-[1.2vmin] overflow-hidden bg-[#15181a] p-[2vmin] text-[#ebe6da]"
    >
      <h1 className="text-[clamp(16px,3.2vmin,34px)] text-[#9ba39f]">
        {say("replay.of", { name: session.name })}
        {last ? ` · ${new Date(ms).toLocaleString(locale())} · ${told(`event.${last.kind}`)}` : ""}
      </h1>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(180px,20vw)] gap-[5vmin] max-md:grid-cols-1">
        <div className="flex min-h-0 min-w-0 flex-col">
          {v.treating ? (
            <Treat course={session.course} shown={shown} />
          ) : (
            <Face course={session.course} shown={shown} />
          )}
          {heat && !v.treating && (
            <div className="min-h-[14vh] flex-1 py-[1.5vmin]">
              <Lying course={session.course} heat={heat} step={step} tempC={v.nowC} flip={false} />
            </div>
          )}
        </div>
        <div className="max-md:hidden">
          <Beside session={session} shown={shown} />
        </div>
      </div>
      <TimeBar shown={shown} />
      <div className="flex flex-wrap items-center gap-2">
        <button
          type="button"
          className="press press-act min-h-11"
          onClick={() => setPlaying(!playing)}
          data-testid="replay-play"
        >
          {say(playing ? "replay.pause" : "replay.play")}
        </button>
        {speeds.map((x) => (
          <button
            key={x}
            type="button"
            className="press min-h-11"
            aria-pressed={speed === x}
            onClick={() => setSpeed(x)}
          >
            × {x}
          </button>
        ))}
        <input
          type="range"
          className="min-h-11 min-w-40 flex-1 accent-[#46ab9c]"
          min={0}
          max={events.length}
          value={n}
          aria-label={say("replay.event", { n, of: events.length })}
          onChange={(e) => to(Number(e.target.value))}
        />
        <span className="narrow">{say("replay.event", { n, of: events.length })}</span>
        <button type="button" className="press min-h-11" onClick={leave}>
          {say("anvil.leave")}
        </button>
      </div>
    </div>,
    document.body,
  );
}
