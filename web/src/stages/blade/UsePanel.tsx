import { useUnits } from "../../api/hooks";
import { findingPrint, usualRange } from "../../bench/Findings";
import { useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftPick } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { print } from "../../units/print";

const uses = [
  "utility",
  "kitchenDeep",
  "kitchenSlicer",
  "camp",
  "fighter",
  "hook",
  "chisel",
  "cleaver",
  "scribe",
  "fillet",
  "chopper",
  "sickle",
  "sword",
  "spoon",
];

/** The finished blade against what is usual for its use: a sentence where it is not. */
export function UsePanel() {
  const { plan, doc } = useDraftState();
  const units = useUnits();
  return (
    <Group title={say("use.title")} fold="use">
      <div className="col-span-2">
        <DraftPick
          field="design.use"
          label={say("field.name.design.use")}
          value={doc.request.design.use ?? ""}
          options={uses.map((u) => ({ value: u, label: told(`use.${u}`) }))}
        />
      </div>
      <ul className="col-span-2 grid gap-1.5" data-testid="findings">
        {plan.findings.map((f) => {
          const p = findingPrint[f.what] ?? print.length;
          return (
            <li
              key={f.what}
              data-finding={f.what}
              data-usual={f.usual}
              className={f.usual ? "" : "border-l-[3px] border-quiet pl-2"}
            >
              <span className="flex justify-between gap-2">
                <span className="text-quiet">{say(`finding.${f.what}`)}</span>
                <span className="narrow whitespace-nowrap">{p(f.value, units)}</span>
              </span>
              <span className="block text-sm text-quiet">{say("use.usual", { range: usualRange(f, units) })}</span>
              {!f.usual && (
                <span className="block text-sm">{say(`finding.${f.value < f.lowest ? "low" : "high"}.${f.what}`)}</span>
              )}
            </li>
          );
        })}
      </ul>
    </Group>
  );
}
