import { memo, useEffect, useState } from "react";
import type { Forging } from "../../api/client";
import { useDraft, useDraftPart } from "../../draft/context";
import { say, told } from "../../text/say";
import { Pick } from "../../ui/Pick";
import { diesOf, type MachineKind } from "./machine";

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

/** What works an operation: machine and dies, or the face that strikes and what lies under it, with the
 * share of the thinning that they send into width. */
export const ToolPicks = memo(function ToolPicks({
  id,
  kind,
  forging: f,
}: {
  id: string;
  kind: string;
  forging: Forging;
}) {
  const draft = useDraft();
  const own = useDraftPart((s) => s.doc.request.choices.tools?.find((t) => t.operation === id));
  const named = (part: string, values: string[]) => values.map((v) => ({ value: v, label: told(`${part}.${v}`) }));
  const pick = (
    part: "face" | "support" | "by" | "dies",
    value: string,
    values: string[],
    options = named(part, values),
  ) => (
    <Pick
      label={say(`tool.${part}`)}
      value={value}
      field={`tool.${id}.${part}`}
      options={options}
      onPick={(v) => draft.choose(`tool.${id}.${part}`, v)}
    />
  );
  const rolls = kind === "breakDown" ? ["rollingMill"] : [];
  const trues = ["straighten", "correct", "planish"].includes(kind); // by hand unless a machine is asked for
  return (
    <div className="grid grid-cols-2 gap-2 py-1" data-testid="tool">
      {pick("by", own?.by || (trues ? "hand" : "quicker"), [
        ...(trues ? [] : ["quicker"]),
        "hand",
        "striker",
        "powerHammer",
        "press",
        ...rolls,
      ])}
      {f.machine && f.dies && pick("dies", f.dies, [], diesOf(f.machine as MachineKind))}
      {!f.machine && !!f.spreadGiven && (
        <>
          {pick("face", f.face ?? "flat", ["flat", "round", "peenAcross", "peenAlong"])}
          {pick("support", f.support || "face", ["face", "horn", "edge", "fuller"])}
        </>
      )}
      {!!f.spreadGiven && (
        <p className="col-span-2 text-[15px]" data-testid="tool-spread">
          {say(f.spreadNeeded ? "tool.spread" : "tool.hold", {
            given: share(f.spreadGiven),
            needed: share(f.spreadNeeded),
          })}
        </p>
      )}
      {own && (
        <button
          type="button"
          className="press col-span-2 justify-self-start"
          onClick={() => draft.choose(`tool.${id}`, "planner")}
        >
          {say("tool.planner")}
        </button>
      )}
    </div>
  );
});

const share = (s = 0) => `${Math.round(s * 100)} %`;
