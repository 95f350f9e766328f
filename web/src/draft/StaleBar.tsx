import { memo } from "react";
import { useUnits } from "../api/hooks";
import { has, say, told } from "../text/say";
import { print } from "../units/print";
import { useDraft, useDraftState, valueAt } from "./context";

/** Another window saved first: both are shown, and the smith says which stands. */
export const StaleBar = memo(function StaleBar() {
  const draft = useDraft();
  const s = useDraftState();
  const units = useUnits();
  if (s.save !== "stale") return null;
  const fields = Object.keys(s.typed);
  const theirs = (f: string) => {
    const v = valueAt(s.theirs?.doc.request, f);
    return typeof v === "number" ? print.figure(f, v, units) : String(v ?? "");
  };
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 border-b border-ember bg-raised px-4 py-2">
      <span className="flex-1">
        {say("problem.stale")}{" "}
        {fields.map((f) => (
          <span key={f} className="mr-3">
            {has(`field.name.${f}`) ? told(`field.name.${f}`) : f}: <b>{s.typed[f]}</b>{" "}
            {say("stale.against", { theirs: theirs(f) })}
          </span>
        ))}
      </span>
      <button type="button" className="press" onClick={() => void draft.settle("theirs")}>
        {say("stale.theirs")}
      </button>
      <button type="button" className="press press-act" onClick={() => void draft.settle("mine")}>
        {say("stale.mine")}
      </button>
    </div>
  );
});
