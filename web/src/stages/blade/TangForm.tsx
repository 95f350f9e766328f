import { useDraftPart } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";

const forms = ["even", "swell", "waist", "flared", "hooked", "dropped", "round", "grooved", "notched"];

/** How high the tang is: by figures, by the grip on it, or, of a full tang, by an outline of its own. */
export function TangForm() {
  const { tangKind, tang, handle } = useDraftPart((s) => s.doc.request.design);
  const full = tangKind === "full";
  const own = full && !!tang.outline;
  const plain = handle ? "grip" : "taper";
  const options = [
    { value: "plain", label: told(`tangForm.${plain}`) },
    ...(own ? [{ value: "own", label: say("tangForm.own") }] : []),
    ...forms.map((v) => ({ value: v, label: told(`tangForm.${v}`) })),
  ];
  const figures = own
    ? ["heightAtShoulderMm", "dropMm"]
    : full && handle
      ? []
      : ["heightAtShoulderMm", "heightAtEndMm", "dropMm"];
  return (
    <>
      {full && (
        <>
          <DraftPick
            field="design.tangForm"
            label={say("field.name.design.tangForm")}
            value={own ? "own" : "plain"}
            options={options}
          />
          <p className="col-span-2 text-sm text-quiet">{say("tangForm.note")}</p>
        </>
      )}
      {figures.map((f) => (
        <DraftField key={f} field={`design.tang.${f}`} label={told(`field.name.design.tang.${f}`)} />
      ))}
    </>
  );
}
