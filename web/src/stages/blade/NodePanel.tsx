import { useUnits } from "../../api/hooks";
import { type NodeRef, type NodeRules, type Side, sideName } from "../../bench/Nodes";
import { useDraft, useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { Pick } from "../../ui/Pick";
import { Typed } from "../../ui/Typed";
import { print, typedMm } from "../../units/print";
import { OutlineFile } from "./OutlineFile";
import { PicturePanel, type PictureState } from "./PicturePanel";

interface Props {
  chosen?: NodeRef;
  onChoose: (n: NodeRef | undefined) => void;
  rules: NodeRules;
  onRules: (r: NodeRules) => void;
  picture: PictureState;
  onPicture: (p: PictureState) => void;
}

/** The outline by number: a node is picked from the list, typed, turned or taken out. */
export function NodePanel({ chosen, onChoose, rules, onRules, picture, onPicture }: Props) {
  const draft = useDraft();
  const units = useUnits();
  const { plan, typed, errors, doc } = useDraftState();
  const lengthMm = doc.request.design.lengthMm;
  const taper = (doc.request.design.taperNodes ?? []).map((n) => [n.atFraction * lengthMm, n.thicknessMm]);
  const nodes: Record<Side, number[][]> = {
    spine: plan.nodes.spine,
    edge: plan.nodes.edge,
    taper,
    tangTop: plan.tangNodes?.spine ?? [],
    tangBottom: plan.tangNodes?.edge ?? [],
  };
  const at = chosen ?? { side: "spine" as Side, index: 0 };
  const node = nodes[at.side][at.index] ?? [0, 0];
  const thick = at.side === "taper";
  const field = thick ? `taper.${at.index}` : `outline.${at.side}.${at.index}`;
  const ofTang = at.side === "tangTop" || at.side === "tangBottom";
  const corners =
    {
      spine: plan.nodes.spineCorners,
      edge: plan.nodes.edgeCorners,
      taper: [],
      tangTop: plan.tangNodes?.spineCorners,
      tangBottom: plan.tangNodes?.edgeCorners,
    }[at.side] ?? [];
  const end = !thick && (at.index === 0 || at.index === nodes[at.side].length - 1);
  const where = `${at.side} ${at.index}`;
  const options = (["spine", "edge", "taper", "tangTop", "tangBottom"] as const).flatMap((side) =>
    nodes[side].map((n, i) => ({
      value: `${side} ${i}`,
      label: say("outline.node", { side: sideName(side), n: i + 1 }),
      note: `${print.length(n[0] ?? 0, units)}; ${print.length(n[1] ?? 0, units)}`,
    })),
  );
  const middle = (side: Side) => {
    // a new node goes into the longest gap
    const list = side === "taper" ? [[0], ...taper, [lengthMm]] : nodes[side];
    let best = 0;
    for (let i = 1; i < list.length - 1; i++)
      if ((list[i + 1]?.[0] ?? 0) - (list[i]?.[0] ?? 0) > (list[best + 1]?.[0] ?? 0) - (list[best]?.[0] ?? 0)) best = i;
    return typedMm(((list[best]?.[0] ?? 0) + (list[best + 1]?.[0] ?? 0)) / 2, 2);
  };
  const stored = `${print.edit("xMm", node[0] ?? 0, units)}; ${print.edit(thick ? "thicknessMm" : "yMm", node[1] ?? 0, units)}`;
  return (
    <div className="col-span-2 grid gap-2 border-l-2 border-act pl-3" data-testid="node-panel">
      <p className="text-sm text-quiet">{say("outline.help")}</p>
      <Pick
        label={say("outline.list")}
        value={where}
        options={options}
        onPick={(v) => {
          const [side, i] = v.split(" ");
          onChoose({ side: side as Side, index: Number(i) });
        }}
      />
      <Typed
        field={field}
        value={stored}
        label={
          thick
            ? `${say("taper.at")}; ${say("taper.thickness")}`
            : `${say(ofTang ? "outline.xTang" : "outline.x")}; ${say("outline.y")}`
        }
        text={typed[field]}
        error={errors[field]}
        onType={(t) => draft.type(field, t)}
        onRevert={() => draft.revert(field)}
        onDone={() => void draft.flush()}
      />
      <div className="flex flex-wrap gap-1.5">
        <button
          type="button"
          className="press"
          disabled={end || thick}
          onClick={() => draft.choose("outline.corner", where)}
        >
          {say(corners.includes(at.index) ? "outline.smooth" : "outline.corner")}
        </button>
        <button
          type="button"
          className="press"
          disabled={end}
          onClick={() => {
            if (thick) draft.choose("taper.delete", String(at.index));
            else draft.choose("outline.delete", where);
            onChoose(undefined);
          }}
        >
          {say("outline.delete")}
        </button>
        <button type="button" className="press" onClick={() => draft.choose("outline.add", `spine ${middle("spine")}`)}>
          {say("outline.addSpine")}
        </button>
        <button type="button" className="press" onClick={() => draft.choose("outline.add", `edge ${middle("edge")}`)}>
          {say("outline.addEdge")}
        </button>
        {plan.tangNodes &&
          (["tangTop", "tangBottom"] as const).map((side) => (
            <button
              key={side}
              type="button"
              className="press"
              onClick={() => draft.choose("outline.add", `${side} ${middle(side)}`)}
            >
              {say(side === "tangTop" ? "outline.addTangTop" : "outline.addTangBottom")}
            </button>
          ))}
        <button type="button" className="press" onClick={() => draft.choose("taper.add", middle("taper"))}>
          {say("taper.add")}
        </button>
        <OutlineFile />
        {["diamond", "lens"].includes(doc.request.design.grind.kind) && (
          <button type="button" className="press" onClick={() => draft.choose("outline.mirror", "")}>
            {say("outline.mirror")}
          </button>
        )}
      </div>
      <Rules rules={rules} onRules={onRules} />
      <PicturePanel state={picture} onState={onPicture} />
    </div>
  );
}

/** What dragging keeps to. */
function Rules({ rules, onRules }: Pick<Props, "rules" | "onRules">) {
  const units = useUnits();
  const check = (name: "lockHeel" | "lockLength", code: string) => (
    <label className="flex min-h-9 items-center gap-2">
      <input
        type="checkbox"
        checked={rules[name]}
        onChange={(e) => onRules({ ...rules, [name]: e.target.checked })}
        data-rule={name}
      />
      {told(code)}
    </label>
  );
  return (
    <div className="grid grid-cols-2 items-end gap-x-3">
      <Pick
        label={say("snap.title")}
        value={rules.snap ?? units}
        options={["none", "mm", "in"].map((v) => ({ value: v, label: told(`snap.${v}`) }))}
        onPick={(v) => onRules({ ...rules, snap: v as NodeRules["snap"] })}
      />
      <div>
        {check("lockLength", "lock.length")}
        {check("lockHeel", "lock.heel")}
      </div>
    </div>
  );
}
