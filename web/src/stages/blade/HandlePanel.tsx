import { useUnits } from "../../api/hooks";
import { useDraft, useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Figure } from "../../ui/Figure";
import { Group } from "../../ui/Group";
import { Typed } from "../../ui/Typed";
import { print } from "../../units/print";
import { gripMaterials } from "./materials";

const fittings = [
  "steel",
  "brass",
  "bronze",
  "nickelSilver",
  "aluminium",
  "horn",
  "boneOrAntler",
  "denseWood",
  "laminate",
];
const parts = ["guard", "bolster", "pommel"] as const;
const gripFields = ["lengthMm", "widthMm", "frontHeightMm", "midHeightMm", "buttHeightMm", "topDropMm", "buttDropMm"];

const materials = (codes: string[]) => codes.map((v) => ({ value: v, label: told(`material.${v}`) }));

/** Handle and fittings: weight, balance, the wall around the tang, and whether it flows and points true. */
export function HandlePanel() {
  const { doc, plan } = useDraftState();
  const units = useUnits();
  const { handle, tangKind } = doc.request.design;
  const bare = tangKind === "rod" || tangKind === "wrapped";
  const w = plan.whole;
  return (
    <Group title={say("handle.title")} term="handle" fold="handle">
      {!bare && (
        <DraftPick
          field="design.handle"
          label={say("field.name.design.handle")}
          value={handle ? "drawn" : "none"}
          options={["none", "drawn"].map((v) => ({ value: v, label: told(`handle.${v}`) }))}
        />
      )}
      {handle && (
        <DraftPick
          field="design.handle.material"
          label={say("field.name.design.handle.material")}
          options={materials(gripMaterials)}
        />
      )}
      <Hand />
      {handle && (
        <>
          {gripFields.map((f) => (
            <DraftField key={f} field={`design.handle.${f}`} label={told(`field.name.design.handle.${f}`)} />
          ))}
          {parts.map((p) => (
            <FittingFields key={p} part={p} there={handle[p].lengthMm > 0} />
          ))}
          <dl className="col-span-2 grid gap-1 text-[15px]" data-testid="whole-figures">
            <Figure name={say("handle.whole")} value={print.mass(w.massG, units)} />
            <Figure name={say("handle.balance")} value={print.length(w.balanceFromPointMm, units)} />
            <Figure
              name={say(tangKind === "full" ? "handle.scale" : "handle.wall")}
              value={print.thickness(w.leastWallMm, units)}
            />
            <Figure name={say("handle.step")} value={step(w.stepMm, (mm) => print.length(mm, units))} />
            <Figure name={say("handle.push")} value={push(w.pointAngleDeg)} />
          </dl>
          <p className="col-span-2 text-sm text-quiet">{say("handle.dust")}</p>
        </>
      )}
    </Group>
  );
}

function step(mm: number, show: (mm: number) => string): string {
  if (Math.abs(mm) < 0.05) return say("handle.flush");
  return say(mm > 0 ? "handle.stepDown" : "handle.stepUp", { step: show(Math.abs(mm)) });
}

function push(deg: number): string {
  if (Math.abs(deg) < 0.5) return say("handle.inLine");
  return say(deg > 0 ? "handle.pushUp" : "handle.pushDown", { angle: Math.abs(deg).toFixed(0) });
}

/** A fitting: its length alone until there is one. */
function FittingFields({ part, there }: { part: (typeof parts)[number]; there: boolean }) {
  const name = (f: string) => told(`field.name.fitting.${f}`, { part: say(`handle.${part}`) });
  const field = (f: string) => `design.handle.${part}.${f}`;
  return (
    <>
      <DraftField field={field("lengthMm")} label={name("lengthMm")} />
      {there && (
        <>
          <DraftPick field={field("material")} label={name("material")} options={materials(fittings)} />
          <DraftField field={field("heightMm")} label={name("heightMm")} />
          <DraftField field={field("widthMm")} label={name("widthMm")} />
        </>
      )}
    </>
  );
}

const usualHand = { breadth: 88, length: 188 };

/** Sizes grip and tang to a hand. */
function Hand() {
  const draft = useDraft();
  const units = useUnits();
  const { doc, typed, errors } = useDraftState();
  const h = doc.request.design.handle;
  const size = (breadth: number, length: number) =>
    `${print.edit("breadthMm", breadth, units)}; ${print.edit("lengthMm", length, units)}`;
  const value = size(h?.handBreadthMm || usualHand.breadth, h?.handLengthMm || usualHand.length);
  return (
    <div className="col-span-2 grid grid-cols-[1fr_auto] items-end gap-x-3">
      <Typed
        field="design.hand"
        label={say("handle.hand")}
        value={value}
        text={typed["design.hand"]}
        error={errors["design.hand"]}
        hint={say("handle.handHelp")}
        onType={(t) => draft.type("design.hand", t)}
        onRevert={() => draft.revert("design.hand")}
        onDone={() => void draft.flush()}
      />
      <button
        type="button"
        className="press"
        onClick={() => draft.choose("design.hand", typed["design.hand"] ?? value)}
        data-testid="fit-hand"
      >
        {say("handle.fit")}
      </button>
    </div>
  );
}
