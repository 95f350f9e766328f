import { Check } from "lucide-react";
import { useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { say, told } from "../text/say";
import { print } from "../units/print";

type Schemas = components["schemas"];
type Mark = Schemas["PracticePlayed"]["marks"][number];

const middle = (m: Mark) => ((m.fromMm ?? 0) + (m.toMm ?? 0)) / 2;
/** How long the stretch of a goal is; one of a whole piece is as long as can be. */
const stretch = (m: Mark) => ((m.toMm ?? 0) > 0 ? (m.toMm ?? 0) - (m.fromMm ?? 0) : 1e6);

/** How the piece stands: its goals, what it took against a steady hand, what is wrong with it. */
export function Marks({
  ex,
  p,
  undone,
}: {
  ex: Schemas["PracticeExercise"];
  p: Schemas["PracticePlayed"];
  undone: number;
}) {
  const units = useUnits();
  const mm = (v: number) => print.thickness(Math.round(v * 10) / 10, units);
  const wanted = (m: Mark) =>
    m.what === "noCold" || m.what === "broken"
      ? "0"
      : m.what === "straight"
        ? say("practice.within", { mm: mm(m.withinMm ?? 0) })
        : m.endMm
          ? say("practice.taperTo", { a: mm(m.wantMm ?? 0), b: mm(m.endMm) })
          : mm(m.wantMm ?? 0);
  return (
    <section className="grid content-start gap-4" data-testid="marks">
      <table className="w-full">
        <thead>
          <tr className="text-left text-sm text-quiet">
            <td />
            <th scope="col">{say("practice.want")}</th>
            <th scope="col">{say("practice.is")}</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {p.marks.map((m) => (
            <tr
              key={`${m.what} ${m.fromMm} ${m.wantMm}`}
              className="border-t border-line align-top"
              data-goal={m.what}
              data-met={m.met}
            >
              <th scope="row" className="py-1 pr-2 text-left font-normal">
                {stretch(m) < 10
                  ? told(`practice.at.${m.what}`, { at: print.length(Math.round(middle(m)), units) })
                  : told(`practice.goal.${m.what}`, {
                      from: print.length(m.fromMm ?? 0, units),
                      to: print.length(m.toMm ?? 0, units),
                    })}
              </th>
              <td className="py-1 pr-2 whitespace-nowrap tabular-nums">
                {wanted(m)}
                {m.withinMm && m.what !== "straight" ? ` ± ${mm(m.withinMm)}` : ""}
              </td>
              <td className={`py-1 pr-2 whitespace-nowrap tabular-nums ${m.met ? "" : "text-ember"}`}>
                {m.what === "noCold"
                  ? m.isMm
                  : m.what === "broken"
                    ? `${Math.round(m.isMm * 100)} %`
                    : m.isMm > 0 || m.what === "straight"
                      ? mm(m.isMm)
                      : "–"}
              </td>
              <td className="py-1">{m.met && <Check size={16} className="text-act" aria-hidden />}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="grid gap-1 tabular-nums">
        <li>{say("practice.heats", { n: p.heats, par: ex.parHeats })}</li>
        <li>
          {say("practice.blowsOf", { n: p.blows, par: ex.parBlows })}
          {p.coldBlows > 0 && <span className="text-ember"> {say("practice.cold", { n: p.coldBlows })}</span>}
        </li>
        <li>{say("practice.length", { mm: print.length(p.lengthMm, units) })}</li>
        <li>{say("practice.scale", { mass: print.mass(p.scaleG, units) })}</li>
        {p.strayMm > 0.3 && <li>{say("practice.stray", { mm: mm(p.strayMm) })}</li>}
        {p.pitMm > 0.02 && (
          <li>{say("practice.pits", { mm: print.thickness(Math.round(p.pitMm * 100) / 100, units) })}</li>
        )}
        {undone > 0 && <li className="text-quiet">{say("practice.undone", { n: undone })}</li>}
      </ul>
      {p.faults.length > 0 && (
        <ul className="grid gap-1" data-testid="faults">
          {p.faults.map((f) => (
            <li key={f.kind + f.atMm} className="border-l-2 border-ember pl-3" data-fault={f.kind}>
              {told(`practice.fault.${f.kind}`, { at: print.length(Math.round(f.atMm), units) })}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
