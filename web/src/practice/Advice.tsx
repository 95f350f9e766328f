import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import { useUnits } from "../api/hooks";
import { say, told } from "../text/say";
import { print } from "../units/print";
import type { Action, Play } from "./usePlay";

/** One thing in words: what, where, how often. */
function useInWords(): (a: Action) => string {
  const units = useUnits();
  return (a) => {
    const at = print.length(Math.round(a.atMm ?? 0), units);
    const n = a.blows ?? 0;
    switch (a.do) {
      case "fire":
        return say("practice.do.fire", { time: print.duration(a.seconds ?? 0), at });
      case "brush":
        return say("practice.do.brush");
      case "wait":
        return say("practice.do.wait", { time: print.duration(a.seconds ?? 0) });
      case "straighten":
      case "bend":
        return say(`practice.do.${a.do}`, { at, way: told(`practice.way.${a.way}`) });
    }
    const side =
      a.way === "end"
        ? ""
        : told(`practice.side.${a.way === "edge" ? "edge." : ""}${a.side === "far" ? "far" : "near"}`);
    const tool = [
      a.way === "flat" && a.face ? told(`face.${a.face}`) : "",
      a.support && a.support !== "face" ? told(`support.${a.support}`) : "",
    ].filter(Boolean);
    return say("practice.do.strike", {
      n,
      at,
      way: [told(`practice.way.${a.way}`), ...tool].join(", "),
      side: side.toLowerCase(),
    });
  };
}

/** What an experienced smith would do now, asked for once it is wanted, and done at a touch. */
export function Advice({ play, body }: { play: Play; body: object }) {
  const [on, setOn] = useState(() => localStorage.getItem("coldember.practice.advice") !== "off");
  const words = useInWords();
  const units = useUnits();
  const key = JSON.stringify(play.actions);
  const advice = useQuery({
    queryKey: ["advice", body, key, play.seed],
    queryFn: () =>
      ask(api.POST("/api/v1/practice/advice", { body: { ...body, seed: play.seed, actions: play.actions } })),
    enabled: on && !play.running,
    placeholderData: (last) => last,
    retry: false,
  });
  const a = advice.data;
  return (
    <div className="flex min-h-11 flex-wrap items-center gap-3" data-testid="advice">
      <label className="flex items-center gap-2 text-sm text-quiet">
        <input
          type="checkbox"
          checked={on}
          onChange={(e) => {
            setOn(e.target.checked);
            localStorage.setItem("coldember.practice.advice", e.target.checked ? "on" : "off");
          }}
        />
        {say("practice.advice")}
      </label>
      {on && a?.instead && (
        <p role="status" data-testid="advice-instead">
          {told(`practice.instead.${a.instead}`)}
          {a.worst &&
            ` ${say("practice.insteadWorst", {
              goal: told(`practice.short.${a.worst.what}`),
              at: print.length(Math.round(((a.worst.fromMm ?? 0) + (a.worst.toMm ?? 0)) / 2), units),
              is: print.thickness(a.worst.isMm, units),
              want: print.thickness(a.worst.wantMm ?? 0, units),
            })}`}
        </p>
      )}
      {on && a && !a.done && !a.instead && (
        <button
          type="button"
          className="press"
          disabled={advice.isPlaceholderData}
          onClick={() => play.act(a.action)}
          data-testid="advice-do"
          title={say("practice.adviceDo")}
        >
          {words(a.action)}
        </button>
      )}
    </div>
  );
}
