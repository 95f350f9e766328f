import { useDraft, useDraftPart } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";

const none: { longMm?: number; made?: string }[] = [];

/** Holes through the tang, for pins, and slots that make it lighter. */
export function HolesPanel() {
  const draft = useDraft();
  const holes = useDraftPart((s) => s.doc.request.design.tang.holes ?? none);
  const kind = useDraftPart((s) => s.doc.request.design.tangKind);
  const wrong = useDraftPart((s) => s.errors["design.hole"]?.message);
  if (kind === "wrapped") return null;
  return (
    <>
      {holes.map((h, i) => {
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
            <DraftPick
              field={`${field}.made`}
              label={name("made")}
              value={h.made || "drilled"}
              options={["drilled", "punched"].map((v) => ({ value: v, label: told(`made.${v}`) }))}
            />
            {(h.longMm ?? 0) > 0 && (
              <>
                <DraftField field={`${field}.longMm`} label={name("longMm")} />
                <DraftField field={`${field}.offMm`} label={name("offMm")} />
              </>
            )}
          </div>
        );
      })}
      <button type="button" className="press self-end" onClick={() => draft.choose("design.hole", "add")}>
        {say("holes.add")}
      </button>
      {kind === "full" && (
        <button type="button" className="press self-end" data-slot onClick={() => draft.choose("design.hole", "slot")}>
          {say("holes.slot")}
        </button>
      )}
      {wrong && (
        <p role="alert" className="col-span-2 text-ember">
          {wrong}
        </p>
      )}
    </>
  );
}
