import { useState } from "react";
import type { Stock } from "../api/client";
import { useUnits } from "../api/hooks";
import { say, told } from "../text/say";
import { Group } from "../ui/Group";
import { Pick } from "../ui/Pick";
import { print } from "../units/print";
import type { Item } from "./useItem";

const whys = ["hole", "weld", "wear", "crack", "formedEdge", "head", "rib", "thin", "sawn", "other"];

/** Stretches that do not go into a blade. */
export function DeadPanel({ item, edit }: { item: Stock; edit: Item }) {
  const units = useUnits();
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const [low, setLow] = useState("");
  const [high, setHigh] = useState("");
  const [why, setWhy] = useState("hole");
  const wrong = edit.errors["dead.add"];
  const add = async () => {
    if (!(await edit.save("dead.add", `${from}; ${to}; ${why}${low || high ? `; ${low || 0}; ${high}` : ""}`))) return;
    setFrom("");
    setTo("");
    setLow("");
    setHigh("");
  };
  return (
    <Group title={say("rack.dead")}>
      <ul className="col-span-2">
        {(item.piece.dead ?? []).length === 0 && <li className="text-quiet">{say("rack.noDead")}</li>}
        {(item.piece.dead ?? []).map((d, i) => (
          <li key={`${d.fromMm}-${d.toMm}-${d.fromAcrossMm ?? 0}`} className="flex items-center gap-3" data-dead={i}>
            <span className="flex-1">
              {say((d.toAcrossMm ?? 0) > 0 ? "rack.deadAcross" : "rack.deadFromTo", {
                from: print.length(d.fromMm, units),
                to: print.length(d.toMm, units),
                low: print.length(d.fromAcrossMm ?? 0, units),
                high: print.length(d.toAcrossMm ?? 0, units),
                why: say(`why.dead.${d.why}`),
              })}
            </span>
            <button
              type="button"
              className="press press-plain"
              aria-label={say("rack.deadDelete", { n: i + 1 })}
              onClick={() => void edit.save("dead.delete", String(i))}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <form
        className="typed col-span-2 grid grid-cols-[1fr_1fr] items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void add();
        }}
      >
        {(
          [
            ["from", from, setFrom],
            ["to", to, setTo],
            ["across", low, setLow],
            ["acrossTo", high, setHigh],
          ] as const
        ).map(([name, value, set]) => (
          <label key={name} className="grid gap-1">
            <span className="text-sm text-quiet">{say(`rack.dead.${name}`)}</span>
            <input
              value={value}
              onChange={(e) => set(e.target.value)}
              data-field={`dead.${name}`}
              inputMode="decimal"
            />
          </label>
        ))}
        <Pick
          label={say("rack.dead.why")}
          value={why}
          onPick={setWhy}
          options={whys.map((w) => ({ value: w, label: told(`why.dead.${w}`) }))}
        />
        <button type="submit" className="press" disabled={!from.trim() || !to.trim()}>
          {say("rack.deadAdd")}
        </button>
      </form>
      {wrong && (
        <p role="alert" className="col-span-2 text-ember">
          {wrong.message}
        </p>
      )}
    </Group>
  );
}
