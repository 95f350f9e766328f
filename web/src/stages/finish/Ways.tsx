import { useUnits } from "../../api/hooks";
import { useDraft, useDraftState } from "../../draft/context";
import { figures, say, told } from "../../text/say";
import { print } from "../../units/print";
import { type Finished, useStill, type Way } from "./useFinish";

/** What the steel can still be, once readings or pits say that it is not what was planned. */
export function Ways({ f }: { f: Finished }) {
  const { doc } = useDraftState();
  const units = useUnits();
  const c = doc.request.finish;
  const found = (c?.readings?.length ?? 0) + (c?.pits?.length ?? 0) > 0;
  const { data } = useStill(found);
  if (!found || !data) return null;
  return (
    <section className="grid gap-1" data-testid="ways" data-short={f.map.short ? true : undefined}>
      <h2 className="text-lg">{say("way.title")}</h2>
      <ul className="grid gap-2">
        {data.map((w) => (
          <One key={w.what + (w.name ?? "")} way={w} units={units} />
        ))}
      </ul>
    </section>
  );
}

function One({ way: w, units }: { way: Way; units: string }) {
  const draft = useDraft();
  const plain = w.what === "asPlanned" || w.heat;
  return (
    <li className="border-l-2 border-line pl-3" data-way={w.what}>
      <span className="narrow text-lg">{told(`way.${w.what}`, { name: w.name ?? "" })}</span>
      {w.givenUpShare > 0 && !w.heat && (
        <span className="text-quiet"> · {say("way.gives", { share: `${Math.round(w.givenUpShare * 100)} %` })}</span>
      )}
      <span className="block">{told(`way.${w.what}.how`, figures(w.figures, units))}</span>
      {!w.heat && (
        <span className="block text-quiet">
          {say("way.weighs", {
            mass: print.mass(w.massG, units),
            balance: print.length(w.balanceMm, units),
            behind: print.thickness(Math.round(w.behindMm * 100) / 100, units),
          })}
          {w.wallMm > 0 && `, ${say("way.wall", { wall: print.thickness(Math.round(w.wallMm * 10) / 10, units) })}`}
        </span>
      )}
      {!w.heat && (w.patternShare ?? 0) > 0 && (
        <span className="block text-quiet" data-testid="way-pattern">
          {say("way.patternLeft", { share: `${Math.round((w.patternShare ?? 0) * 100)} %` })}
          {w.patternShows && `: ${told(`wish.${w.patternShows}`).toLowerCase()}`}
        </span>
      )}
      {!plain && (
        <button
          type="button"
          className="press mt-1"
          onClick={() =>
            draft.choose(
              "finish.take",
              JSON.stringify({ design: w.design, readings: w.readings, pits: w.pits, was: w.was }),
            )
          }
        >
          {say("way.take")}
        </button>
      )}
    </li>
  );
}
