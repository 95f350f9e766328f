import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import { useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { count, say, told } from "../text/say";
import { print } from "../units/print";
import type { Play } from "./usePlay";

type Seen = components["schemas"]["HeatSeen"];

/** What was done heat by heat, beside the planner's own way and, of a piece of work, as it was really forged. */
export function BesideHeats({ play, body, piece }: { play: Play; body: object; piece: boolean }) {
  const [open, setOpen] = useState(false);
  const [heat, setHeat] = useState(0);
  const beside = useQuery({
    queryKey: ["beside", body, play.seed, JSON.stringify(play.actions)],
    queryFn: () =>
      ask(api.POST("/api/v1/practice/beside", { body: { ...body, seed: play.seed, actions: play.actions } })),
    enabled: open && !play.running,
    placeholderData: (last) => last,
  });
  const b = beside.data;
  const rows = b
    ? ([["mine", b.mine], [piece ? "plan" : "smith", b.way], ...(b.real ? ([["real", b.real]] as const) : [])] as const)
    : [];
  const last = Math.max(0, ...rows.map(([, r]) => r.length - 1));
  const at = Math.min(heat, last);
  const long = Math.max(1, ...rows.flatMap(([, r]) => r.map((s) => s.lengthMm)));
  return (
    <details
      open={open}
      onToggle={(e) => setOpen(e.currentTarget.open)}
      className="border-t border-line pt-2"
      data-testid="beside"
    >
      <summary className="cursor-pointer text-lg">
        {say(piece ? "practice.besidePlan" : "practice.besideSmith")}
      </summary>
      {b && (
        <div className="mt-2 grid gap-3">
          <label className="flex items-center gap-3">
            <span className="w-24">{at === 0 ? say("practice.theBar") : say("practice.heatNo", { n: at })}</span>
            <input
              type="range"
              min={0}
              max={last}
              value={at}
              onChange={(e) => setHeat(Number(e.target.value))}
              className="flex-1 accent-(--act)"
              data-testid="beside-heat"
            />
          </label>
          {rows.map(([who, list]) => (
            <Row key={who} who={who} list={list} at={at} long={long} />
          ))}
          {b.real && <p className="text-sm text-quiet">{say("practice.realNote")}</p>}
        </div>
      )}
    </details>
  );
}

/** One of them after a heat: its outline from the face and from above, and what it took. */
function Row({ who, list, at, long }: { who: string; list: Seen[]; at: number; long: number }) {
  const units = useUnits();
  const s = list[Math.min(at, list.length - 1)];
  if (!s) return null;
  const over = at >= list.length;
  const all = s.at ?? [];
  const wide = Math.max(...all.map((c) => c.wideMm), 1);
  const thick = Math.max(...all.map((c) => c.thickMm), 1);
  const outline = (of: (c: Seen["at"][number]) => number, y: number) =>
    `M${all.map((c) => `${c.x},${(y - of(c) / 2).toFixed(2)}`).join("L")}L${[...all]
      .reverse()
      .map((c) => `${c.x},${(y + of(c) / 2).toFixed(2)}`)
      .join("L")}Z`;
  const soFar = list.slice(0, at + 1);
  const sum = (of: (h: Seen) => number) => soFar.reduce((t, h) => t + of(h), 0);
  return (
    <section data-beside={who} className={over ? "opacity-60" : ""}>
      <p className="flex flex-wrap gap-x-4">
        <span className="narrow text-lg">{told(`practice.beside.${who}`)}</span>
        <span className="tabular-nums text-quiet">
          {count("practice.heatsSoFar", Math.min(at, list.length - 1))} ·{" "}
          {count(
            "practice.blowsSoFar",
            sum((h) => h.struck),
          )}{" "}
          · {print.duration(sum((h) => h.timeS))} · {print.length(s.lengthMm, units)}
        </span>
        {s.work && <span>{[...new Set(s.work)].map((k) => told(`op.${k}`)).join(", ")}</span>}
        {s.faults && s.faults.length > 0 && (
          <span className="text-ember">{[...new Set(s.faults)].map((f) => told(`fault.${f}`)).join(", ")}</span>
        )}
      </p>
      <svg viewBox={`-2 -1 ${long + 4} ${wide + thick + 8}`} className="max-h-28 w-full" role="img" aria-hidden="true">
        <path
          d={outline((c) => c.wideMm, wide / 2)}
          fill="var(--zone-blade)"
          fillOpacity="0.5"
          stroke="var(--chalk)"
          strokeWidth="0.4"
        />
        <path
          d={outline((c) => c.thickMm, wide + 5 + thick / 2)}
          fill="var(--zone-blade)"
          fillOpacity="0.5"
          stroke="var(--chalk)"
          strokeWidth="0.4"
        />
        {(s.read ?? []).map((r) => (
          <line
            key={`${r.x} ${r.wideMm} ${r.thickMm}`}
            x1={r.x}
            x2={r.x}
            y1={r.wideMm ? wide / 2 - r.wideMm / 2 : wide + 5 + thick / 2 - r.thickMm / 2}
            y2={r.wideMm ? wide / 2 + r.wideMm / 2 : wide + 5 + thick / 2 + r.thickMm / 2}
            stroke="var(--ember)"
            strokeWidth="0.9"
          />
        ))}
      </svg>
    </section>
  );
}
