import type { Plan } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraftPart } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Figure } from "../../ui/Figure";
import { Group } from "../../ui/Group";
import { localNumber, print } from "../../units/print";

type Bent = NonNullable<Plan["drawing"]["bent"]>;

/** A blade bent flatwise over a form: its figures, what the bend asks of the steel, and how it looks when it is done. */
export function FlatBendPanel() {
  const bend = useDraftPart((s) => s.doc.request.design.flatBend);
  const bent = useDraftPart((s) => s.plan.drawing.bent);
  const units = useUnits();
  return (
    <Group
      title={say("flatBend.title")}
      fold="flatBend"
      brief={bend ? print.length(bend.radiusMm, units) : say("flatBend.none")}
    >
      <DraftPick
        field="design.flatBend"
        label={say("field.name.design.flatBend")}
        value={bend ? "bent" : "none"}
        options={["none", "bent"].map((v) => ({ value: v, label: told(`flatBend.${v}`) }))}
      />
      {bend && (
        <>
          <DraftField field="design.flatBend.radiusMm" label={say("field.name.design.flatBend.radiusMm")} />
          <DraftField field="design.flatBend.longMm" label={say("field.name.design.flatBend.longMm")} />
          <DraftField field="design.flatBend.axisDeg" label={say("field.name.design.flatBend.axisDeg")} />
          <DraftPick
            field="design.flatBend.hollow"
            label={say("field.name.design.flatBend.hollow")}
            options={["flat", "bevel"].map((v) => ({ value: v, label: told(`hollow.${v}`) }))}
          />
        </>
      )}
      {bent && (
        <>
          <dl className="col-span-2 grid gap-1 text-[15px]" data-testid="bend-figures">
            <Figure name={say("flatBend.form")} value={print.length(bent.formMm, units)} />
            <Figure name={say("flatBend.turn")} value={`${bent.turnDeg.toFixed(0)}°`} />
            <Figure name={say("flatBend.reach")} value={print.length(bent.reachMm, units)} />
            <Figure name={say("flatBend.depth")} value={print.length(bent.depthMm, units)} />
            <Figure name={say("flatBend.strain")} value={`${(100 * bent.strain).toFixed(0)} %`} />
            <Figure name={say("flatBend.edge")} value={localNumber(`${(100 * bent.edgeStrain).toFixed(1)} %`)} />
          </dl>
          <View loop={bent.side} name={say("flatBend.side")} />
          <View loop={bent.spine} name={say("flatBend.spine")} />
        </>
      )}
    </Group>
  );
}

/** One view of the bent blade at true proportion. */
function View({ loop, name }: { loop: Bent["side"]; name: string }) {
  const xs = loop.map((n) => n[0] ?? 0);
  const ys = loop.map((n) => -(n[1] ?? 0));
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [wide, high] = [Math.max(...xs) - left, Math.max(...ys) - top];
  const pad = 0.04 * Math.max(wide, high);
  return (
    <figure className="grid gap-1">
      <svg
        viewBox={`${left - pad} ${top - pad} ${wide + 2 * pad} ${high + 2 * pad}`}
        className="h-28 w-full"
        role="img"
        aria-label={`${say("flatBend.asBent")}, ${name}`}
      >
        <path
          d={`M${loop.map((n) => `${(n[0] ?? 0).toFixed(2)},${(-(n[1] ?? 0)).toFixed(2)}`).join("L")}Z`}
          fill="var(--zone-blade)"
          fillOpacity="0.4"
          stroke="var(--chalk)"
          strokeWidth="1.2"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <figcaption className="text-sm text-quiet">{`${say("flatBend.asBent")}, ${name}`}</figcaption>
    </figure>
  );
}
