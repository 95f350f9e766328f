import { useQuery, useQueryClient } from "@tanstack/react-query";
import { GraduationCap, Tablet, UserRound } from "lucide-react";
import { useEffect, useState } from "react";
import { api, ask, Refused } from "../api/client";
import { say, told } from "../text/say";

/** Opening the view at the anvil to the local network, and pairing a screen with it. */
export function ShelfPanel() {
  const client = useQueryClient();
  const state = useQuery({
    queryKey: ["shelf"],
    queryFn: () => ask(api.GET("/api/v1/shelf")),
    retry: false,
    refetchInterval: (q) => (q.state.data?.pairing ? 2000 : false),
  });
  const [wrong, setWrong] = useState("");
  const [, tick] = useState(0);
  const pairing = state.data?.pairing;
  useEffect(() => {
    if (!pairing) return;
    const t = setInterval(() => tick((n) => n + 1), 1000);
    return () => clearInterval(t);
  }, [pairing]);
  if (!state.data) return null;
  const s = state.data;
  const send = async (what: Promise<unknown>) => {
    setWrong("");
    try {
      await what;
    } catch (e) {
      setWrong(e instanceof Refused ? e.problem.detail : say("ui.offline"));
    }
    await client.invalidateQueries({ queryKey: ["shelf"] });
    await client.invalidateQueries({ queryKey: ["access"] });
  };
  const set = (on: boolean, keep: boolean) => void send(ask(api.POST("/api/v1/shelf", { body: { on, keep } })));
  const pair = (kind: "screen" | "student" | "teacher") =>
    void send(ask(api.POST("/api/v1/shelf/pairing", { params: { query: { kind } } })));
  const left = pairing ? Math.max(0, Math.round((Date.parse(pairing.until) - Date.now()) / 1000)) : 0;
  return (
    <section data-testid="shelf-panel" data-on={s.on}>
      <h2 className="mt-8 mb-3 text-2xl">{say("net.title")}</h2>
      <p className="mb-3 max-w-3xl text-quiet">{say("net.note")}</p>
      <div className="flex flex-wrap gap-x-8 gap-y-2">
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            data-testid="shelf-on"
            checked={s.on}
            onChange={(e) => set(e.target.checked, s.keep)}
          />
          {say("net.on")}
        </label>
        {s.on && (
          <label className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              data-testid="shelf-keep"
              checked={s.keep}
              onChange={(e) => set(true, e.target.checked)}
            />
            {say("net.keep")}
          </label>
        )}
      </div>
      {wrong && (
        <p role="alert" className="text-ember">
          {wrong}
        </p>
      )}
      {s.on && (
        <div className="mt-2 grid gap-x-10 gap-y-4 md:grid-cols-[minmax(0,1fr)_auto]">
          <dl className="grid min-w-0 content-start gap-3">
            <div>
              <dt className="text-sm text-quiet">{say("net.at")}</dt>
              {s.addresses.map((a) => (
                <dd key={a} className="break-all">
                  {a}
                </dd>
              ))}
            </div>
            <div>
              <dt className="text-sm text-quiet">{say("net.fingerprint")}</dt>
              <dd className="max-w-xl text-sm break-all" data-testid="shelf-fingerprint">
                {s.fingerprint}
              </dd>
            </div>
            <button
              type="button"
              className="press press-act justify-self-start"
              data-testid="shelf-pair"
              onClick={() => pair("screen")}
            >
              <Tablet size={16} aria-hidden /> {say("net.pair")}
            </button>
            <div className="grid gap-2">
              <p className="max-w-xl text-quiet">{say("school.note")}</p>
              <span className="flex flex-wrap gap-2">
                <button type="button" className="press" data-testid="pair-student" onClick={() => pair("student")}>
                  <UserRound size={16} aria-hidden /> {say("access.pairStudent")}
                </button>
                <button type="button" className="press" data-testid="pair-teacher" onClick={() => pair("teacher")}>
                  <GraduationCap size={16} aria-hidden /> {say("access.pairTeacher")}
                </button>
              </span>
            </div>
          </dl>
          {pairing && left > 0 && (
            <div className="grid justify-items-start gap-2" data-testid="shelf-pairing">
              {pairing.kind !== "screen" && <p className="text-lg">{told(`access.kind.${pairing.kind}`)}</p>}
              <p className="narrow text-6xl tracking-[0.15em]" data-testid="shelf-code">
                {pairing.code}
              </p>
              <img
                className="size-52"
                alt={pairing.link}
                src={`data:image/svg+xml;utf8,${encodeURIComponent(pairing.qr)}`}
              />
              <p className="max-w-72 text-sm">{say("net.code", { s: left, n: pairing.left })}</p>
              <p className="max-w-72 text-sm text-quiet">{say("net.compare")}</p>
            </div>
          )}
        </div>
      )}
    </section>
  );
}
