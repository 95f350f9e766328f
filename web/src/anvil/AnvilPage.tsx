import { useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { createPortal } from "react-dom";
import { useNavigate, useParams } from "react-router";
import { Refused } from "../api/client";
import { useUnits } from "../api/hooks";
import { EarBar } from "../listen/EarBar";
import { useEar } from "../listen/useEar";
import { onShelf } from "../shelf/onShelf";
import { useTitle } from "../shell/focus";
import { NotThere } from "../shell/NotThere";
import { Failed, Loading } from "../shell/States";
import { say, told } from "../text/say";
import { Timers } from "../timers/Timers";
import { Beside } from "./Beside";
import { Face } from "./Face";
import { Hands } from "./Hands";
import { Lying } from "./Lying";
import type { Link, LinkState } from "./link";
import { NoteSheet } from "./NoteSheet";
import { NotTaken } from "./NotTaken";
import { ReadingSheet } from "./ReadingSheet";
import { SeenSheet } from "./SeenSheet";
import { wakeSound } from "./sound";
import { TimeBar } from "./TimeBar";
import { Treat } from "./Treat";
import { useAloud } from "./useAloud";
import { useAwake } from "./useAwake";
import { useLink, useShown } from "./useFire";
import { useTypedFigure } from "./useTypedFigure";
import { spoken } from "./words";

/** A piece at the anvil, over the whole screen and at night: one touch anywhere goes on. */
export function AnvilPage() {
  const { id = "" } = useParams();
  const { link, error, retry } = useLink(id);
  if (error instanceof Refused && error.problem.status === 404) return <NotThere />;
  if (error) return <Failed error={error} retry={retry} />;
  if (!link) return <Loading />;
  return <AtTheAnvil key={link.session.id} link={link} pieceId={id} />;
}

type Sheet = "reading" | "fault" | "note" | "seen";
const taughtKey = "coldember.goKey";
/** A foot switch bounces, and a hand is heavy: two touches within this are one, ms. */
const bounceMs = 250;
/** What ends a step: what was counted goes with it. */
const ends = ["back", "done", "notYet", "past"];
const onward = [" ", "Enter", "PageDown", "ArrowRight"];
const backward = ["Backspace", "PageUp", "ArrowLeft"];

function AtTheAnvil({ link, pieceId }: { link: Link; pieceId: string }) {
  const s = useShown(link);
  const { shown } = s;
  const { course } = link.session;
  const units = useUnits();
  const go = useNavigate();
  const [sheet, setSheet] = useState<Sheet>();
  const [quiet, setQuiet] = useState(() => localStorage.getItem("coldember.quiet") === "1");
  const [taught, setTaught] = useState(() => localStorage.getItem(taughtKey) ?? "");
  const [teaching, setTeaching] = useState(false);
  const [mistyped, setMistyped] = useState("");
  const last = useRef(0);
  const heard = useRef(0);
  const box = useRef<HTMLDivElement>(null);
  const v = shown.view;
  const step = course.steps[v.step];
  const heat = course.heats[(step?.heat ?? course.heats.length) - 1];
  useTitle(link.session.name, say("stage.anvil"));
  useAwake();
  useAloud(shown, v.phase === "fire" ? spoken(step, units) : "", quiet);
  useEffect(() => box.current?.focus(), []);
  const leave = useCallback(() => go(onShelf ? "/shelf" : `/pieces/${pieceId}/log`), [go, pieceId]);

  const tell = useCallback(
    (said: Parameters<Link["tell"]>[0]) => {
      const now = link.get().shown.view;
      const here = course.steps[now.step];
      const treat = now.treating ? course.treatment?.[now.treat ?? 0]?.id : undefined;
      const counted = heard.current > 0 && ends.includes(said.kind) ? { blows: heard.current } : {};
      link.tell({ step: treat ?? (now.phase === "out" ? here?.id : undefined), side: now.side, ...counted, ...said });
    },
    [link, course],
  );
  const ear = useEar(
    v.phase === "out" && !v.treating && !v.cycling,
    `${v.trip} ${step?.id}`,
    useCallback(
      (sign: "firstBlow" | "lastBlow", ends: boolean) => {
        const now = link.get().shown;
        tell({ kind: sign });
        if (sign === "lastBlow" && ends && now.next) tell({ kind: now.next });
      },
      [link, tell],
    ),
  );
  const caliper = useTypedFigure(
    link,
    step,
    useCallback((figure: string, why: string) => setMistyped(why && say("anvil.refused", { what: figure, why })), []),
  );
  const goOn = useCallback(() => {
    const now = performance.now();
    if (now - last.current < bounceMs) return;
    last.current = now;
    wakeSound();
    link.tick();
    const next = link.get().shown.next;
    if (next) tell({ kind: next });
    else leave();
  }, [link, tell, leave]);
  heard.current = ear.on ? ear.blows : 0;
  // hardening is gone on to by a key of its own: the last blow of the forging is no sign for it
  const canHarden =
    ["finished", "ready", "away"].includes(v.phase) && !v.treating && !v.treated && (course.treatment?.length ?? 0) > 0;
  const stillHot = v.phase === "out" && shown.next === "back";

  useLayoutEffect(() => {
    const on = (e: KeyboardEvent) => {
      if (sheet || e.ctrlKey || e.metaKey || e.altKey) return;
      const act = () => {
        if (!teaching && caliper(e.key)) return true;
        if (teaching) {
          setTaught(e.key);
          localStorage.setItem(taughtKey, e.key);
          setTeaching(false);
        } else if (e.repeat) return;
        else if (onward.includes(e.key) || e.key === taught) goOn();
        else if (backward.includes(e.key)) link.takeBack();
        else if (e.key === "n" && v.phase === "out") tell({ kind: "notYet" });
        else if (e.key === "d" && stillHot) tell({ kind: "done" });
        else if (e.key === "p" && v.phase === "out") tell({ kind: "past" });
        else if (e.key === "h" && v.phase === "out") tell({ kind: "firstBlow" });
        else if (e.key === "j" && v.phase === "out") tell({ kind: "lastBlow" });
        else if (e.key === "h" && canHarden) tell({ kind: "toHarden" });
        else if (e.key === "s" && (v.treating || v.treated)) setSheet("seen");
        else if (e.key === "b") tell({ kind: "break" });
        else if (e.key === "r") setSheet("reading");
        else if (e.key === "f") setSheet("fault");
        else if (e.key === "m") setSheet("note");
        else if (e.key === "Escape") leave();
        else return false;
        return true;
      };
      // a key that has the focus on a button still goes on: at the anvil nothing is aimed at
      if (act() === false) {
        // no key leads away from the anvil by mistake: other pages wait
        if (!["Tab", "?"].includes(e.key)) e.stopPropagation();
        return;
      }
      e.preventDefault();
      e.stopPropagation();
    };
    window.addEventListener("keydown", on, true);
    return () => window.removeEventListener("keydown", on, true);
  }, [sheet, teaching, taught, goOn, tell, leave, link, caliper, stillHot, canHarden, v.phase, v.treating, v.treated]);

  return createPortal(
    <div
      ref={box}
      role="region"
      aria-label={link.session.name}
      data-theme="night"
      data-testid="anvil"
      data-phase={v.phase}
      data-step={step?.id ?? "end"}
      data-events={shown.state.events}
      tabIndex={-1}
      className="fixed inset-0 z-40 flex flex-col gap-[1.2vmin] overflow-hidden bg-[#15181a] p-[2vmin] text-[#ebe6da] outline-none"
    >
      <h1 className="sr-only">{link.session.name}</h1>
      <div className="flex items-baseline gap-3 text-[clamp(16px,3.2vmin,34px)]">
        <span className="narrow" data-testid="anvil-count">
          {v.treating
            ? say("anvil.treatOf", { n: (v.treat ?? 0) + 1, of: course.treatment?.length ?? 0 })
            : v.cycling
              ? say("heats.cycleOf", { n: (v.cycle ?? 0) + (v.phase === "out" ? 0 : 1), of: v.cycles ?? 0 })
              : say("anvil.heatOf", { n: v.trip + (v.phase === "out" || v.phase === "finished" ? 0 : 1), of: v.heats })}
        </span>
        <span className="min-w-0 flex-1 truncate text-[#9ba39f]">{link.session.name}</span>
        <Line s={s} device={link.device} />
      </div>
      <Timers />
      <Told s={s} link={link} />
      {mistyped && (
        <p role="alert" className="text-[clamp(15px,2.5vmin,24px)] text-[#d9b65c]" data-testid="mistyped">
          {mistyped}
        </p>
      )}
      {!onShelf && <NotTaken session={link.session.id} />}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: every key goes on, from anywhere */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the whole screen is one button, and has one below */}
      <div
        className="grid min-h-0 flex-1 cursor-pointer grid-cols-[minmax(0,1fr)_minmax(180px,20vw)] gap-[5vmin] select-none max-md:grid-cols-1"
        onClick={goOn}
      >
        <div className="flex min-h-0 min-w-0 flex-col">
          {v.treating ? <Treat course={course} shown={shown} /> : <Face course={course} shown={shown} />}
          {heat && !v.treating && (
            <div className="min-h-[14vh] flex-1 py-[1.5vmin]">
              <Lying
                course={course}
                heat={heat}
                step={step}
                tempC={v.nowC}
                flip={localStorage.getItem("coldember.flip") === "1"}
              />
            </div>
          )}
        </div>
        <div className="max-md:hidden">
          <Beside session={link.session} shown={shown} onRefuse={(undoes) => link.tell({ kind: "undo", undoes })} />
        </div>
      </div>
      {(v.phase === "out" || v.phase === "fire") && <TimeBar shown={shown} />}
      {v.phase !== "fire" && !v.treating && <EarBar ear={ear} planned={step?.blows ?? 0} out={v.phase === "out"} />}
      <Hands
        shown={shown}
        onGo={goOn}
        stillHot={stillHot}
        canHarden={canHarden}
        onTell={tell}
        onBack={() => link.takeBack()}
        onSheet={setSheet}
        onLeave={leave}
        quiet={quiet}
        onQuiet={() => {
          localStorage.setItem("coldember.quiet", quiet ? "0" : "1");
          setQuiet(!quiet);
        }}
        taught={taught}
        teaching={teaching}
        onTeach={() => setTeaching(!teaching)}
      />
      <ReadingSheet
        open={sheet === "reading"}
        link={link}
        step={step}
        shown={shown}
        onClose={() => setSheet(undefined)}
      />
      <SeenSheet open={sheet === "seen"} link={link} shown={shown} onClose={() => setSheet(undefined)} />
      <NoteSheet
        kind={sheet === "fault" ? "fault" : "note"}
        open={sheet === "fault" || sheet === "note"}
        link={link}
        onClose={() => setSheet(undefined)}
      />
    </div>,
    document.body,
  );
}

/** How this screen stands with the others. */
function Line({ s, device }: { s: LinkState; device: string }) {
  const clock = s.shown.state.clocks.find((c) => c.device === device && c.wrong);
  const words = s.noRoom
    ? say("anvil.noRoom")
    : !s.there
      ? [s.trouble, say("anvil.alone", { n: s.waiting })].filter(Boolean).join(" ")
      : s.wrongClock || clock
        ? say("anvil.wrongClock")
        : "";
  return (
    <span
      role="status"
      data-testid="anvil-line"
      data-there={s.there}
      data-waiting={s.waiting}
      className={words ? "rounded-sm border border-[#d9b65c] px-2 text-[#d9b65c]" : "sr-only"}
    >
      {words || say("anvil.kept")}
    </span>
  );
}

/** What of this session a smith has to know beside the step: another plan, what was not taken. */
function Told({ s, link }: { s: LinkState; link: Link }) {
  return (
    <>
      {s.replaced && (
        <p role="alert" className="text-[clamp(15px,2.5vmin,24px)] text-[#d9b65c]" data-testid="anvil-replaced">
          {say("anvil.replaced")}
        </p>
      )}
      {link.session.changed && !s.replaced && (
        <p className="text-[clamp(15px,2.5vmin,24px)] text-[#d9b65c]" data-testid="anvil-changed">
          {say("anvil.changed")}
        </p>
      )}
      {s.refused.map((r) => (
        <p
          key={r.event.id}
          role="alert"
          className="flex items-center gap-3 text-[clamp(15px,2.5vmin,24px)] text-[#d9b65c]"
        >
          {say("anvil.refused", { what: told(`event.${r.event.kind}`), why: r.messages.join(" ") })}
          <button type="button" className="press min-h-11" onClick={() => link.letGo(r.event.id)}>
            {say("anvil.letGo")}
          </button>
        </p>
      ))}
    </>
  );
}
