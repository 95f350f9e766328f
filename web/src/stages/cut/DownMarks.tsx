import type { Plan } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraftState } from "../../draft/context";
import { figures, say, told } from "../../text/say";
import { print } from "../../units/print";

/** The bar that comes of a lump, and where the chalk goes on it. */
export function DownMarks({ down }: { down: NonNullable<Plan["bar"]["down"]> }) {
  const units = useUnits();
  return (
    <table className="mt-3 w-full" data-testid="down-marks">
      <caption className="narrow mb-1 border-b border-line text-left text-lg">
        {say("cut.down", {
          width: print.length(down.widthMm, units),
          thickness: print.thickness(Math.round(down.thicknessMm * 10) / 10, units),
          length: print.length(down.lengthMm, units),
        })}
      </caption>
      <tbody className="narrow text-[17px]">
        {down.marks.map((m) => (
          <tr key={m.zone}>
            <th scope="row" className="py-0.5 text-left font-medium">
              {say(`zone.${m.zone}`)}
            </th>
            <td className="text-right">{print.length(m.toMm, units)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What is done to the piece before the first heat. */
export function PrepList() {
  const { plan } = useDraftState();
  const units = useUnits();
  return (
    <section data-testid="prep">
      <h2 className="narrow mb-1.5 border-b border-line text-lg">{say("prep.title")}</h2>
      <ol className="grid gap-2">
        {plan.prep.map((p) => (
          <li key={p.code} data-prep={p.code}>
            {told(p.code, figures(p.figures, units))}
            {p.cautionCodes.map((c) => (
              <span key={c} className="block border-l-[3px] border-ember pl-2 text-sm">
                {told(c)}
              </span>
            ))}
          </li>
        ))}
      </ol>
    </section>
  );
}
