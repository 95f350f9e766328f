import { memo } from "react";
import { Link } from "react-router";
import type { Forging, Heat, Step } from "../../api/client";
import { useStates, useUnits } from "../../api/hooks";
import { useDraftPart, useDraftState } from "../../draft/context";
import { count, heatColour, say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { Term } from "../../ui/Term";
import { inches, localNumber, print } from "../../units/print";
import { totals } from "../../units/within";
import { operationName } from "../../words/operation";
import { Window } from "../stock/StockPanel";
import { useWithin } from "../stock/useAsked";
import { ByTheBook } from "./ByTheBook";
import { CompareWays } from "./CompareWays";
import { CoolingCurve } from "./CoolingCurve";
import { heatName } from "./counted";
import { Doubts } from "./Doubts";
import { InTheRound } from "./InTheRound";
import { diesOf, isTreatment, machineFields, machineLabel, machineNote, machines } from "./machine";
import { OrderList } from "./OrderList";
import { HandAndHammer, Hearth, WorkedOn } from "./Sets";
import { ToolPicks, useStill } from "./ToolPicks";

/** The heats in order: one of them close to, or all operations. */
export function HeatsPanel({ heat, onHeat }: { heat?: number; onHeat: (n: number | undefined) => void }) {
  const { plan, piece } = useDraftState();
  const step = plan.heats.find((h) => h.number === heat);
  const at = (path: string) => `/api/v1/pieces/${piece.id}/${path}`;
  return (
    <>
      <div className="mb-3 flex flex-wrap gap-1.5 [&>*]:!px-2">
        <Link className="press press-act" to={`/pieces/${piece.id}/anvil`} data-testid="step-open">
          {say("step.open")}
        </Link>
        <CompareWays />
        <a className="press" href={at("heats.csv")} download data-testid="heats-csv">
          {say("heats.table")}
        </a>
      </div>
      {step ? <OneHeat step={step} onHeat={onHeat} /> : <AllOperations onHeat={onHeat} />}
    </>
  );
}

function OneHeat({ step, onHeat }: { step: Heat; onHeat: (n: number | undefined) => void }) {
  const { plan, doc } = useDraftState();
  const units = useUnits();
  const states = useStates(doc, plan, true);
  const ops = step.parts.map((p) => ({ part: p, op: plan.operations.find((o) => o.id === p.operation) }));
  const cycle = isTreatment(ops[0]?.op?.kind);
  const still = useStill(step.number);
  const low = ops[0]?.op?.forging?.lowC ?? plan.totals.lowC;
  const soak = ops[0]?.op?.targetC ?? plan.totals.soakC;
  return (
    <div className="grid gap-3" data-testid="heat-detail">
      <div className="flex items-center justify-between">
        <button type="button" className="press" disabled={step.number <= 1} onClick={() => onHeat(step.number - 1)}>
          {say("heats.before")}
        </button>
        <span className="narrow text-2xl">{heatName(plan, step.number)}</span>
        <button
          type="button"
          className="press"
          disabled={step.number >= plan.heats.length}
          onClick={() => onHeat(step.number + 1)}
        >
          {say("heats.after")}
        </button>
      </div>
      {!cycle && <Window low={low} soak={soak} high={Math.max(soak, plan.steel.forgeHighC)} />}
      <dl className="grid grid-cols-[1fr_auto] gap-x-4 border-y border-line py-2">
        <Figure name={say("heat.fire")} value={print.duration(step.fireS)} />
        {cycle ? (
          <Cooling kind={ops[0]?.op?.kind} seconds={step.workS} />
        ) : (
          <>
            <Figure
              name={say("heat.firstBlow")}
              value={`${print.fireTemperature(step.startC, units)}, ${heatColour(step.startC, units)}`}
            />
            <Figure
              name={say("heat.stop")}
              value={`${print.fireTemperature(step.endC, units)}, ${heatColour(step.endC, units)}`}
            />
            <Figure name={say("heat.work")} value={print.duration(step.workS)} />
            <Figure
              name={say(ops.every(({ op }) => op?.forging?.strokes) ? "heat.strokesCount" : "heat.blows")}
              value={String(step.blows)}
            />
          </>
        )}
        <Figure
          name={say("heat.lost")}
          value={
            !inches(units) && step.scaleG < 10
              ? localNumber(`${step.scaleG.toFixed(1)} g`)
              : print.mass(step.scaleG, units)
          }
        />
        <Figure name={say("heat.fuel")} value={print.mass(step.fuelG, units)} />
        <Figure name={say("heat.hotSoFar")} value={print.duration(step.hotSoFarS)} />
      </dl>
      {!cycle && (
        <CoolingCurve
          curve={states?.find((s) => s.number === step.number)?.curve}
          carryS={step.carryS}
          lowC={low}
          highC={Math.max(soak, plan.steel.forgeHighC)}
        />
      )}
      <div>
        <InTheRound heat={step.number} />
      </div>
      {ops.map(
        // biome-ignore lint/suspicious/noArrayIndexKey: drawn over rather than anew, as the heats fly past
        ({ part, op }, i) => op && <Operation key={i} op={op} to={part.toShare} still={still} />,
      )}
      {step.rest && (
        <p className="border-l-[3px] border-ember pl-2 text-[15px]" data-testid="rest">
          {say("heat.rest")}
        </p>
      )}
      {step.readings?.length > 0 && !cycle && (
        <table className="narrow w-full text-[17px]">
          <caption className="border-b border-line text-left text-lg">{say("card.targets")}</caption>
          <tbody>
            {step.readings.map((r, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the first, second and third of a heat
              <tr key={i}>
                <td className="text-quiet">
                  {say(`zone.${r.zone}`)}, {say("heat.fromPoint", { at: print.length(r.atMm, units) })}
                </td>
                <td className="text-right">
                  {print.length(r.heightMm, units)} × {print.thickness(r.thicknessMm, units)}
                  <Hot reading={r} units={units} />
                  {r.withinMm ? (
                    <span className="text-quiet">
                      {" "}
                      {say("step.within", { within: print.thickness(r.withinMm, units) })}
                    </span>
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

const Figure = ({ name, value }: { name: string; value: string }) => (
  <>
    <dt className="text-quiet">{name}</dt>
    <dd className="narrow text-right text-[17px]">{value}</dd>
  </>
);

/** What a thermal cycle or a hardening cools in. */
function Cooling({ kind, seconds }: { kind?: string; seconds: number }) {
  if (kind === "anneal" || kind === "soften") return <Figure name={say("heat.slow")} value={say("heat.slowTime")} />;
  return <Figure name={say(kind === "harden" ? "heat.quench" : "heat.toBlack")} value={print.duration(seconds)} />;
}

/** Grinds with an edge on either side. */
const twoEdged = new Set(["diamond", "lens"]);

/** The word of the trade that an operation is known by, where it is another than its own. */
const wordOf: Partial<Record<Step["kind"], string>> = {
  breakDown: "drawOut",
  tang: "tang",
  ricasso: "ricasso",
  profile: "spread",
  preCurve: "preform",
  cutOff: "hotCut",
  weldOn: "scarf",
  normalise: "cycle",
};

const Operation = memo(function Operation({ op, to, still }: { op: Step; to: number; still: boolean }) {
  const units = useUnits();
  const two = useDraftPart((s) => twoEdged.has(s.doc.request.design.grind.kind));
  const f = op.forging;
  const soakS = op.thermal?.soakS;
  return (
    <section className="grid gap-1">
      <h2 className="narrow text-xl leading-tight">
        <Term code={wordOf[op.kind] ?? op.kind}>{operationName(op, units)}</Term>
        {op.targetC ? `, ${print.temperature(op.targetC, units)} (${heatColour(op.targetC, units)})` : ""}
        {soakS ? <span className="text-quiet"> · {say("heat.soaks", { time: print.duration(soakS) })}</span> : null}
        {to < 0.995 && <span className="text-quiet"> · {say("heats.share", { share: Math.round(to * 100) })}</span>}
      </h2>
      {f?.face && (
        <p>
          {told(f.machine ? `machine.${f.machine}` : `face.${f.face}`)}
          {f.support && f.support !== "face" ? `, ${told(`support.${f.support}`)}` : ""} ·{" "}
          {op.zones.map((z) => say(`zone.${z}`)).join(", ")}
        </p>
      )}
      {f?.heavy ? (
        <div className="min-h-[92px]">{still && <ToolPicks id={op.id} kind={op.kind} forging={f} />}</div>
      ) : null}
      {f?.bendRiseMm ? (
        <p>
          {say("card.riseGive", { rise: print.length(f.bendRiseMm, units) })}
          {f.bendPerMm ? `, ${say("heat.radius", { radius: print.length(1 / f.bendPerMm, units) })}` : ""}
        </p>
      ) : null}
      {f?.newDies && <p>{say("heat.newDies", { dies: told(`dies.${f.dies}`).toLowerCase() })}</p>}
      {f?.stopMm ? (
        <p>
          {say(stopCode(f), {
            stop: print.thickness(f.stopMm, units),
            taper: print.thickness(f.taperMm ?? 0, units),
          })}
        </p>
      ) : null}
      {f?.edgeTurns ? <p>{say("heat.edgeTurns", turnsOf(f))}</p> : null}
      {f?.extraMm ? (
        <p>
          {say("heats.extra")}: {print.length(f.extraMm, units)}
        </p>
      ) : null}
      {f?.strokes ? <p>{say("heat.strokes", { n: Math.ceil(f.strokes) })}</p> : null}
      {op.kind === "bevel" && f && (
        <p className="text-quiet">
          {count(two ? "heat.sideTwo" : "heat.side", Math.max(1, Math.round(f.blows / (two ? 4 : 2))))}
        </p>
      )}
      {op.kind === "harden" && <Quench op={op} />}
      <p>{say(`how.${op.kind}`)}</p>
      {op.becauseCode && <p className="text-sm text-quiet">{told(op.becauseCode)}</p>}
      {op.cautionCodes.map((c) => (
        <p key={c} className="border-l-[3px] border-ember pl-2 text-[15px]" data-caution={c}>
          {told(c)}
        </p>
      ))}
    </section>
  );
});

/** The tempers, °C, that a grade's hardness is known after. */
const tempersC = [200, 230, 260];

/** What it is quenched in, and how hard it is after. */
function Quench({ op }: { op: Step }) {
  const units = useUnits();
  const steel = useDraftPart((s) => s.plan.steel);
  const at = (c: number | undefined) => print.temperature(c ?? 0, units);
  const [quenched, ha, hb, hc] = steel.hrc ?? [];
  const [a, b, c] = tempersC.map(at);
  return (
    <>
      <p data-testid="quench">
        {say("harden.bath", {
          bath: say(`quench.${steel.quench}`),
          low: at(op.thermal?.bathLowC),
          high: at(op.thermal?.bathHighC),
        })}
      </p>
      {hc !== undefined && (
        <p className="text-quiet">
          {say("harden.temper", {
            quenched: quenched ?? 0,
            a: a ?? "",
            ha: ha ?? 0,
            b: b ?? "",
            hb: hb ?? 0,
            c: c ?? "",
            hc,
          })}
        </p>
      )}
    </>
  );
}

/** Taps on edge and flat blows of every turn on edge. */
function turnsOf(f: Forging) {
  const n = f.edgeTurns ?? 1;
  const each = (blows: number) => Math.max(1, Math.round(blows / n));
  return { n, edge: each(f.edgeBlows ?? 0), flat: each(f.blows - (f.edgeBlows ?? 0)) };
}

function AllOperations({ onHeat }: { onHeat: (n: number | undefined) => void }) {
  const { plan, doc } = useDraftState();
  const units = useUnits();
  const t = plan.totals;
  const known = totals(plan, useWithin().data, units);
  const firstHeat = (op: string) => plan.heats.find((h) => h.parts.some((p) => p.operation === op))?.number;
  return (
    <div className="grid gap-4">
      <p className="narrow text-xl leading-snug">
        {count("heats", t.heats, { n: known.heats })}, {say("heats.totals", known)}
        <span className="block text-sm font-normal text-quiet">{say("heats.estimate")}</span>
        {t.dieChanges ? (
          <span className="block text-sm font-normal text-quiet">
            {count("heats.dieChanges", t.dieChanges, { minutes: Math.round((t.dieChangeS ?? 0) / 60) })}
          </span>
        ) : null}
      </p>
      {t.money.total > 0 && (
        <p data-testid="money">
          {say("money.says", {
            total: print.money(t.money.total),
            steel: print.money(t.money.steel),
            fuel: print.money(t.money.fuel),
            time: print.money(t.money.time),
          })}
        </p>
      )}
      <ByTheBook />
      <Doubts />
      <OrderList onOperation={(id) => onHeat(firstHeat(id))} />
      <p className="text-sm text-quiet">{say("caution.general")}</p>
      <Schools />
      <Group title={say("heats.smith")}>
        <HandAndHammer />
        <DraftPick
          field="smith.skill"
          label={say("new.sure")}
          options={["learning", "steady", "sure"].map((v) => ({ value: v, label: told(`skill.${v}`) }))}
        />
        <MachineFields />
        <F f="smith.hammerKg" />
        <F f="smith.faceMm" />
        <F f="smith.peenBiteMm" />
        <F f="smith.peenLengthMm" />
        <WorkedOn />
        <F f="smith.anvilKg" />
        <F f="smith.speedMPerS" />
      </Group>
      <Group title={say("heats.fire")} fold="fire">
        <Hearth />
        <F f="fire.tempC" />
        <F f="fire.hotLengthMm" />
        <DraftField
          field="fire.soakC"
          label={say("field.name.fire.soakC")}
          value={doc.request.fire.soakC || Math.round(t.soakC)}
        />
        <DraftField
          field="fire.stopC"
          label={say("field.name.fire.stopC")}
          value={doc.request.fire.stopC || Math.round(t.lowC)}
        />
        <F f="fire.carryS" />
        <F f="fire.brushS" />
        <F f="fire.fuelKgPerH" />
        <F f="fire.atmosphere" />
      </Group>
      <Group title={say("money.title")} fold="money">
        <F f="prices.steelPrice" />
        <F f="prices.fuelPrice" />
        <F f="prices.hourPrice" />
        <p className="col-span-2 text-sm text-quiet">{say("money.note")}</p>
      </Group>
    </div>
  );
}

/** A power hammer or a press beside the hammer, with its figures. */
function MachineFields() {
  const machine = useDraftState().doc.request.smith.machine;
  return (
    <>
      <DraftPick
        field="smith.machine"
        label={say("field.name.smith.machine")}
        value={machine?.kind ?? "none"}
        options={machines.map((v) => ({ value: v, label: say(`machine.${v}`) }))}
      />
      {machine && (
        <>
          {diesOf(machine.kind).length > 0 && (
            <DraftPick
              field="smith.machine.dies"
              label={machineLabel(machine.kind, "dies")}
              options={diesOf(machine.kind)}
            />
          )}
          {machineFields[machine.kind].map((f) => (
            <DraftField key={f} field={`smith.machine.${f}`} label={machineLabel(machine.kind, f)} />
          ))}
          <p className="col-span-2 text-sm text-quiet">{machineNote(machine.kind)}</p>
        </>
      )}
    </>
  );
}

function Schools() {
  const { doc, plan } = useDraftState();
  const { first, taper, corners, stamp, notch, harden, steelPattern, rodWeld, holding } = doc.request.choices;
  const suggest = plan.suggestFirst;
  const pick = (field: string, values: string[], prefix: string, value?: string) => (
    <DraftPick
      value={value}
      field={`choices.${field}`}
      label={told(`field.name.choices.${field}`)}
      options={values.map((v) => ({ value: v, label: told(`${prefix}.${v}`) }))}
    />
  );
  return (
    <Group title={say("heats.schools")} fold="schools">
      {pick("first", ["point", "tang"], "first", first ?? "point")}
      {!cornerless.includes(doc.request.bar.form) && pick("corners", ["first", "left"], "corners", corners ?? "first")}
      {pick("taper", ["forged", "ground"], "taper", taper ?? "forged")}
      {suggest !== (first ?? "point") && (
        <p className="col-span-2 text-sm text-quiet">{say(`first.suggest.${suggest}`)}</p>
      )}
      {pick("method", ["pinchOut", "pushIn"], "method")}
      {pick("curve", ["preCurve", "correct", "sweep"], "curve")}
      {pick("cycles", ["descending", "equal", "once", "anneal"], "cycles")}
      {(doc.request.design.ricasso.notchMm ?? 0) > 0 && pick("notch", ["cut", "forged"], "notch", notch ?? "cut")}
      {pick("stamp", ["no", "yes"], "stamp", stamp ? "yes" : "no")}
      {pick("holding", ["wholeBar", "tongs", "weldedRod"], "holding")}
      {holding === "weldedRod" && pick("rodWeld", ["arc", "fire"], "rodWeld", rodWeld ?? "arc")}
      {pick("harden", ["later", "forged"], "harden", harden ?? "later")}
      {pick("steelPattern", ["none", "quarter", "middle"], "steelPattern", steelPattern ?? "none")}
    </Group>
  );
}

const F = ({ f }: { f: string }) => <DraftField field={f} label={told(`field.name.${f}`)} />;

/** How far a press or rolls close: to one thickness, or along a taper worth setting. */
function stopCode(f: Forging) {
  const tapers = (f.taperMm ?? 0) >= 0.1;
  if (f.machine === "rollingMill") return tapers ? "heat.gapTaper" : "heat.gap";
  return tapers ? "heat.stopTaper" : "heat.stop";
}

/** What it reads hot, where that is another by more than calipers have to be near. */
function Hot({ reading: r, units }: { reading: Heat["readings"][number]; units: string }) {
  const hot = r.heightHotMm || r.heightMm;
  if (hot - r.heightMm <= (r.withinMm ?? 0)) return null;
  return <span className="text-quiet"> {say("step.hot", { mm: print.length(hot, units) })}</span>;
}

/** Forms of stock without corners to break. */
const cornerless = ["round", "taperedRound", "ball", "roller", "coil", "chain"];
