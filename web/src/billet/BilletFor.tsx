import { useState } from "react";
import type { Piece } from "../api/client";
import { useUnits } from "../api/hooks";
import type { Item } from "../rack/useItem";
import { say } from "../text/say";
import { Typed } from "../ui/Typed";
import { print } from "../units/print";

/** Between two pieces a saw goes. */
const kerfMm = 2;

/** Working backward: what to lay for so many layers in a bar so long, or for the pieces that are planned from it. */
export function BilletFor({ edit, pieces, layers }: { edit: Item; pieces: Piece[]; layers?: number }) {
  const units = useUnits();
  const [counts, setCounts] = useState<Record<string, number>>({});
  const of = (id: string) => counts[id] ?? 1;
  const n = pieces.reduce((sum, p) => sum + of(p.id), 0);
  const longMm =
    pieces.reduce((sum, p) => sum + of(p.id) * Math.ceil(p.summary.cutLengthMm), 0) + Math.max(0, n - 1) * kerfMm;
  return (
    <div className="col-span-2 grid gap-2">
      <Typed
        label={say("billet.for")}
        hint={say("billet.forHint")}
        placeholder="65; 210"
        {...edit.props("billet.for", "")}
      />
      {pieces.map((p) => (
        <label key={p.id} className="flex items-center gap-2">
          <input
            type="number"
            min={0}
            max={50}
            className="pick w-20"
            data-count={p.doc.name}
            value={of(p.id)}
            onChange={({ target: { value } }) =>
              setCounts({ ...counts, [p.id]: Math.max(0, Math.min(50, Math.round(Number(value) || 0))) })
            }
          />
          <span>
            × {p.doc.name}, {print.length(Math.ceil(p.summary.cutLengthMm), units)}
          </span>
        </label>
      ))}
      {pieces.length > 0 && layers !== undefined && (
        <button
          type="button"
          className="press justify-self-start"
          data-testid="billet-for-pieces"
          disabled={n === 0}
          onClick={() => void edit.save("billet.for", `${layers}; ${print.edit("lengthMm", longMm, units)}`)}
        >
          {say("billet.forPieces", { long: print.length(longMm, units) })}
        </button>
      )}
    </div>
  );
}
