import { useShop, useUnits } from "../api/hooks";
import { treatName } from "../stages/harden/steps";
import { say, told } from "../text/say";
import { print } from "../units/print";
import type { Session, Shown } from "./core";

/** Steps after which the template is laid on. */
const templated = ["point", "profile", "bevel", "ricasso", "lineCurve", "tangCurve"];

/** What stands beside the step: tongs, heats and fuel to go, sides, the next step, readings just taken. */
export function Beside({
  session,
  shown,
  onRefuse,
}: {
  session: Session;
  shown: Shown;
  /** Takes back what an instrument told. */
  onRefuse?: (event: string) => void;
}) {
  const units = useUnits();
  const shop = useShop();
  const v = shown.view;
  const { course } = session;
  const grip = session.grips.find((g) => g.heat === v.heat);
  const after = session.grips.find((g) => g.heat === v.heat + 1);
  const tongs = (i: number) => shop.data?.tongs[i]?.name ?? "";
  const held = `${print.length(v.heldMm[0] ?? 0, units)} × ${print.length(v.heldMm[1] ?? 0, units)}`;
  if (v.treating) return <ToCome session={session} shown={shown} />;
  const rows: [string, string, boolean?][] = [];
  if (grip)
    rows.push([
      say("anvil.tongs"),
      grip.tongs < 0
        ? say("anvil.noTongs", { held })
        : `${tongs(grip.tongs)}${grip.change ? ` – ${say("anvil.changeTongs")}` : ""}`,
      grip.tongs < 0,
    ]);
  if (grip && after?.change && after.tongs >= 0) rows.push(["", say("anvil.tongsNext", { tongs: tongs(after.tongs) })]);
  const heat = course.heats[v.heat - 1];
  const step = course.steps[v.step];
  if (heat && !step?.cycle)
    rows.push([
      say("anvil.mark"),
      say("anvil.markAt", { n: heat.number, mm: print.fireLength(heat.longHotMm || heat.lengthMm, units) }),
    ]);
  if (step && templated.includes(step.kind)) rows.push(["", say("anvil.template")]);
  rows.push([say("anvil.toGo"), say("anvil.heatsTime", { n: v.heatsLeft, time: print.duration(v.timeLeftS) })]);
  if (v.haveFuelG !== undefined)
    rows.push([
      say("anvil.fuel"),
      say(v.fuelShort ? "anvil.fuelShort" : "anvil.fuelLasts", {
        have: print.mass(v.haveFuelG, units),
        need: print.mass(v.needFuelG, units),
      }),
      v.fuelShort,
    ]);
  else rows.push([say("anvil.fuel"), say("anvil.fuelNeed", { need: print.mass(v.needFuelG, units) })]);
  const sides = shown.state.sides;
  if ((sides[0] ?? 0) + (sides[1] ?? 0) > 0 || v.side)
    rows.push([say("anvil.sides"), say("anvil.sidesWorked", { mark: sides[0] ?? 0, other: sides[1] ?? 0 })]);
  const next = course.steps[v.step + 1];
  if (next && v.phase === "out") rows.push([say("anvil.next"), told(`op.${next.kind}`)]);
  const last = shown.state.told.filter((t) => t.kind === "reading" && t.wanted).at(-1);
  if (last?.reading?.mm !== undefined)
    rows.push([
      say("anvil.read"),
      say(last.within ? "anvil.readNear" : (last.differMm ?? 0) < 0 ? "anvil.readUnder" : "anvil.readOver", {
        mm: print.length(last.reading.mm, units),
        by: print.length(Math.abs(last.differMm ?? 0), units),
      }) + (last.reading.by ? ` · ${last.reading.by}` : ""),
      !last.within,
    ]);
  return (
    <dl
      className="grid content-start gap-x-3 gap-y-[1.2vmin] text-[clamp(15px,2.5vmin,24px)] leading-tight"
      data-testid="anvil-beside"
    >
      {rows.map(([name, what, warn]) => (
        <div key={name + what}>
          {name && <dt className="text-[#9ba39f]">{name}</dt>}
          <dd className={warn ? "border-l-4 border-[#f0714d] pl-2" : ""}>{what}</dd>
          {name === say("anvil.read") && last?.reading?.by && onRefuse && (
            <dd>
              <button
                type="button"
                className="press mt-1 min-h-11"
                data-testid="refuse-reading"
                onClick={(e) => {
                  e.stopPropagation();
                  onRefuse?.(last.id);
                }}
              >
                {say("anvil.refuse")}
              </button>
            </dd>
          )}
        </div>
      ))}
    </dl>
  );
}

/** Of hardening and tempering: the steps that come after this one. */
function ToCome({ session, shown }: { session: Session; shown: Shown }) {
  const next = (session.course.treatment ?? []).slice((shown.view.treat ?? 0) + 1);
  return (
    <div className="text-[clamp(15px,2.5vmin,24px)] leading-tight" data-testid="anvil-beside">
      <p className="text-[#9ba39f]">{say("anvil.next")}</p>
      <ol className="mt-1 grid gap-[0.8vmin]">
        {next.map((s) => (
          <li key={s.id}>
            {treatName(s.id)}
            {(s.countS ?? 0) > 0 && <span className="text-[#9ba39f]"> · {print.duration(s.countS ?? 0)}</span>}
          </li>
        ))}
      </ol>
    </div>
  );
}
