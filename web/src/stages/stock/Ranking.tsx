import { useState } from "react";
import type { RankedStock } from "../../api/client";
import { useSteelName, useUnits } from "../../api/hooks";
import { useDraft, useDraftPart } from "../../draft/context";
import { Drawn } from "../../rack/Drawn";
import { barSize } from "../../rack/forms";
import { figures, say, told } from "../../text/say";
import { print } from "../../units/print";
import { Compare } from "./Compare";
import { useRank } from "./useAsked";

/** The rack in the order it suits this blade: what will do, and why the rest will not. */
export function Ranking() {
  const draft = useDraft();
  const chosen = useDraftPart((s) => s.doc.stockId);
  const rank = useRank(true);
  const [two, setTwo] = useState<string[]>([]);
  const toggle = (id: string) => setTwo((t) => (t.includes(id) ? t.filter((x) => x !== id) : [...t.slice(-1), id]));
  if (rank.isPending) return <p className="text-quiet">{say("rank.wait")}</p>;
  if (!rank.data?.length) return <p className="text-quiet">{say("stock.rackEmpty")}</p>;
  const picked = two.map((id) => rank.data.find((r) => r.id === id)).filter((r): r is RankedStock => !!r);
  return (
    <>
      <ul data-testid="ranking">
        {rank.data.map((r) => (
          <Row
            key={r.id}
            r={r}
            chosen={r.id === chosen}
            compared={two.includes(r.id)}
            onTake={() => draft.choose("stockId", r.id)}
            onCompare={() => toggle(r.id)}
          />
        ))}
      </ul>
      {picked.length === 2 && <Compare two={picked as [RankedStock, RankedStock]} onClose={() => setTwo([])} />}
    </>
  );
}

interface RowProps {
  r: RankedStock;
  chosen: boolean;
  compared: boolean;
  onTake: () => void;
  onCompare: () => void;
}

function Row({ r, chosen, compared, onTake, onCompare }: RowProps) {
  const steelName = useSteelName();
  const units = useUnits();
  const s = r.stock;
  const why = r.obstacle.code ? told(r.obstacle.code, figures(r.obstacle.figures, units)) : "";
  return (
    <li className="flex items-stretch border-b border-line" data-ranked={s.name} data-feasible={r.feasible}>
      <button
        type="button"
        data-stock={s.name}
        aria-pressed={chosen}
        disabled={!s.start}
        onClick={onTake}
        className={`flex min-h-11 w-full min-w-0 items-center gap-3 rounded px-2 py-1 text-left ${chosen ? "bg-raised text-act" : "hover:bg-raised"}`}
      >
        <span className="grid w-12 shrink-0 justify-items-center">
          <Drawn piece={s.piece} width={46} height={30} />
        </span>
        <span className="min-w-0 flex-1">
          <span className="narrow block text-[17px] leading-tight">
            {steelName(s.steelId)} · {barSize(s.piece, units)}
          </span>
          <span className="block text-sm leading-tight text-quiet">
            {s.name}
            {s.start &&
              `, ${s.freeMm < 0 ? say("rack.over", { length: print.length(-s.freeMm, units) }) : say("rack.free", { length: print.length(s.freeMm, units) })}`}
          </span>
          {r.feasible && r.planned && (
            <span className="narrow block text-[15px]">
              {say("rank.figures", {
                cut: print.reckoned(r.cutMm, r.lowMm ?? 0, r.highMm ?? 0, units),
                waste: print.mass(r.wasteG, units),
                heats: r.heats,
                minutes: Math.round(r.timeS / 60),
              })}
              {r.certainShare < 1 && ` · ${say("rank.certain", { share: (r.certainShare * 100).toFixed(0) })}`}
              {r.soft && ` · ${say("rank.soft")}`}
              {r.hazards > 0 && ` · ${say("rank.hazards")}`}
            </span>
          )}
          {!r.feasible && why && <span className="block text-sm leading-tight text-ember">{why}</span>}
        </span>
      </button>
      {r.feasible && (
        <label className="grid w-12 shrink-0 place-items-center" title={say("rank.compare")}>
          <input
            type="checkbox"
            checked={compared}
            onChange={onCompare}
            aria-label={say("rank.compareOne", { name: s.name })}
            data-compare-stock={s.name}
          />
        </label>
      )}
    </li>
  );
}
