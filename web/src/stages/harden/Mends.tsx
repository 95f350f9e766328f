import { say, told } from "../../text/say";
import { print } from "../../units/print";
import type { Advice } from "./useAdvice";

/** What to do when the blade stays soft, bends or cracks: closed until it is wanted. */
export function Mends({ advice, units }: { advice: Advice; units: string }) {
  return (
    <section className="grid gap-1" data-testid="mends">
      <h2 className="text-lg">{say("mend.title")}</h2>
      {advice.mends.map((m) => (
        <details key={m.when} className="border-t border-line py-1" data-mend={m.when}>
          <summary className="cursor-pointer py-1">{told(`mend.when.${m.when}`)}</summary>
          <ol className="grid list-decimal gap-1 pb-2 pl-5 marker:text-quiet">
            {m.do.map((d) => (
              <li key={d.code}>
                {told(d.code, {
                  bath: d.bath ? told(`bath.${d.bath}`).toLowerCase() : "",
                  long: print.length(d.longMm ?? 0, units),
                })}
              </li>
            ))}
          </ol>
        </details>
      ))}
    </section>
  );
}
