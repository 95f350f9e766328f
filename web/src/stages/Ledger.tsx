import { ChevronRight } from "lucide-react";
import { memo, useState } from "react";
import type { Plan } from "../api/client";
import { useDraftPart } from "../draft/context";
import { figures, say, told } from "../text/say";
import { cutOf } from "../units/cut";
import { inches, print, type System } from "../units/print";

const kept = "coldember.open.ledger";

/** Where more of what is forged goes to the grinder, its line says how much. */
const muchGround = 0.4;

/** The volume from finished blade up to starting bar; each line opens its reason. */
export const Ledger = memo(function Ledger({ plan, units }: { plan: Plan; units: System }) {
  const [open, setOpen] = useState<string>();
  const [whole, setWhole] = useState(() => localStorage.getItem(kept) === "1");
  const head = plan.finished;
  const form = useDraftPart((s) => s.doc.request.bar.form);
  const weighed = form === "ball";
  return (
    <section
      aria-label={say("ledger.name")}
      className="max-h-[60%] shrink-0 overflow-y-auto border-t border-line bg-raised px-3 py-1.5"
    >
      <details
        open={whole}
        onToggle={(e) => {
          setWhole(e.currentTarget.open);
          localStorage.setItem(kept, e.currentTarget.open ? "1" : "0");
        }}
        data-fold="ledger"
      >
        <summary className="flex min-h-8 cursor-pointer items-center gap-2">
          <ChevronRight size={16} aria-hidden className={whole ? "rotate-90" : ""} />
          <span className="small-caps">{say("ledger.name")}</span>
          {!whole && (
            <span className="ml-auto text-quiet">
              {say(weighed ? "ledger.briefWeighed" : "ledger.brief", {
                mass: print.mass(head.massG, units),
                bar: cutOf(plan, form, units),
              })}
            </span>
          )}
        </summary>
        <table className="w-full">
          <thead>
            <tr className="small-caps text-right">
              <th scope="col" className="text-left">
                <span className="sr-only">{say("ledger.name")}</span>
              </th>
              <th scope="col">{inches(units) ? "in³" : "cm³"}</th>
              <th scope="col">{inches(units) ? "oz" : "g"}</th>
              {!weighed && <th scope="col">{say("ledger.bar", { unit: print.unit("barMm", units) })}</th>}
            </tr>
          </thead>
          <tbody className="narrow text-[16px] font-medium">
            {plan.ledger.map((l) => (
              <Row
                key={l.code}
                line={l}
                units={units}
                weighed={weighed}
                open={open === l.code}
                onOpen={() => setOpen(open === l.code ? undefined : l.code)}
              />
            ))}
          </tbody>
        </table>
      </details>
      <p className="mt-1 border-t border-line pt-1 text-sm text-quiet">
        {say(weighed ? "ledger.finishedOnly" : "ledger.finishedNote", {
          mass: print.mass(head.massG, units),
          balance: print.length(head.balanceFromPointMm, units),
          left: print.length(Math.max(0, plan.bar.leftMm), units),
        })}
        {plan.drawing.handle &&
          ` ${say("ledger.wholeNote", {
            mass: print.mass(plan.whole.massG, units),
            balance: print.length(plan.whole.balanceFromPointMm, units),
          })}`}
      </p>
    </section>
  );
});

function Row({
  line,
  units,
  weighed,
  open,
  onOpen,
}: {
  line: Plan["ledger"][number];
  units: System;
  weighed: boolean;
  open: boolean;
  onOpen: () => void;
}) {
  const bare = (t: string) => t.replace(/ [a-z³]+$/, "");
  const much = line.figures?.groundFraction ?? 0;
  const sign = line.total ? "" : line.volumeMm3 < 0 ? "− " : "+ ";
  return (
    <>
      <tr
        className={`text-right ${line.total ? "" : "text-quiet"} ${line.code === "ledger.start" ? "border-t border-line text-chalk" : ""}`}
        data-ledger={line.code}
      >
        <th scope="row" className="text-left font-medium">
          <button
            type="button"
            aria-expanded={open}
            onClick={onOpen}
            className="text-left underline decoration-dotted decoration-1 underline-offset-4 hover:text-act"
          >
            {sign}
            {told(line.code)}
            {much > muchGround && ` (${Math.round(much * 100)} %)`}
          </button>
        </th>
        <td>{bare(print.volume(Math.abs(line.volumeMm3), units))}</td>
        <td>{bare(print.mass(Math.abs(line.massG), units))}</td>
        {!weighed && (
          <td className={line.code === "ledger.start" ? "text-lg font-semibold text-act" : ""}>
            {bare(print.length(Math.abs(line.barMm), units))}
          </td>
        )}
      </tr>
      {open && (
        <tr>
          <td colSpan={weighed ? 3 : 4} className="pb-1 font-sans text-sm font-normal text-quiet">
            {told(`why.${line.code}`, figures(line.figures, units))}
          </td>
        </tr>
      )}
      {open &&
        (line.parts ?? []).map((p) => (
          <tr key={p.code} className="text-right text-[15px] text-quiet" data-ledger={p.code}>
            <th scope="row" className="pl-3 text-left font-normal">
              {told(p.code)}
            </th>
            <td>{bare(print.volume(p.volumeMm3, units))}</td>
            <td>{bare(print.mass(p.massG, units))}</td>
            {!weighed && <td>{bare(print.length(p.barMm, units))}</td>}
          </tr>
        ))}
    </>
  );
}
