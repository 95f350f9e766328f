import { useDraftPart } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";

const zones = ["pointFaceMm", "ricassoFaceMm", "tangFaceMm", "spineMm", "edgeMm", "pointMm"];

/** Allowances zone by zone, where one wants another than the rest. */
export function AllowanceZones() {
  const own = useDraftPart((s) => !!s.doc.request.allowances.zones);
  return (
    <>
      <DraftPick
        field="allowances.zones"
        label={say("field.name.allowances.zones")}
        value={own ? "own" : "same"}
        options={["same", "own"].map((v) => ({ value: v, label: told(`zones.${v}`) }))}
      />
      {own &&
        zones.map((f) => (
          <DraftField key={f} field={`allowances.zones.${f}`} label={told(`field.name.allowances.zones.${f}`)} />
        ))}
    </>
  );
}
