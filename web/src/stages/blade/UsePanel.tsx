import { useUnits } from "../../api/hooks";
import { useDraftState } from "../../draft/context";
import { say } from "../../text/say";
import { DraftPick } from "../../ui/DraftField";
import { print, type System } from "../../units/print";
import { Group } from "./BladePanel";

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
];

const shown: Record<string, (v: number, s: System) => string> = {
  weight: print.mass,
  balance: print.length,
  behind: print.thickness,
  stiff: print.moment,
};

/** The finished blade against what is usual for its use: a sentence where it is not. */
export function UsePanel() {
  const { plan, doc } = useDraftState();
  const units = useUnits();
  return (
    <Group title={say("use.title")}>
      <div className="col-span-2">
        <DraftPick
          field="design.use"
          label={say("field.name.design.use")}
          value={doc.request.design.use ?? ""}
          options={uses.map((u) => ({ value: u, label: say(`use.${u}`) }))}
        />
      </div>
      <ul className="col-span-2 grid gap-1.5" data-testid="findings">
        {plan.findings.map((f) => {
          const p = shown[f.what] ?? print.length;
          const range =
            f.highest === 0
              ? say("use.from", { low: p(f.lowest, units) })
              : say("use.between", { low: p(f.lowest, units), high: p(f.highest, units) });
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
              <span className="block text-sm text-quiet">{say("use.usual", { range })}</span>
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
