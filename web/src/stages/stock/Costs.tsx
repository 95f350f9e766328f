import { useUnits } from "../../api/hooks";
import { useDraft, useDraftPart, valueAt } from "../../draft/context";
import { say, told } from "../../text/say";
import { print, typedMm } from "../../units/print";
import { useCosts } from "./useAsked";

/** What one more millimetre of each figure costs in bar, weight and heats. */
export function Costs() {
  const units = useUnits();
  const costs = useCosts(true);
  if (!costs.data) return null;
  const signed = (text: string, v: number) => (v >= 0 ? `+${text}` : text);
  return (
    <section>
      <h2 className="narrow mb-1.5 border-b border-line text-lg">{say("costs.title")}</h2>
      <table className="w-full text-right text-[15px]" data-testid="costs">
        <tbody className="narrow">
          {costs.data.map((c) => (
            <tr key={c.field} className="border-b border-line">
              <th scope="row" className="py-0.5 text-left font-sans font-normal text-quiet">
                {told(`field.name.${c.field}`)}
                <Slide field={c.field} />
              </th>
              {c.cannot === "plan.cannot" ? (
                <td colSpan={3}>{say("plan.cannot")}</td>
              ) : (
                <>
                  <td>{signed(print.length(c.barMm, units), c.barMm)}</td>
                  <td>{signed(print.mass(c.massG, units), c.massG)}</td>
                  <td className="text-quiet">{say("costs.heats", { n: signed(c.heats.toFixed(1), c.heats) })}</td>
                </>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-quiet">{say("costs.note")}</p>
    </section>
  );
}

/** Moves a figure a fifth either way, the bar following. */
function Slide({ field }: { field: string }) {
  const draft = useDraft();
  const stored = useDraftPart((s) => Number(valueAt(s.piece.doc.request, field) ?? 0));
  const now = useDraftPart((s) => Number(valueAt(s.doc.request, field) ?? 0));
  const step = stored > 20 ? 0.5 : 0.1;
  return (
    <input
      type="range"
      className="block w-full accent-(--act)"
      min={Math.max(step, Math.round((stored * 0.8) / step) * step)}
      max={Math.round((stored * 1.2) / step) * step}
      step={step}
      value={now}
      aria-label={told(`field.name.${field}`)}
      data-slide={field}
      onChange={(e) => draft.type(field, typedMm(Number(e.target.value)))}
      onPointerUp={() => void draft.flush()}
    />
  );
}
