import { memo, useEffect, useState } from "react";
import type { Step } from "../../api/client";
import { useDraft, useDraftPart } from "../../draft/context";
import { say } from "../../text/say";
import { Pick } from "../../ui/Pick";

/** A heat that is looked at for so long has its tools laid out: not while the heats fly past. */
const settleMs = 100;

/** Whether what is looked at has been looked at for a moment. */
export function useStill(what: unknown): boolean {
  const [still, setStill] = useState<unknown>();
  useEffect(() => {
    const soon = setTimeout(() => setStill(what), settleMs);
    return () => clearTimeout(soon);
  }, [what]);
  return still === what;
}

/** The face that strikes and what lies under it, with the share of the thinning that they send into width. */
export const ToolPicks = memo(function ToolPicks({ op }: { op: Step }) {
  const draft = useDraft();
  const own = useDraftPart((s) => !!s.doc.request.choices.tools?.some((t) => t.operation === op.id));
  const pick = (part: "face" | "support", value: string, values: string[]) => (
    <Pick
      label={say(`tool.${part}`)}
      value={value}
      field={`tool.${op.id}.${part}`}
      options={values.map((v) => ({ value: v, label: say(`${part}.${v}`) }))}
      onPick={(v) => draft.choose(`tool.${op.id}.${part}`, v)}
    />
  );
  return (
    <div className="grid grid-cols-2 gap-2 py-1" data-testid="tool">
      {pick("face", op.face ?? "flat", ["flat", "round", "peenAcross", "peenAlong"])}
      {pick("support", op.support || "face", ["face", "horn", "edge", "fuller"])}
      <p className="col-span-2 text-[15px]" data-testid="tool-spread">
        {say(op.spreadNeeded ? "tool.spread" : "tool.hold", {
          given: share(op.spreadGiven),
          needed: share(op.spreadNeeded),
        })}
      </p>
      {own && (
        <button
          type="button"
          className="press col-span-2 justify-self-start"
          onClick={() => draft.choose(`tool.${op.id}`, "planner")}
        >
          {say("tool.planner")}
        </button>
      )}
    </div>
  );
});

const share = (s = 0) => `${Math.round(s * 100)} %`;
