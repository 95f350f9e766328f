import type { Stock } from "../api/client";
import { useSalvage } from "../api/hooks";
import { say, told } from "../text/say";
import { Group } from "../ui/Group";
import type { Item } from "./useItem";

/** What is dangerous about a piece: some of it forbids it for good, the rest wants seeing to. */
export function HazardPanel({ item, edit }: { item: Stock; edit: Item }) {
  const table = useSalvage();
  const on = item.hazards ?? [];
  const seen = item.acknowledged ?? [];
  const rest = (table.data?.hazards ?? []).filter((h) => !on.includes(h.id));
  return (
    <Group title={say("rack.hazards")}>
      <ul className="col-span-2 grid gap-2">
        {on.length === 0 && <li className="text-quiet">{say("rack.noHazards")}</li>}
        {(table.data?.hazards ?? [])
          .filter((h) => on.includes(h.id))
          .map((h) => (
            <li
              key={h.id}
              className={`border-l-[3px] pl-2 ${h.refuse || !seen.includes(h.id) ? "border-ember" : "border-quiet text-quiet"}`}
              data-hazard={h.id}
            >
              <p className={h.refuse ? "font-semibold" : ""}>{told(`hazard.${h.id}`)}</p>
              <div className="flex flex-wrap items-center gap-3">
                {!h.refuse && (
                  <label className="flex min-h-9 items-center gap-2">
                    <input
                      type="checkbox"
                      checked={seen.includes(h.id)}
                      onChange={(e) => void edit.save(`seen.${h.id}`, e.target.checked ? "on" : "off")}
                    />
                    {say("hazard.seen")}
                  </label>
                )}
                <button
                  type="button"
                  className="press press-plain"
                  onClick={() => void edit.save(`hazard.${h.id}`, "off")}
                >
                  {say("rack.hazardNot")}
                </button>
              </div>
            </li>
          ))}
      </ul>
      <label className="col-span-2 grid gap-1">
        <span className="text-sm text-quiet">{say("rack.hazardAdd")}</span>
        <select
          className="pick"
          value=""
          onChange={(e) => e.target.value && void edit.save(`hazard.${e.target.value}`, "on")}
          data-field="hazard"
        >
          <option value="">–</option>
          {rest.map((h) => (
            <option key={h.id} value={h.id}>
              {told(`hazard.short.${h.id}`)}
            </option>
          ))}
        </select>
      </label>
    </Group>
  );
}
