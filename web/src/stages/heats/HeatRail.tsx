import { memo, useEffect, useRef, useState } from "react";
import type { Plan } from "../../api/client";
import { say, told } from "../../text/say";
import { counted, heatName } from "./counted";
import { isTreatment } from "./machine";

/** How long each heat is shown while the heats play. */
const playMs = 700;
/** A heat that is looked at for so long is brought into view on the rail. */
const settleMs = 80;

/** One bead a heat, grouped by operation; the beads scrub the middle drawing. */
export const HeatRail = memo(function HeatRail({
  plan,
  heat,
  onHeat,
}: {
  plan: Plan;
  heat?: number;
  onHeat: (n: number | undefined) => void;
}) {
  const groups: { op: string; kind: string; heats: Plan["heats"] }[] = [];
  for (const h of plan.heats) {
    const op = h.parts[0]?.operation ?? "";
    const last = groups[groups.length - 1];
    if (last && last.op === op) last.heats.push(h);
    else groups.push({ op, kind: plan.operations.find((o) => o.id === op)?.kind ?? op, heats: [h] });
  }
  const count = counted(plan);
  const rail = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // Bringing it into view lays the page out anew: not while the heats fly past.
    const soon = setTimeout(() => {
      const bead = heat && rail.current?.querySelector<HTMLElement>(`[data-heat="${heat}"]`);
      if (bead && "scrollIntoView" in bead) bead.scrollIntoView({ block: "nearest", inline: "center" });
    }, settleMs);
    return () => clearTimeout(soon);
  }, [heat]);
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return;
    const next = setTimeout(() => {
      if ((heat ?? 0) >= plan.heats.length) setPlaying(false);
      else onHeat((heat ?? 0) + 1);
    }, playMs);
    return () => clearTimeout(next);
  }, [playing, heat, plan.heats.length, onHeat]);
  const play = () => {
    if (!playing && heat === plan.heats.length) onHeat(1);
    setPlaying(!playing);
  };
  return (
    <div className="no-print shrink-0 border-t border-line bg-raised px-3 py-1.5">
      <div className="flex items-baseline justify-between gap-3 text-sm">
        <span className="small-caps">
          {say("heats.rail", { heats: plan.totals.heats, cycles: plan.totals.cycles })}
        </span>
        <button
          type="button"
          className="min-h-6 px-1 underline underline-offset-4 hover:text-act pointer-coarse:min-h-11 pointer-coarse:px-3"
          aria-pressed={playing}
          onClick={play}
          data-testid="play"
        >
          {say(playing ? "play.stop" : "play.start")}
        </button>
        <span className="flex-1" />
        <span className="text-quiet max-sm:hidden">{say("heats.railKeys")}</span>
        {heat && (
          <button
            type="button"
            className="underline underline-offset-4 hover:text-act"
            onClick={() => onHeat(undefined)}
          >
            {say("heats.whole")}
          </button>
        )}
      </div>
      <div
        ref={rail}
        className="more-beside flex gap-3 overflow-x-auto pb-1"
        role="toolbar"
        aria-label={say("heats.name")}
        onKeyDown={(e) => {
          const by = { ArrowRight: 1, ArrowLeft: -1, Home: -plan.heats.length, End: plan.heats.length }[e.key];
          const at = Number((e.target as HTMLElement).dataset.heat);
          if (!by || !at) return;
          e.preventDefault();
          const to = Math.min(plan.heats.length, Math.max(1, at + by));
          rail.current?.querySelector<HTMLElement>(`[data-heat="${to}"]`)?.focus();
        }}
      >
        {groups.map((g) => (
          <div key={g.heats[0]?.number} className="shrink-0">
            <span
              className="narrow block max-w-full truncate text-[13px] text-quiet"
              style={{ maxWidth: Math.max(46, g.heats.length * 31) }}
            >
              {told(`op.short.${g.kind}`)}
            </span>
            <span className="flex gap-[3px]">
              {g.heats.map((h) => (
                <Bead
                  key={h.number}
                  n={h.number}
                  shown={count[h.number - 1]?.n ?? h.number}
                  name={heatName(plan, h.number)}
                  kind={g.kind}
                  on={h.number === heat}
                  stop={h.number === (heat ?? 1)}
                  onHeat={onHeat}
                />
              ))}
            </span>
          </div>
        ))}
      </div>
    </div>
  );
});

const Bead = memo(function Bead({
  n,
  shown,
  name,
  kind,
  on,
  stop,
  onHeat,
}: {
  n: number;
  shown: number;
  name: string;
  kind: string;
  on: boolean;
  /** The keyboard stops at one of them; the arrows go on from there. */
  stop: boolean;
  onHeat: (n: number | undefined) => void;
}) {
  return (
    <button
      type="button"
      data-heat={n}
      aria-label={say("heats.bead", { heat: name, op: told(`op.${kind}`) })}
      aria-pressed={on}
      tabIndex={stop ? 0 : -1}
      onClick={() => onHeat(on ? undefined : n)}
      className={`narrow h-7 min-w-7 rounded-full border text-[14px] pointer-coarse:h-11 pointer-coarse:min-w-11 ${on ? "border-ember bg-ember text-[#15181a]" : isTreatment(kind) ? "border-dashed border-quiet" : "border-quiet hover:border-act"}`}
    >
      {shown}
    </button>
  );
});
