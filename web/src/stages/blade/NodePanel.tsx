import { useUnits } from "../../api/hooks";
import type { NodeRef, Side } from "../../bench/Nodes";
import { useDraft, useDraftState } from "../../draft/context";
import { say } from "../../text/say";
import { Pick } from "../../ui/Pick";
import { Typed } from "../../ui/Typed";
import { print } from "../../units/print";
import { OutlineFile } from "./OutlineFile";

interface Props {
  chosen?: NodeRef;
  onChoose: (n: NodeRef | undefined) => void;
}

/** The outline by number: a node is picked from the list, typed, turned or taken out. */
export function NodePanel({ chosen, onChoose }: Props) {
  const draft = useDraft();
  const units = useUnits();
  const { plan, typed, errors, doc } = useDraftState();
  const nodes = { spine: plan.nodes.spine, edge: plan.nodes.edge };
  const at = chosen ?? { side: "spine" as Side, index: 0 };
  const node = nodes[at.side][at.index] ?? [0, 0];
  const field = `outline.${at.side}.${at.index}`;
  const corners = (at.side === "spine" ? plan.nodes.spineCorners : plan.nodes.edgeCorners) ?? [];
  const end = at.index === 0 || at.index === nodes[at.side].length - 1;
  const where = `${at.side} ${at.index}`;
  const options = (["spine", "edge"] as const).flatMap((side) =>
    nodes[side].map((n, i) => ({
      value: `${side} ${i}`,
      label: say("outline.node", { side: say(`outline.${side}`), n: i + 1 }),
      note: `${print.length(n[0] ?? 0, units)}; ${print.length(n[1] ?? 0, units)}`,
    })),
  );
  const middle = (side: Side) => {
    // a new node goes into the longest gap
    const list = nodes[side];
    let best = 0;
    for (let i = 1; i < list.length - 1; i++)
      if ((list[i + 1]?.[0] ?? 0) - (list[i]?.[0] ?? 0) > (list[best + 1]?.[0] ?? 0) - (list[best]?.[0] ?? 0)) best = i;
    return `${side} ${(((list[best]?.[0] ?? 0) + (list[best + 1]?.[0] ?? 0)) / 2).toFixed(2)}mm`;
  };
  const stored = `${print.edit("xMm", node[0] ?? 0, units)}; ${print.edit("yMm", node[1] ?? 0, units)}`;
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
        label={`${say("outline.x")}; ${say("outline.y")}`}
        text={typed[field]}
        error={errors[field]}
        onType={(t) => draft.type(field, t)}
        onRevert={() => draft.revert(field)}
        onDone={() => void draft.flush()}
      />
      <div className="flex flex-wrap gap-1.5">
        <button type="button" className="press" disabled={end} onClick={() => draft.choose("outline.corner", where)}>
          {say(corners.includes(at.index) ? "outline.smooth" : "outline.corner")}
        </button>
        <button
          type="button"
          className="press"
          disabled={end}
          onClick={() => {
            draft.choose("outline.delete", where);
            onChoose(undefined);
          }}
        >
          {say("outline.delete")}
        </button>
        <button type="button" className="press" onClick={() => draft.choose("outline.add", middle("spine"))}>
          {say("outline.addSpine")}
        </button>
        <button type="button" className="press" onClick={() => draft.choose("outline.add", middle("edge"))}>
          {say("outline.addEdge")}
        </button>
        <OutlineFile />
        {["diamond", "lens"].includes(doc.request.design.grind.kind) && (
          <button type="button" className="press" onClick={() => draft.choose("outline.mirror", "")}>
            {say("outline.mirror")}
          </button>
        )}
      </div>
    </div>
  );
}
