import { useRef, useState } from "react";
import { api, ask, type Doubtful } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraft } from "../../draft/context";
import { count, say } from "../../text/say";
import { print } from "../../units/print";

const wanted = 300;
const batch = 30;

/** The totals with how sure they are: whole plans drawn a few at a time, so that one sees how far it is and may stop. */
export function Doubts() {
  const draft = useDraft();
  const units = useUnits();
  const [drawn, setDrawn] = useState<Doubtful>();
  const [done, setDone] = useState(0);
  const [failed, setFailed] = useState(0);
  const [busy, setBusy] = useState(false);
  const stop = useRef<AbortController | null>(null);
  const start = async () => {
    await draft.flush();
    const { doc } = draft.get().piece;
    const control = new AbortController();
    stop.current = control;
    setBusy(true);
    setFailed(0);
    let known: Doubtful["samples"] = [];
    let lost = 0;
    try {
      for (let from = 0; from < wanted && !control.signal.aborted; from += batch) {
        const d = await ask(
          api.POST("/api/v1/plan/doubts", {
            body: { doc, known, from, draws: batch, seed: 1 },
            signal: control.signal,
          }),
        );
        known = d.samples;
        lost += d.failed;
        setDrawn(d);
        setFailed(lost);
        setDone(from + batch);
      }
    } catch {
      // stopped, or not to be had: what is drawn so far stays
    }
    setBusy(false);
  };
  const band = (b: { low: number; high: number }, show: (v: number) => string) => `${show(b.low)}–${show(b.high)}`;
  const round5 = (v: number) => String(Math.round(v / 5) * 5);
  return (
    <div className="mt-2 grid gap-1" data-testid="doubts">
      {busy ? (
        <div className="flex items-center gap-3">
          <progress value={done} max={wanted} className="flex-1 accent-(--act)" />
          <span className="text-sm text-quiet" role="status">
            {say("doubt.progress", { done, of: wanted })}
          </span>
          <button type="button" className="press" onClick={() => stop.current?.abort()} data-testid="doubts-stop">
            {say("doubt.stop")}
          </button>
        </div>
      ) : (
        <button
          type="button"
          className="press justify-self-start"
          onClick={() => void start()}
          data-testid="doubts-ask"
        >
          {say("doubt.ask")}
        </button>
      )}
      {drawn && (
        <p className="text-[15px]" data-testid="doubts-say">
          {say("doubt.says", {
            heats: band(drawn.heats, (v) => String(Math.round(v))),
            blows: band(drawn.blows, round5),
            minutes: band(drawn.timeS, (v) => String(Math.round(v / 60))),
            fuel: band(drawn.fuelG, (v) => print.mass(Math.round(v / 10) * 10, units)),
          })}{" "}
          {drawn.money.high > 0 && `${say("doubt.money", { money: band(drawn.money, print.money) })} `}
          <span className="text-sm text-quiet">
            {say("doubt.note", { n: drawn.samples.length })} {failed > 0 && count("doubt.failed", failed)}
          </span>
        </p>
      )}
    </div>
  );
}
