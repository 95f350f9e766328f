import { Fragment, type ReactNode } from "react";
import type { SheetPart, SheetPlan } from "../api/client";
import { useUnits } from "../api/hooks";
import { barSize } from "../rack/forms";
import { figures, say, told } from "../text/say";
import { print, type System } from "../units/print";

/** Cut out against forged, for every part: the metal of either way, its time, and what it risks. */
export function Ways({ plan }: { plan: SheetPlan }) {
  const units = useUnits();
  const hot = plan.order.cut === "hot";
  return (
    <section className="grid max-w-3xl gap-2">
      <h2 className="narrow border-b border-line text-lg">{say("sheet.compare")}</h2>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[540px] text-right text-[15px]" data-testid="sheet-ways">
          <thead>
            <tr className="border-b border-line text-quiet">
              <td />
              {["metal", "cutting", "heats", "fire", "grind"].map((k) => (
                <th key={k} scope="col" className="py-1 pl-4 font-normal">
                  {told(`sheet.ways.${k}`)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {plan.parts.map((p) => (
              <Fragment key={p.name}>
                <tr>
                  <th scope="rowgroup" colSpan={6} className="narrow pt-2 text-left text-[17px]">
                    {p.name}
                  </th>
                </tr>
                <Way
                  of="sawn"
                  name={say(hot ? "sheet.ways.hot" : "sheet.ways.sawn")}
                  cells={[
                    print.mass(p.massG, units),
                    print.duration(p.sawS),
                    String((p.cutHeats ?? 0) + (p.sawn?.heats ?? 0)),
                    p.sawn ? print.duration(p.sawn.fireS) : "–",
                    print.mass(p.grindG, units),
                  ]}
                />
                <Forged part={p} units={units} />
              </Fragment>
            ))}
          </tbody>
        </table>
      </div>
      <p className="text-quiet">{say("sheet.risk")}</p>
      <p className="text-quiet">{say("sheet.riskForged")}</p>
      <p className="text-quiet">{say("sheet.caution")}</p>
    </section>
  );
}

function Forged({ part, units }: { part: SheetPart; units: System }) {
  const bar = part.bar;
  if (!bar) {
    const why = part.noBar ? told(part.noBar.code, figures(part.noBar.figures, units)) : "";
    return (
      <tr className="border-b border-line" data-way="forged">
        <th scope="row" className="py-1 text-left font-normal">
          {say("sheet.ways.forged")}
        </th>
        <td colSpan={5} className="py-1 pl-4 text-left text-quiet">
          {say("sheet.ways.noBar", { why })}
        </td>
      </tr>
    );
  }
  const size = { size: barSize(bar.stock, units), long: print.reckoned(bar.cutLengthMm, bar.lowMm, bar.highMm, units) };
  return (
    <Way
      of="forged"
      last
      name={say(bar.sold ? "sheet.ways.sold" : "sheet.ways.own", size)}
      cells={[
        print.mass(bar.massG, units),
        "–",
        String(bar.heats),
        print.duration(bar.fireS),
        print.mass(part.forgedGrindG, units),
      ]}
    />
  );
}

function Way({ of, name, cells, last }: { of: string; name: ReactNode; cells: string[]; last?: boolean }) {
  return (
    <tr className={last ? "border-b border-line" : ""} data-way={of}>
      <th scope="row" className="py-1 text-left font-normal">
        {name}
      </th>
      {cells.map((c, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the columns never change their order
        <td key={i} className="whitespace-nowrap py-1 pl-4">
          {c}
        </td>
      ))}
    </tr>
  );
}
