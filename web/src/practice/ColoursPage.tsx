import { useCallback, useEffect, useRef, useState } from "react";
import { Refused } from "../api/client";
import { useUnits } from "../api/hooks";
import { useTitle } from "../shell/focus";
import { heatColour, say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { print } from "../units/print";
import { type Asked, answers, forget, type Judgement, judge, known, type Question, question } from "./eye";
import { HeatScale } from "./HeatScale";
import { Steel } from "./Steel";

type Kind = Question["kind"];
type Room = Question["room"];
const kinds: Kind[] = ["say", "now", "temper"];
const rooms: Room[] = ["dark", "lit", "day"];
/** Nearer than this is right, K: no eye reads better. */
const right = 12;

/** Trains an eye on the colours of hot steel, and tells by how much it is off. */
export function ColoursPage() {
  useTitle(say("eye.title"));
  const units = useUnits();
  const [kind, setKind] = useState<Kind>("say");
  const [room, setRoom] = useState<Room>("lit");
  const [n, setN] = useState(() => answers().length);
  const [asked, setAsked] = useState<Asked>();
  const [text, setText] = useState("");
  const [began, setBegan] = useState<number>();
  const [at, setAt] = useState(0);
  const [j, setJ] = useState<Judgement>();
  const [eyes, setEyes] = useState<Judgement["eyes"]>([]);
  const [magnet, setMagnet] = useState(false);
  const [wrong, setWrong] = useState("");
  const input = useRef<HTMLInputElement>(null);
  const seed = useRef(Math.floor(Math.random() * 2 ** 31));

  useEffect(() => {
    let gone = false;
    question({ kind, room, seed: seed.current, n }).then(
      (a) => {
        if (gone) return;
        setAsked(a);
        setJ(undefined);
        setText("");
        setBegan(undefined);
        setAt(0);
        setMagnet(false);
        setWrong("");
        input.current?.focus();
      },
      () => setWrong(say("ui.offline")),
    );
    return () => {
      gone = true;
    };
  }, [kind, room, n]);
  useEffect(() => {
    known().then(
      (k) => setEyes(k.eyes),
      () => {},
    );
  }, []);
  useEffect(() => {
    if (began === undefined || j) return;
    const t = setInterval(() => setAt((performance.now() - began) / 1000), 100);
    return () => clearInterval(t);
  }, [began, j]);

  const frames = asked?.frames ?? [];
  const frame = frames[Math.min(frames.length - 1, Math.floor(at / 0.2))];
  const over = began !== undefined && at > (frames.at(-1)?.atS ?? 0);
  const answer = useCallback(
    async (what: { said?: string; atS?: number }) => {
      if (!asked || j) return;
      setWrong("");
      try {
        const out = await judge({ kind: asked.kind, room: asked.room, seed: asked.seed, n: asked.n, units, ...what });
        setJ(out);
        setEyes(out.eyes);
      } catch (e) {
        setWrong(e instanceof Refused ? (e.problem.fields?.[0]?.message ?? e.problem.detail) : say("ui.offline"));
      }
    },
    [asked, j, units],
  );
  const now = useCallback(() => {
    if (began === undefined) setBegan(performance.now());
    else void answer({ atS: Math.min((performance.now() - began) / 1000, frames.at(-1)?.atS ?? 0) });
  }, [began, answer, frames]);
  const next = () => setN(n + 1);
  const last = j?.last;
  const off = last?.offK ?? 0;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="colours">
      <h1 className="text-3xl">{say("eye.title")}</h1>
      <p className="mb-3 max-w-3xl text-quiet">{say("eye.note")}</p>
      <details className="mb-4 max-w-3xl">
        <summary className="cursor-pointer">{say("heatScale.show")}</summary>
        <HeatScale />
      </details>
      <div className="mb-3 flex flex-wrap gap-4">
        <Pick
          field="eye.kind"
          label={say("eye.kind")}
          value={kind}
          options={kinds.map((k) => ({ value: k, label: told(`eye.kind.${k}`) }))}
          onPick={(v) => setKind(v as Kind)}
        />
        <Pick
          field="eye.room"
          label={say("eye.room")}
          value={room}
          options={rooms.map((r) => ({ value: r, label: told(`eye.room.${r}`) }))}
          onPick={(v) => setRoom(v as Room)}
        />
      </div>
      <div className="grid gap-x-10 gap-y-5 xl:grid-cols-[minmax(0,1fr)_minmax(320px,420px)]">
        <div>
          {asked && frame && <Steel asked={asked} frame={frame} />}
          <form
            className="mt-3 flex min-h-16 flex-wrap items-end gap-3"
            onSubmit={(e) => {
              e.preventDefault();
              if (j) next();
              else if (asked?.kind === "now") now();
              else void answer({ said: text });
            }}
          >
            {asked?.kind === "now" ? (
              <>
                <p className="narrow mr-2 text-2xl">
                  {say("eye.wait", { target: print.temperature(asked.targetC ?? 0, units) })}{" "}
                  <span className="text-base text-quiet">{heatColour(asked.targetC ?? 0, units)}</span>
                </p>
                {!j && (
                  <button type="submit" className="press press-act min-h-12 min-w-28" data-testid="eye-now">
                    {say(began === undefined ? "eye.begin" : "eye.nowKey")}
                  </button>
                )}
                {began !== undefined &&
                  !j &&
                  (frame?.shadow ? <p className="text-quiet">{say("eye.shadow")}</p> : null)}
              </>
            ) : (
              <label>
                <span className="mb-0.5 block text-sm text-quiet">
                  {say("eye.say")} ({print.unit("tempC", units)})
                </span>
                <input
                  ref={input}
                  className="pick w-32"
                  inputMode="numeric"
                  data-testid="eye-say"
                  value={text}
                  readOnly={!!j}
                  onChange={(e) => setText(e.target.value)}
                />
              </label>
            )}
            {asked?.kind !== "now" && !j && (
              <button type="submit" className="press press-act" disabled={!text.trim()}>
                {say("eye.answer")}
              </button>
            )}
            {asked?.kind !== "temper" && (
              <button type="button" className="press" onClick={() => setMagnet(true)} data-testid="eye-magnet">
                {say("eye.magnet")}
              </button>
            )}
            {j && (
              <button type="submit" className="press press-act" data-testid="eye-next">
                {say("eye.next")}
              </button>
            )}
          </form>
          {magnet && frame && (
            <p className="mt-1" data-testid="eye-pulls">
              {say(frame.magnet ? "eye.pulls" : "eye.pullsNot")}
            </p>
          )}
          {(wrong || (over && !j)) && (
            <p role="alert" className="mt-1 text-ember">
              {wrong || say("eye.late", { off: "" })}
            </p>
          )}
          {last && (
            <p className="mt-2 text-xl" role="status" data-testid="eye-was" data-off={off.toFixed(0)}>
              {say("eye.was", {
                true: print.temperature(last.trueC, units),
                colour: colourOf(asked?.kind, last.trueC, units),
              })}{" "}
              {say(verdict(asked?.kind, off), { off: print.apart(Math.abs(off), units) })}
            </p>
          )}
          <p className="mt-4 border-l-[3px] border-ember pl-2 text-[15px]">{say("eye.caution")}</p>
        </div>
        <section>
          <h2 className="mb-2 text-2xl">{say("eye.learned")}</h2>
          {eyes.length === 0 && <p className="text-quiet">{say("eye.none")}</p>}
          <dl className="grid gap-2" data-testid="eyes">
            {eyes.map((e) => (
              <div key={e.kind + e.room} data-eye={`${e.kind} ${e.room}`}>
                <dt className="text-sm text-quiet">
                  {told(`eye.kind.${e.kind}`)} {told(`eye.room.${e.room}`)}
                </dt>
                <dd>
                  {!e.known
                    ? say("eye.few", { n: e.n, need: 5 })
                    : say(Math.abs(e.offK) < right ? "eye.exact" : "eye.reads", {
                        off: print.apart(Math.abs(e.offK), units),
                        way: say(e.offK > 0 ? "eye.way.high" : "eye.way.low"),
                        spread: print.apart(e.spreadK, units),
                      })}
                </dd>
              </div>
            ))}
          </dl>
          {eyes.length > 0 && (
            <button
              type="button"
              className="press mt-3"
              onClick={() => {
                forget();
                setEyes([]);
              }}
            >
              {say("eye.forget")}
            </button>
          )}
          <Steps />
          <p className="mt-2 text-sm text-quiet">{say("eye.screen")}</p>
        </section>
      </div>
    </div>
  );
}

const colourOf = (kind: Kind | undefined, c: number, units: string) => (kind === "temper" ? "" : heatColour(c, units));

function verdict(kind: Kind | undefined, offK: number) {
  if (Math.abs(offK) < right) return "eye.right";
  if (kind === "now") return offK < 0 ? "eye.late" : "eye.early";
  return offK > 0 ? "eye.over" : "eye.under";
}

/** Steps of grey, and of the reds and oranges that matter here: what of them runs together, this screen does not show. */
function Steps() {
  const bars: [string, (k: number) => string][] = [
    ["grey", (k) => `rgb(${12 + k * 14} ${12 + k * 14} ${12 + k * 14})`],
    ["red", (k) => `rgb(${60 + k * 36} ${k * 6} 0)`],
    ["orange", (k) => `rgb(254 ${70 + k * 24} ${k * 18})`],
  ];
  return (
    <svg viewBox="0 0 240 54" className="mt-5 w-full max-w-sm" aria-hidden>
      {bars.map(([name, of], row) =>
        [0, 1, 2, 3, 4, 5].map((k) => (
          <rect key={name + k} x={k * 40} y={row * 18} width="40" height="18" fill={of(k)} />
        )),
      )}
    </svg>
  );
}
