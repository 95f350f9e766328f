import { Popover } from "radix-ui";
import { memo } from "react";
import type { Plan } from "../api/client";
import { count, say } from "../text/say";
import { print, type System } from "../units/print";
import { around, place, textPx } from "./labels";
import type { Layout } from "./layout";

/** How a figure of the blade is printed. */
export const findingPrint: Record<string, (v: number, s: System) => string> = {
  weight: print.mass,
  balance: print.length,
  behind: print.thickness,
  stiff: print.moment,
};

/** What is usual, in words. */
export function usualRange(f: Plan["findings"][number], units: System): string {
  const p = findingPrint[f.what] ?? print.length;
  return f.highest === 0
    ? say("use.from", { low: p(f.lowest, units) })
    : say("use.between", { low: p(f.lowest, units), high: p(f.highest, units) });
}

/** Marks on the finished blade where a figure is unusual for its use; each opens its sentence. */
export const Findings = memo(function Findings({
  plan,
  layout: l,
  units,
}: {
  plan: Plan;
  layout: Layout;
  units: System;
}) {
  const heel = plan.drawing.finishedZones.find((z) => z.zone === "blade")?.toMm ?? 1;
  const station = (mm: number) =>
    plan.drawing.finished.reduce((a, b) => (Math.abs(b.x - mm) < Math.abs(a.x - mm) ? b : a));
  const judged = (heel * 2) / 3;
  const places: Record<string, number> = {
    behind: judged,
    stiff: judged,
    balance: plan.finished.balanceFromPointMm,
    weight: heel * 0.4,
  };
  const unusual = plan.findings.filter((f) => !f.usual);
  const title = textPx(`${say("bench.finished")} · ${count("use.marked", unusual.length)}`, 15);
  const left = Math.min(l.x(0), l.x(plan.drawing.finishedZones.at(-1)?.toMm ?? 1));
  const letters = plan.drawing.finishedZones.map((z) => {
    const s = station((z.fromMm + z.toMm) / 2);
    return { x: l.x((z.fromMm + z.toMm) / 2), y: l.finished.baseY - ((s.s + s.e) / 2) * l.scale, w: 14, h: 18 };
  });
  const placed = place(
    unusual.map((f) => {
      const mm = places[f.what] ?? judged;
      const s = station(mm);
      const low = f.what === "behind";
      const y = l.finished.baseY - (low ? s.e : s.s) * l.scale + (low ? -15 : 1);
      return { id: f.what, w: 22, h: 22, at: around(l.x(mm), y, { side: 8, sides: 20, line: 6, lines: 4 }) };
    }),
    [{ x: left + title / 2, y: l.finished.titleY - 5, w: title, h: 15 }, ...letters],
  );
  return (
    <>
      {unusual.map((f) => {
        const at = placed.get(f.what);
        if (!at) return null;
        return (
          <Popover.Root key={f.what}>
            <Popover.Trigger
              className="mark absolute"
              style={{ left: at.x - 11, top: at.y - 11 }}
              aria-label={`${say(`finding.${f.what}`)}: ${say("finding.unusual")}`}
              data-unusual={f.what}
            >
              !
            </Popover.Trigger>
            <Popover.Portal>
              <Popover.Content
                aria-label={say(`finding.${f.what}`)}
                sideOffset={6}
                collisionPadding={12}
                className="z-50 grid max-w-80 gap-1 rounded border border-line bg-raised p-3 text-chalk shadow-lg"
              >
                <p className="flex justify-between gap-4">
                  <span>{say(`finding.${f.what}`)}</span>
                  <span className="narrow">{(findingPrint[f.what] ?? print.length)(f.value, units)}</span>
                </p>
                <p className="text-sm text-quiet">{say("use.usual", { range: usualRange(f, units) })}</p>
                <p>{say(`finding.${f.value < f.lowest ? "low" : "high"}.${f.what}`)}</p>
                <Popover.Arrow className="fill-line" />
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
        );
      })}
    </>
  );
});
