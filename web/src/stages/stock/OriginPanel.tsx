import { useSalvage } from "../../api/hooks";
import { useDraft, useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { Pick } from "../../ui/Pick";

/** What the piece was before, what is dangerous about it, and the bar it is first broken down to. */
export function OriginPanel() {
  const draft = useDraft();
  const table = useSalvage();
  const { doc, plan } = useDraftState();
  const { origin } = doc.request;
  const seen = origin.acknowledged ?? [];
  return (
    <Group title={say("stock.origin")}>
      <div className="col-span-2">
        <Pick
          label={say("rack.origin")}
          value={origin.id || "bar"}
          onPick={(v) => draft.choose("origin", v)}
          options={(table.data?.origins ?? []).map((o) => ({ value: o.id, label: told(`origin.${o.id}`) }))}
          field="origin"
        />
      </div>
      <ul className="col-span-2 grid gap-2">
        {(origin.hazards ?? []).map((h) => {
          const refuse = table.data?.hazards.find((x) => x.id === h)?.refuse;
          return (
            <li
              key={h}
              className={`border-l-[3px] pl-2 ${seen.includes(h) ? "border-quiet text-quiet" : "border-ember"}`}
              data-hazard={h}
            >
              {told(`hazard.${h}`)}
              {!refuse && !seen.includes(h) && (
                <button
                  type="button"
                  className="press mt-1 block"
                  onClick={() => draft.choose("origin.acknowledge", h)}
                >
                  {say("hazard.seen")}
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {(plan.bar.down || doc.request.sizing.firstThicknessMm) && (
        <>
          <DraftField field="sizing.firstWidthMm" label={say("field.name.sizing.firstWidthMm")} />
          <DraftField field="sizing.firstThicknessMm" label={say("field.name.sizing.firstThicknessMm")} />
        </>
      )}
    </Group>
  );
}
