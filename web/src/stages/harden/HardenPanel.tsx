import { Link } from "react-router";
import { useSteelName, useUnits } from "../../api/hooks";
import { useDraft, useDraftState } from "../../draft/context";
import { findingWords } from "../../text/finding";
import { say, told } from "../../text/say";
import { TimerButton } from "../../timers/TimerButton";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { print } from "../../units/print";
import { Oven, Tank } from "../heats/Sets";
import { Late } from "./Late";
import { Mends } from "./Mends";
import { Noted } from "./Noted";
import { SpineDraw } from "./SpineDraw";
import { treatName, treatWords } from "./steps";
import { type Advice, useAdvice } from "./useAdvice";
import { WindowClock } from "./WindowClock";

const baths = ["stillOil", "mediumOil", "fastOil", "veryFastOil", "water", "brine", "plates", "air"] as const;

const ways = ["oven", "sand", "oilBath", "torch"] as const;

/** Hardening and tempering: the bath, where the blade hardens, the seconds there are, and what the oven leaves. */
export function HardenPanel() {
  const { doc, piece } = useDraftState();
  const draft = useDraft();
  const units = useUnits();
  const { data: a } = useAdvice();
  if (!a) return null;
  const t = doc.request.treatment;
  const proved = a.findings.some((f) => f.code === "harden.couponProved");
  const findings = <Findings advice={a} units={units} />;
  if (!a.hardens)
    return (
      <div className="grid grid-cols-[minmax(0,1fr)] gap-4" data-testid="harden-panel">
        {findings}
      </div>
    );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4" data-testid="harden-panel">
      <p className="narrow text-2xl leading-tight" data-testid="harden-sum">
        {a.temper.hrc
          ? say("treat.sum", { bath: told(`bath.${a.bath.class}`), hrc: a.temper.hrc.toFixed(0) })
          : say(proved ? "treat.sumProved" : "treat.sumCoupon", { c: print.temperature(a.austenitiseC, units) })}
      </p>
      {findings}
      <ol className="grid list-decimal gap-2 pl-5 marker:text-quiet" data-testid="treat-steps">
        {a.steps.map((st) => (
          <li key={st.id} data-treat={st.id}>
            {treatWords(st, units).join(" ")}
            {st.id === "straighten" && <WindowClock edgeS={a.windowEdgeS} spineS={a.windowSpineS} />}
            {st.timer && st.countS ? (
              <span className="mt-1 flex">
                <TimerButton pieceId={piece.id} kind={st.timer} label={treatName(st.id)} seconds={st.countS} />
              </span>
            ) : null}
            {st.timer === "soak" && (
              <span className="mt-1 flex">
                <TimerButton pieceId={piece.id} kind="soak" label={say("timer.soak")} seconds={a.soakS} />
              </span>
            )}
          </li>
        ))}
      </ol>
      {a.temper.hrc ? (
        <p data-testid="harden-hrc">
          {a.temper.lowHrc && a.temper.highHrc
            ? say("treat.hrc", {
                hrc: a.temper.hrc.toFixed(1),
                low: a.temper.lowHrc.toFixed(1),
                high: a.temper.highHrc.toFixed(1),
              })
            : say("treat.hrcAlone", { hrc: a.temper.hrc.toFixed(1) })}
        </p>
      ) : null}
      {a.temper.source === "composition" && <p className="text-sm text-quiet">{say("treat.source.composition")}</p>}
      <Noted />
      <Link className="press justify-self-start" to={`/day?p=${piece.id}`} data-testid="to-day">
        {say("treat.day")}
      </Link>
      <Mends advice={a} units={units} />
      <p className="border-l-2 border-ember pl-3 text-sm" data-testid="treat-cautions">
        {[...new Set(a.steps.flatMap((s) => s.cautions ?? []))].map((c) => told(c)).join(" ")}
      </p>
      <Group title={say("treat.bath")}>
        <Tank bath={a.bath} />
        <DraftPick
          field="treatment.bath.class"
          label={say("treat.bathClass")}
          value={a.bath.class}
          options={baths.map((b) => ({ value: b, label: told(`bath.${b}`) }))}
        />
        <DraftField field="treatment.bath.warmC" label={say("field.name.treatment.bath.warmC")} value={a.bath.warmC} />
        <DraftField
          field="treatment.bath.volumeL"
          label={say("field.name.treatment.bath.volumeL")}
          value={a.bath.volumeL}
        />
        <DraftField
          field="treatment.bath.longMm"
          label={say("field.name.treatment.bath.longMm")}
          value={t?.bath.longMm ?? 0}
          hint={say("treat.longHint")}
        />
        <DraftField
          field="treatment.bath.severityPerIn"
          label={say("field.name.treatment.bath.severityPerIn")}
          value={a.bath.severityPerIn}
        />
        <DraftField
          field="treatment.dipMm"
          label={say("field.name.treatment.dipMm")}
          value={t?.dipMm ?? 0}
          hint={say("treat.dipHint")}
        />
        <DraftField
          field="treatment.outC"
          label={say("field.name.treatment.outC")}
          value={t?.outC ?? 0}
          hint={say("treat.outHint", { c: print.temperature(a.outC, units) })}
        />
        <DraftField
          field="treatment.edgeAtQuenchMm"
          label={say("field.name.treatment.edgeAtQuenchMm")}
          value={t?.edgeAtQuenchMm || a.edgeAtQuenchMm}
          hint={say("treat.edgeHint", { edge: print.thickness(a.advisedEdgeMm, units) })}
        />
        <DraftPick
          field="treatment.kiln"
          label={say("treat.soakIn")}
          value={t?.kiln ? "yes" : "no"}
          options={[
            { value: "no", label: say("treat.inForge") },
            { value: "yes", label: say("treat.inKiln") },
          ]}
        />
      </Group>
      <Late treatment={t} />
      <Group title={say("treat.tempering")}>
        <DraftPick
          field="treatment.way"
          label={say("field.name.treatment.way")}
          value={t?.way ?? "oven"}
          options={ways.map((w) => ({ value: w, label: told(`way.${w}`) }))}
        />
        {t?.way !== "torch" && <Oven t={t} />}
        <DraftField
          field="treatment.wantHardness"
          label={say("field.name.treatment.wantHardness")}
          value={t?.wantHardness || a.wantHrc}
        />
        <DraftField
          field="treatment.ovenC"
          label={say("field.name.treatment.ovenC")}
          value={t?.ovenC || a.temper.ovenC}
        />
        <DraftField
          field="treatment.ovenMm"
          label={say("field.name.treatment.ovenMm")}
          value={t?.ovenMm ?? 0}
          hint={say("treat.longHint")}
        />
        <DraftField field="treatment.swingK" label={say("field.name.treatment.swingK")} value={t?.swingK ?? 10} />
        <DraftField field="treatment.hours" label={say("field.name.treatment.hours")} value={t?.hours ?? 2} />
        <DraftField field="treatment.times" label={say("field.name.treatment.times")} value={t?.times ?? 2} />
      </Group>
      {t && (
        <button type="button" className="press justify-self-start" onClick={() => draft.choose("treatment.usual", "")}>
          {say("treat.usual")}
        </button>
      )}
      {(t?.dipMm ?? 0) > 0 && <SpineDraw />}
      <Baths advice={a} units={units} />
    </div>
  );
}

/** What is found, with its severity. */
function Findings({ advice, units }: { advice: Advice; units: string }) {
  const steelName = useSteelName();
  if (advice.findings.length === 0) return null;
  return (
    <ul className="grid gap-2">
      {advice.findings.map((f) => (
        <li
          key={f.code}
          data-finding={f.code}
          className={`border-l-2 pl-3 ${f.severity === "note" ? "border-line text-quiet" : "border-ember"}`}
        >
          {findingWords(f, units, steelName)}
        </li>
      ))}
    </ul>
  );
}

/** What every bath would do with this blade. */
function Baths({ advice: a, units }: { advice: Advice; units: string }) {
  return (
    <table className="w-full text-[15px]" data-testid="baths">
      <caption className="mb-1 text-left text-lg">{say("treat.baths")}</caption>
      <thead className="text-quiet">
        <tr>
          <th scope="col" className="text-left font-normal">
            {say("treat.bathClass")}
          </th>
          <th scope="col" className="text-right font-normal">
            {say("treat.hardTo")}
          </th>
          <th scope="col" className="text-right font-normal">
            {say("treat.edgeIs")}
          </th>
        </tr>
      </thead>
      <tbody>
        {a.baths.map((b) => (
          <tr
            key={b.class}
            className={`border-t border-line ${b.class === a.bath.class ? "text-act" : ""}`}
            data-bath={b.class}
          >
            <th scope="row" className="py-0.5 text-left font-normal">
              {told(`bath.${b.class}`)}
            </th>
            <td className="text-right">{print.length(b.hardMm, units)}</td>
            <td className="text-right">
              {say(b.whole ? "treat.through" : b.edgeHardens ? "treat.edgeHard" : "treat.edgeNot")}
              {b.risks ? ` · ${say("treat.cracks")}` : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
