import heatColours from "../../../core/steel/heatcolours.json";
import { useUnits } from "../api/hooks";
import { glow } from "../bench/glow";
import { say, told } from "../text/say";
import { print } from "../units/print";

/** The colours of hot steel by the words of the shop's school, each painted as it is. */
export function HeatScale() {
  const units = useUnits();
  const at = units.split(",").includes("sooner") ? "soonerC" : "usualC";
  return (
    <figure className="max-w-3xl" data-testid="heat-scale">
      <figcaption className="mb-1 text-quiet">{say("heatScale.title")}</figcaption>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(8.5rem,1fr))] gap-x-3 gap-y-1.5">
        {heatColours.slice(1).map((h) => (
          <li key={h.name} className="flex items-center gap-2">
            <span
              className="inline-block h-6 w-8 shrink-0 rounded-sm"
              style={{ background: glow(h[at]) }}
              aria-hidden
            />
            <span className="leading-tight">
              {told(`colour.${h.name}`)}
              <span className="block text-sm text-quiet">{print.temperature(h[at], units)}</span>
            </span>
          </li>
        ))}
      </ul>
    </figure>
  );
}
