import { useUnits } from "../../api/hooks";
import { useDraftState } from "../../draft/context";
import { heatColour, say, told } from "../../text/say";
import { TimerButton } from "../../timers/TimerButton";
import { DraftPick } from "../../ui/DraftField";
import { print } from "../../units/print";
import { isCycle } from "../heats/machine";
import { useAdvice } from "./useAdvice";

const schools = ["descending", "equal", "once", "anneal"] as const;
const evens = ["forgeLow", "stored", "kiln"] as const;

/** Thermal cycles: each with its temperature, colour and cooling, and the grain that is left after it. */
export function CyclesPanel() {
  const { plan, piece, doc } = useDraftState();
  const units = useUnits();
  const { data: a } = useAdvice();
  const heatOf = (operation: string) => plan.heats.find((h) => h.parts[0]?.operation === operation);
  const even = doc.request.choices.even ?? "forgeLow";
  const cycles = plan.operations.filter((o) => isCycle(o.kind));
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4" data-testid="cycles-panel">
      <DraftPick
        field="choices.cycles"
        label={say("field.name.choices.cycles")}
        options={schools.map((s) => ({ value: s, label: told(`cycles.${s}`) }))}
      />
      <DraftPick
        field="choices.even"
        label={say("field.name.choices.even")}
        value={even}
        options={evens.map((s) => ({ value: s, label: told(`even.${s}`) }))}
        hint={told(`even.${even}.how`)}
      />
      <DraftPick
        field="choices.soften"
        label={say("field.name.choices.soften")}
        value={doc.request.choices.soften ? "yes" : "no"}
        options={["no", "yes"].map((s) => ({ value: s, label: told(`soften.${s}`) }))}
      />
      {cycles.length === 0 ? (
        <p className="text-quiet">{say("cycles.none")}</p>
      ) : (
        <ol className="grid gap-2">
          {cycles.map((c, i) => (
            <li key={c.id} className="border-l-2 border-line pl-3" data-cycle={c.id}>
              <span className="narrow text-lg">
                {i + 1}. {told(`op.${c.kind}`)} · {print.temperature(c.targetC ?? 0, units)}
              </span>
              <span className="block">
                {say("cycles.to", { colour: heatColour(c.targetC ?? 0, units) })}{" "}
                {say(c.kind === "normalise" ? "cycles.air" : "cycles.slow")}
              </span>
              {heatOf(c.id) && (
                <span className="flex flex-wrap items-center gap-2 text-quiet">
                  {say("cycles.times", {
                    fire: print.duration(heatOf(c.id)?.fireS ?? 0),
                    cool: print.duration(heatOf(c.id)?.workS ?? 0),
                  })}
                  <TimerButton
                    pieceId={piece.id}
                    kind="cycle"
                    label={`${told(`op.${c.kind}`)} ${i + 1}`}
                    seconds={heatOf(c.id)?.fireS ?? 0}
                  />
                </span>
              )}
              {c.thermal?.soakS ? (
                <span className="mt-1 flex">
                  <TimerButton pieceId={piece.id} kind="cycle" label={told(`op.${c.kind}`)} seconds={c.thermal.soakS} />
                </span>
              ) : null}
            </li>
          ))}
        </ol>
      )}
      <p className="text-quiet">{say("cycles.even")}</p>
      {a && a.grain.length > 0 && <Grain steps={a.grain} />}
      {a && a.cyclesOwed > 0 && (
        <p className="border-l-2 border-ember pl-3" data-testid="cycles-owed">
          {say("harden.cyclesOwed", { cycles: a.cyclesOwed })}
        </p>
      )}
    </div>
  );
}

/** The grain after each stage, coarse at the top: an order of size. */
function Grain({ steps }: { steps: { what: string; tempC: number; grainUm: number; grainNumber: number }[] }) {
  const units = useUnits();
  const most = Math.max(...steps.map((s) => s.grainUm), 1);
  return (
    <figure data-testid="grain">
      <figcaption className="mb-1 text-lg">{say("grain.title")}</figcaption>
      <ol className="grid gap-1">
        {steps.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: stages in order
          <li key={i} className="grid grid-cols-[7.5rem_1fr_auto] items-center gap-2 text-[15px]">
            <span>
              {told(`grain.${s.what}`)} <span className="text-quiet">{print.temperature(s.tempC, units)}</span>
            </span>
            <span
              className="h-3 rounded-sm bg-[var(--zone-blade)]"
              style={{ width: `${Math.max(2, (s.grainUm / most) * 100)}%` }}
            />
            <span className="narrow">{say("grain.number", { n: s.grainNumber.toFixed(1) })}</span>
          </li>
        ))}
      </ol>
      <p className="mt-1 text-sm text-quiet">{say("grain.note")}</p>
    </figure>
  );
}
