import { memo } from "react";
import { useUnits } from "../../api/hooks";
import type { NodeRef, NodeRules } from "../../bench/Nodes";
import { useDraft, useDraftPart } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { print } from "../../units/print";
import { AllowanceZones } from "./AllowanceZones";
import { FlatBendPanel } from "./FlatBendPanel";
import { HandlePanel } from "./HandlePanel";
import { HolesPanel } from "./HolesPanel";
import { NodePanel } from "./NodePanel";
import type { PictureState } from "./PicturePanel";
import { SectionPanel } from "./SectionPanel";
import { TangForm } from "./TangForm";
import { UsePanel } from "./UsePanel";

const shapes = [
  "drop",
  "straightBack",
  "sheepsfoot",
  "spear",
  "trailing",
  "clip",
  "clipCurved",
  "brokenBack",
  "angled",
  "recurve",
  "belly",
  "sweep",
  "leaf",
  "doubleLeaf",
  "broad",
  "hooked",
  "sickle",
  "nosed",
  "beaked",
  "straightLong",
  "curvedLong",
];
const grinds = ["flat", "convex", "chisel", "hollow", "diamond", "lens", "rect"];
const schools = ["thick", "close", "flats"];

const options = (codes: string[], prefix: string) => codes.map((c) => ({ value: c, label: told(`${prefix}.${c}`) }));

interface Props {
  moving: boolean;
  onMoving: (on: boolean) => void;
  node?: NodeRef;
  onNode: (n: NodeRef | undefined) => void;
  /** Where the section is taken, as a share of the blade's length. */
  section: number;
  onSection: (share: number) => void;
  rules: NodeRules;
  onRules: (r: NodeRules) => void;
  picture: PictureState;
  onPicture: (p: PictureState) => void;
}

/** The blade by number: everything the forging needs to know about it. */
export const BladePanel = memo(function BladePanel(p: Props) {
  const { moving, onMoving, node, onNode, section, onSection } = p;
  const nodes = useDraftPart((s) => s.doc.request.design.taperNodes?.length ?? 0);
  const kind = useDraftPart((s) => s.doc.request.design.grind.kind);
  const tang = useDraftPart((s) => s.doc.request.design.tangKind);
  const side = useDraftPart((s) => s.doc.request.design.grind.bevelSide || "right");
  const setDeg = useDraftPart((s) => s.plan.bevelSetDeg ?? 0);
  const looped = useDraftPart((s) => {
    const t = s.doc.request.design.tang;
    return (t.loopMm ?? 0) > 0 && (t.loopEnd || "open");
  });
  const falseEdge = useDraftPart((s) => (s.doc.request.design.grind.swedgeFraction ?? 0) > 0);
  const own = useDraftPart((s) => !!s.doc.request.design.outline);
  const school = useDraftPart((s) => s.plan.school);
  const units = useUnits();
  const ricasso = print.length(
    useDraftPart((s) => s.doc.request.design.ricasso?.lengthMm ?? 0),
    units,
  );
  const tangLong = print.length(
    useDraftPart((s) => s.doc.request.design.tang?.lengthMm ?? 0),
    units,
  );
  return (
    <div className="grid gap-4">
      <Group title={say("blade.profile")}>
        <DraftPick
          field="design.shape"
          label={say("field.name.design.shape")}
          options={options(own ? [...shapes, "own"] : shapes, "shape")}
        />
        <F f="design.lengthMm" />
        <F f="design.heightMm" />
        <button
          type="button"
          className="press self-end"
          aria-pressed={moving}
          title={say("outline.editKey")}
          onClick={() => onMoving(!moving)}
        >
          {say("outline.edit")}
        </button>
        {moving && <NodePanel {...p} chosen={node} onChoose={onNode} />}
      </Group>
      <Group title={say("blade.taper")} term="distalTaper">
        <F f="design.spineMm" />
        <F f="design.tipMm" />
        {nodes === 0 && <F f="design.midMm" />}
      </Group>
      <Group title={say("blade.grind")} term="bevel">
        <DraftPick
          field="design.grind.kind"
          label={say("field.name.design.grind.kind")}
          options={options(grinds, "grind")}
        />
        <F f="design.grind.edgeMm" />
        {!["diamond", "lens", "rect"].includes(kind) && <F f="design.grind.bevelFraction" />}
        {kind === "chisel" && (
          <DraftPick
            field="design.grind.bevelSide"
            label={say("field.name.design.grind.bevelSide")}
            value={side}
            options={options(["right", "left"], "bevelSide")}
          />
        )}
        {["flat", "chisel", "hollow", "convex"].includes(kind) && (
          <DraftField field="design.setDeg" label={say("field.name.design.setDeg")} value={setDeg} />
        )}
        {kind === "hollow" && <F f="design.grind.wheelRadiusMm" />}
      </Group>
      <Group title={say("blade.grindMore")} fold="grindMore">
        {!["diamond", "lens", "rect"].includes(kind) && <F f="design.grind.pointBevelFraction" />}
        <F f="design.grind.pointEdgeMm" />
        <F f="design.grind.plungeMm" />
        <F f="design.grind.swedgeFraction" />
        {falseEdge && <F f="design.grind.swedgeEdgeMm" />}
        {falseEdge && <F f="design.grind.swedgeLongMm" />}
        <F f="design.choilMm" />
      </Group>
      <UsePanel />
      <SectionPanel at={section} onAt={onSection} />
      <Group title={say("zone.ricasso")} term="ricasso" fold="ricasso" brief={ricasso}>
        <F f="design.ricasso.lengthMm" />
        <F f="design.ricasso.heightMm" />
        <F f="design.ricasso.thicknessMm" />
        <F f="design.ricasso.notchMm" />
        <F f="design.ricasso.riseMm" />
      </Group>
      <FlatBendPanel />
      <Group title={say("zone.tang")} term="tang" fold="tang" brief={`${told(`tangKind.${tang}`)}, ${tangLong}`}>
        <DraftPick
          field="design.tangKind"
          label={say("field.name.design.tangKind")}
          options={options(["hidden", "full", "partial", "rod", "wrapped"], "tangKind")}
        />
        <F f="design.tang.lengthMm" />
        <TangForm />
        <F f="design.tang.thicknessAtShoulderMm" />
        <F f="design.tang.thicknessAtEndMm" />
        <F f="design.tang.shoulderRadiusMm" />
        <F f="design.tang.weldAtMm" />
        <F f="design.tang.curveMm" />
        {(tang === "rod" || tang === "wrapped") && (
          <>
            <F f="design.tang.twistTurns" />
            <F f="design.tang.loopMm" />
            {looped && (
              <DraftPick
                field="design.tang.loopEnd"
                label={say("field.name.design.tang.loopEnd")}
                value={looped}
                options={options(["open", "welded"], "loopEnd")}
              />
            )}
          </>
        )}
        <HolesPanel />
      </Group>
      <HandlePanel />
      <Group title={say("blade.allowances")} term="allowance" fold="allowances" brief={told(`school.${school}`)}>
        <DraftPick
          field="allowances.school"
          label={say("field.name.allowances.school")}
          value={school}
          options={options(school === "own" ? [...schools, "own"] : schools, "school")}
        />
        <F f="allowances.faceMm" />
        <F f="allowances.outlineMm" />
        <F f="allowances.forgingEdgeMm" />
        <AllowanceZones />
        <Suggestion />
      </Group>
    </div>
  );
});

/** What the plan would leave on each face: taken with one press, never silently. */
function Suggestion() {
  const draft = useDraft();
  const units = useUnits();
  const s = useDraftPart((d) => d.plan.suggested);
  const now = useDraftPart((d) => d.doc.request.allowances.faceMm);
  if (Math.abs(now - s.faceMm) < 0.001) return null;
  const face = print.thickness(s.faceMm, units);
  return (
    <div className="col-span-2 flex items-start gap-3 text-sm text-quiet" data-testid="suggestion">
      <p className="flex-1">
        {say("suggest.face", {
          face,
          decarb: print.thickness(s.decarbMm, units),
          marks: print.thickness(s.marksMm, units),
        })}
      </p>
      <button type="button" className="press" onClick={() => draft.choose("allowances.faceMm", `${s.faceMm}mm`)}>
        {say("suggest.take", { face })}
      </button>
    </div>
  );
}

const F = ({ f }: { f: string }) => <DraftField field={f} label={told(`field.name.${f}`)} />;
