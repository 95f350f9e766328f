import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft } from "lucide-react";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import { useEditShop, useShop, useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { count, has, locale, say, told } from "../text/say";
import { print } from "../units/print";
import { Band, HeldLine } from "./Drawn";

export type Lesson = components["schemas"]["Lesson"];

/** What the steel said: every factor of the book, how sure it is, and how often its bands held. */
export function SaidPage() {
  useTitle(say("learned.title"));
  const units = useUnits();
  const shop = useShop();
  const client = useQueryClient();
  const edit = useEditShop();
  const said = useQuery({ queryKey: ["learned"], queryFn: () => ask(api.GET("/api/v1/learned")) });
  if (said.isPending || shop.isPending) return <Loading />;
  if (said.isError) return <Failed error={said.error} retry={() => void said.refetch()} />;
  const set = async (l: Lesson, text: string) => {
    await edit.mutateAsync([{ field: `learned.${l.kind}|${l.of}`, text, units }]);
    await client.invalidateQueries({ queryKey: ["learned"] });
  };
  const whose = [...new Set(said.data.learned.map((l) => l.of))];
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="said-page">
      <header className="mb-2 flex flex-wrap items-center gap-3">
        <Link to="/shop" className="press press-plain">
          <ArrowLeft size={18} aria-hidden /> {say("nav.shop")}
        </Link>
        <h1 className="text-3xl">{say("learned.title")}</h1>
      </header>
      <p className="mb-6 max-w-3xl text-quiet">{say("learned.note")}</p>
      {whose.length === 0 && (
        <p data-testid="said-none">
          {say("learned.none")}{" "}
          <Link to="/hour" className="underline underline-offset-4">
            {say("hour.offer")}
          </Link>
        </p>
      )}
      {whose.map((w) => {
        const h = said.data.habits.find((x) => x.smith === w);
        return (
          <section key={w} className="mb-8 max-w-5xl" data-whose={w}>
            <h2 className="mb-2 border-b border-line pb-1 text-2xl">
              {said.data.learned.some((l) => l.of === w && l.kind === "scale")
                ? say("learned.forge", { of: w })
                : w || say("learned.nobody")}
            </h2>
            {h && (
              <ul className="mb-3 grid gap-0.5" data-testid="habits">
                {h.heats > 0 && (
                  <li className={h.stopsC < -15 ? "border-l-2 border-ember pl-2" : "text-quiet"}>
                    {count(h.stopsC < 0 ? "learned.stopsCold" : "learned.stopsHot", h.heats, {
                      by: print.apart(Math.abs(h.stopsC), units),
                    })}
                  </li>
                )}
                {h.pieces > 0 && (
                  <li className="text-quiet">
                    {say(h.fallsOffShare >= 0 ? "learned.falls" : "learned.gains", {
                      share: Math.round(Math.abs(h.fallsOffShare) * 100),
                    })}
                  </li>
                )}
                {h.weighed > 0 && (
                  <li className="text-quiet">
                    {count("learned.thumb", h.weighed, { share: Math.round(h.thumbLossShare * 1000) / 10 })}
                  </li>
                )}
              </ul>
            )}
            <ul className="grid gap-4">
              {said.data.learned
                .filter((l) => l.of === w)
                .map((l) => (
                  <One key={l.kind} l={l} onSet={(t) => void set(l, t)} />
                ))}
            </ul>
          </section>
        );
      })}
      {said.data.beliefs.length > 0 && (
        <section className="max-w-5xl" data-testid="beliefs">
          <h2 className="mb-2 border-b border-line pb-1 text-2xl">{say("learned.beliefs")}</h2>
          <ul className="grid gap-1">
            {said.data.beliefs.map((b) => (
              <li key={b.origin}>
                {say("learned.belief", {
                  what: has(`origin.${b.origin}`) ? told(`origin.${b.origin}`) : b.origin,
                  share: Math.round(b.share * 100),
                  right: b.right,
                  n: b.pieces,
                })}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

const percent = (f: number) => `${f >= 1 ? "+" : "−"}${Math.round(Math.abs(f - 1) * 100)} %`;

function One({ l, onSet }: { l: Lesson; onSet: (text: string) => void }) {
  const counted = l.records.filter((r) => r.counts);
  const left = l.records.filter((r) => !r.counts);
  const asked = left.filter((r) => r.why === "learn.asks");
  return (
    <li data-lesson={l.kind} data-n={l.n} data-off={l.off === true}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="narrow w-56 text-lg">{told(`learned.kind.${l.kind}`)}</span>
        <Band l={l} />
        <span className="w-64" data-testid="factor">
          {l.n === 0 && !l.measured
            ? say("learned.law")
            : `${percent(l.factor)} (${percent(l.low80)} … ${percent(l.high80)}), ${l.n === 0 ? say("learned.measured") : count("learned.pieces", l.n)}`}
        </span>
        <span className="flex gap-1.5">
          <button type="button" className="press" data-testid="switch" onClick={() => onSet(l.off ? "on" : "off")}>
            {say(l.off ? "learned.on" : "learned.off")}
          </button>
          <button type="button" className="press press-plain" onClick={() => onSet(l.fromMs ? "remember" : "forget")}>
            {say(l.fromMs ? "learned.remember" : "learned.forget")}
          </button>
        </span>
      </div>
      {asked.map((r) => (
        <p
          key={r.session}
          className="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 border-l-2 border-act pl-2"
          data-asked={r.session}
        >
          <span>
            {say("learned.asks", {
              piece: r.piece,
              ratio: percent(r.ratio),
              date: new Date(r.atMs).toLocaleDateString(locale()),
            })}
          </span>
          <button type="button" className="press" onClick={() => onSet(`count ${r.session}`)}>
            {say("learned.count")}
          </button>
          <button type="button" className="press press-plain" onClick={() => onSet(`leave ${r.session}`)}>
            {say("learned.leave")}
          </button>
        </p>
      ))}
      {l.n === 1 && <p className="text-sm text-quiet">{say("learned.onePiece")}</p>}
      <details className="mt-1">
        <summary className="cursor-pointer text-sm text-quiet">
          {count("learned.behind", counted.length, { left: left.length })}
        </summary>
        <HeldLine held={l.held} />
        <ul className="mt-1 grid gap-0.5 text-sm">
          {l.records.map((r) => (
            <li key={r.session} className={r.counts ? "" : "text-quiet"}>
              {new Date(r.atMs).toLocaleDateString(locale())} {r.piece}: {percent(r.ratio)}
              {r.why ? ` – ${told(r.why)}` : ""}
              {r.asked && (
                <button
                  type="button"
                  className="ml-2 underline"
                  onClick={() => onSet(`${r.counts ? "leave" : "count"} ${r.session}`)}
                >
                  {say(r.counts ? "learned.leave" : "learned.count")}
                </button>
              )}
            </li>
          ))}
        </ul>
      </details>
    </li>
  );
}
