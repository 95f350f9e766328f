import { useSteels, useUnits } from "../../api/hooks";
import { useDraftPart } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Figure } from "../../ui/Figure";
import { Group } from "../../ui/Group";
import { print } from "../../units/print";

/** A bit of tool steel for the edge of a blade of softer steel: how it is joined, its size, and where it comes to lie. */
export function BitPanel() {
  const bit = useDraftPart((s) => s.doc.request.bit);
  const lies = useDraftPart((s) => s.plan.bar.bit);
  const steels = useSteels();
  const units = useUnits();
  const hard = (steels.data ?? []).filter((g) => (g.austenitiseC ?? 0) > 0);
  return (
    <Group title={say("bit.title")} fold="bit" brief={told(`bit.${bit?.kind ?? "none"}`)}>
      <DraftPick
        field="bit"
        label={say("field.name.bit")}
        value={bit?.kind ?? "none"}
        options={["none", "cleft", "edge", "wrapped"].map((v) => ({ value: v, label: told(`bit.${v}`) }))}
      />
      {bit && (
        <>
          <DraftPick
            field="bit.steelId"
            label={say("field.name.bit.steelId")}
            options={hard.map((g) => ({ value: g.id, label: g.name }))}
          />
          <DraftField field="bit.lengthMm" label={say("field.name.bit.lengthMm")} />
          <DraftField field="bit.widthMm" label={say("field.name.bit.widthMm")} />
          <DraftField field="bit.thicknessMm" label={say("field.name.bit.thicknessMm")} />
          {lies && (
            <dl className="col-span-2 grid gap-1 text-[15px]" data-testid="bit-figures">
              <Figure name={say("bit.reach")} value={print.length(lies.reachMm, units)} />
              <Figure name={say("bit.depth")} value={print.length(lies.depthMm, units)} />
            </dl>
          )}
          <p className="col-span-2 text-sm text-quiet">{say("bit.note")}</p>
        </>
      )}
    </Group>
  );
}
