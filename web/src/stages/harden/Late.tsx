import { useDraft, useDraftPart } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftPick } from "../../ui/DraftField";
import { Group } from "../../ui/Group";

const works = ["drill", "bend", "braze"] as const;

/** What is done on soft steel: before the quench, or after it where it is wanted all the same. */
export function Late({ treatment }: { treatment?: { late?: string[] | null } }) {
  return (
    <Group title={say("late.title")}>
      {works.map((w) => (
        <One key={w} work={w} on={treatment?.late?.includes(w) ?? false} />
      ))}
    </Group>
  );
}

function One({ work, on }: { work: (typeof works)[number]; on: boolean }) {
  const draft = useDraft();
  const field = `treatment.late.${work}`;
  const refused = useDraftPart((s) => s.errors[field]);
  return (
    <div>
      <DraftPick
        field={field}
        label={told(`field.name.${field}`)}
        value={on ? "yes" : "no"}
        options={["no", "yes"].map((v) => ({ value: v, label: told(`late.${v}`) }))}
      />
      {refused && (
        <button
          type="button"
          className="press mt-1"
          data-testid={`force-${work}`}
          onClick={() => {
            draft.revert(field);
            draft.choose(field, "forced");
          }}
        >
          {say("late.force")}
        </button>
      )}
    </div>
  );
}
