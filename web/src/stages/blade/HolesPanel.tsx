import { useDraft, useDraftPart } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField } from "../../ui/DraftField";

/** Holes through the tang, for pins. */
export function HolesPanel() {
  const draft = useDraft();
  const n = useDraftPart((s) => s.doc.request.design.tang.holes?.length ?? 0);
  const kind = useDraftPart((s) => s.doc.request.design.tangKind);
  const wrong = useDraftPart((s) => s.errors["design.hole"]?.message);
  if (kind === "rod" || kind === "wrapped") return null;
  return (
    <>
      {Array.from({ length: n }, (_, i) => {
        const name = (f: string) => told(`field.name.hole.${f}`, { n: i + 1 });
        const field = `design.tang.holes.${i}`;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a hole is named by its place in the list
          <div key={i} className="col-span-2 grid grid-cols-[1fr_1fr_auto] items-end gap-x-3" data-hole={i}>
            <DraftField field={`${field}.atMm`} label={name("atMm")} />
            <DraftField field={`${field}.diameterMm`} label={name("diameterMm")} />
            <button
              type="button"
              className="press"
              aria-label={say("holes.delete", { n: i + 1 })}
              title={say("holes.delete", { n: i + 1 })}
              onClick={() => draft.choose("design.hole", `delete ${i}`)}
            >
              ×
            </button>
          </div>
        );
      })}
      <button type="button" className="press self-end" onClick={() => draft.choose("design.hole", "add")}>
        {say("holes.add")}
      </button>
      {wrong && (
        <p role="alert" className="col-span-2 text-ember">
          {wrong}
        </p>
      )}
    </>
  );
}
