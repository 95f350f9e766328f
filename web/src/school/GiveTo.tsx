import { useDraft, useDraftState } from "../draft/context";
import { say } from "../text/say";
import { Pick } from "../ui/Pick";
import { Sheet } from "../ui/Sheet";
import { useMe } from "./me";

/** The shop's own, in a choice of persons. */
const shop = "-";

/** To whom a piece may be given: the class, to all but students. */
export function useClass(): string[] {
  const owner = useDraftState().doc.owner;
  const me = useMe();
  if (me.role === "student") return [];
  return [...new Set([...(me.class ?? []), ...(owner ? [owner] : [])])].sort((a, b) => a.localeCompare(b));
}

/** Whose a piece is: a teacher, or the smith at the machine, says it. */
export function GiveTo({ open, onClose }: { open: boolean; onClose: () => void }) {
  const draft = useDraft();
  const owner = useDraftState().doc.owner;
  const names = useClass();
  return (
    <Sheet open={open} onClose={onClose} title={say("school.give")}>
      <Pick
        label={say("school.whose")}
        field="owner"
        first
        value={owner || shop}
        onPick={(v) => draft.choose("owner", v === shop ? "" : v)}
        options={[{ value: shop, label: say("school.theShop") }, ...names.map((n) => ({ value: n, label: n }))]}
        hint={say("school.giveNote")}
      />
    </Sheet>
  );
}
