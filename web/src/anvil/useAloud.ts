import { useEffect, useRef } from "react";
import { say } from "../text/say";
import type { Shown } from "./core";
import { speak, tone } from "./sound";

/** What was last told aloud, so that nothing is told twice. */
const high = 880;
const low = 330;

/** Tells aloud what a smith cannot look at: the last three seconds, that it is cold, that it is hot, what comes next. */
export function useAloud(shown: Shown, next: string, quiet: boolean): void {
  const told = useRef("");
  const v = shown.view;
  const left = Math.ceil(v.leftS);
  const now =
    v.phase === "out" && v.last && left > 0
      ? `last${left}`
      : v.phase === "out" && v.cold
        ? "cold"
        : v.phase === "fire" && v.hot
          ? "hot"
          : `${v.phase}${v.step}`;
  useEffect(() => {
    const key = `${v.trip} ${now}`;
    if (told.current === key) return;
    const first = told.current === "";
    told.current = key;
    if (quiet || first) return;
    if (now.startsWith("last")) {
      tone(high, 0.12);
      speak(String(left));
    } else if (now === "cold") {
      tone(low, 0.7);
      speak(say("anvil.saidCold"));
    } else if (now === "hot") {
      tone(high, 0.5);
      speak(say("anvil.saidHot"));
    } else if (next) speak(next);
  }, [now, v.trip, quiet, next, left]);
}
