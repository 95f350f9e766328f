import { Link } from "react-router";
import { useBook, useEntry, useUnits } from "../../api/hooks";
import { useDraft, useDraftState } from "../../draft/context";
import { figures, say, told } from "../../text/say";
import { TimerButton } from "../../timers/TimerButton";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { print } from "../../units/print";
import { Kept } from "../heats/Sets";
import { AsFinished } from "./AsFinished";
import { Money } from "./Money";
import { TookField } from "./TookField";
import { type FinishStep, useFinish } from "./useFinish";
import { Ways } from "./Ways";
import { about, stepWords } from "./words";

const stagesOf = [
  ["soft", "finish.soft"],
  ["hard", "finish.hardStage"],
  ["handle", "finish.handleStage"],
  ["edge", "finish.edgeStage"],
] as const;

/** From black blade to a knife in its sheath: every step with its figures, what was found, what it costs. */
export function FinishPanel() {
  const { doc, piece } = useDraftState();
  const draft = useDraft();
  const units = useUnits();
  const { data: f } = useFinish();
  const book = useBook(useEntry(piece.id)?.id).data?.book;
  if (!f) return null;
  const c = doc.request.finish;
  const pick = (name: string, value: string, options: readonly string[], words: string) => (
    <DraftPick
      field={`finish.${name}`}
      label={told(`field.name.finish.${name}`)}
      value={value}
      options={options.map((v) => ({ value: v, label: /^\d+$/.test(v) ? v : told(`${words}.${v}`) }))}
    />
  );
  const field = (name: string, value: number, hint?: string) => (
    <DraftField field={`finish.${name}`} label={told(`field.name.finish.${name}`)} value={value} hint={hint} />
  );
  const hidden = doc.request.design.tangKind === "hidden" || doc.request.design.tangKind === "partial";
  const glue = f.handle.glueMin;
  const cut =
    f.handle.slots.length > 0 ||
    f.handle.bore ||
    f.handle.scales ||
    f.handle.sections.length > 0 ||
    c?.cover === "leather" ||
    c?.cover === "thermo";
  const took = new Map<string, number>();
  for (const t of (book?.final ?? []).flatMap((n) => n.final?.took ?? []))
    took.set(t.step, (took.get(t.step) ?? 0) + t.min);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4" data-testid="finish-panel">
      <p className="narrow text-2xl leading-tight" data-testid="finish-sum">
        {about(f.account.min)}{" "}
        <span className="text-quiet">
          {about(f.account.lowMin)} – {about(f.account.highMin)} ·{" "}
          {say("finish.belts", { n: Math.ceil(f.account.belts) })}
        </span>
      </p>
      {f.findings.length > 0 && (
        <ul className="grid gap-2">
          {f.findings.map((x) => (
            <li
              key={x.code + JSON.stringify(x.figures)}
              data-finding={x.code}
              className={`border-l-2 pl-3 ${x.severity === "note" ? "border-line text-quiet" : "border-ember"}`}
            >
              {told(x.code, figures(x.figures, units))}
            </li>
          ))}
        </ul>
      )}
      <Ways f={f} />
      {took.size === 0 && <p className="text-sm text-quiet">{say("finish.tookNone")}</p>}
      {stagesOf.map(([stage, title]) => (
        <Steps
          key={stage}
          title={say(title)}
          steps={f.steps.filter((s) => s.stage === stage)}
          units={units}
          took={took}
          after={
            stage === "handle" && f.steps.some((s) => s.id === "glue") ? (
              <TimerButton pieceId={piece.id} kind="glue" label={say("day.timer.set")} seconds={glue * 60} />
            ) : undefined
          }
        />
      ))}
      <nav className="flex flex-wrap gap-1.5" aria-label={say("finish.fittings")}>
        <a
          className="press"
          href={`/api/v1/pieces/${piece.id}/fittings.pdf`}
          target="_blank"
          rel="noreferrer"
          data-testid="fittings-pdf"
        >
          {say("finish.sheet")}
        </a>
        {cut && (
          <>
            <a className="press" href={`/api/v1/pieces/${piece.id}/fittings.svg`} download>
              SVG
            </a>
            <a className="press" href={`/api/v1/pieces/${piece.id}/fittings.dxf`} download>
              DXF
            </a>
          </>
        )}
        <a
          className="press"
          href={`/api/v1/pieces/${piece.id}/customer.pdf`}
          target="_blank"
          rel="noreferrer"
          data-testid="customer-pdf"
        >
          {say("finish.customerSheet")}
        </a>
      </nav>
      <Group title={say("finish.how")}>
        {pick("hold", c?.hold ?? "free", ["free", "jig", "magnet"], "hold")}
        {pick("fromGrit", String(c?.fromGrit || 60), ["36", "60", "80"], "grit")}
        {pick("worn", c?.worn ? "yes" : "no", ["no", "yes"], "worn")}
        <DraftPick
          field="finish.surface"
          label={told("field.name.finish.surface")}
          value={f.surfaces.find((s) => s.chosen)?.surface ?? "belt"}
          options={f.surfaces.map((s) => ({
            value: s.surface,
            label: `${told(`surface.${s.surface}`)} · ${about(s.minutes)}`,
          }))}
        />
        {pick("hardened", c?.hardened ? "yes" : "no", ["no", "yes"], "hardened")}
        {field("edgeDeg", c?.edgeDeg || f.edge.angleDeg)}
      </Group>
      <Group title={say("finish.fittings")}>
        {hidden && field("spacers", c?.spacers ?? 0)}
        {hidden && (c?.spacers ?? 0) > 0 ? field("spacerMm", c?.spacerMm || 1.5) : null}
        {hidden && pick("fit", c?.fit ?? "burnt", ["burnt", "filed", "core"], "fit")}
        {pick("cover", c?.cover ?? "none", ["none", "leather", "thermo"], "cover")}
        {c?.cover && c.cover !== "none" ? field("coverMm", c.coverMm || f.sheath.thicknessMm) : null}
        <Kept />
        {field("glueMin", c?.glueMin || glue)}
        {field(
          "block.lengthMm",
          c?.block.lengthMm ?? 0,
          say("finish.blockGrain", { mm: print.length(f.handle.block.lengthMm, units) }),
        )}
        {field("block.heightMm", c?.block.heightMm ?? 0, print.length(f.handle.block.heightMm, units))}
        {field("block.widthMm", c?.block.widthMm ?? 0, print.length(f.handle.block.widthMm, units))}
        {field("seatSpineMm", c?.seatSpineMm ?? 0)}
        {field("seatEdgeMm", c?.seatEdgeMm ?? 0)}
      </Group>
      <Money f={f} />
      <AsFinished f={f} />
      {((c?.readings?.length ?? 0) > 0 || (c?.pits?.length ?? 0) > 0 || c?.was) && (
        <button type="button" className="press justify-self-start" onClick={() => draft.choose("finish.forget", "")}>
          {say("finish.forget")}
        </button>
      )}
      {c && (
        <button type="button" className="press justify-self-start" onClick={() => draft.choose("finish.usual", "")}>
          {say("finish.usual")}
        </button>
      )}
      <Link className="press justify-self-start" to={`/day?p=${piece.id}&g=${glue}`}>
        {say("treat.day")}
      </Link>
    </div>
  );
}

/** From one time to another, or the one where both read the same. */
const span = (low: number, high: number) =>
  about(low) === about(high) ? about(low) : say("finish.minutes", { low: about(low), high: about(high) });

const thick = (mm: number, units: string) => print.thickness(Math.round(mm * 100) / 100, units);

/** How thick it is to be after a step, at three places along it. */
function Targets({ targets, units }: { targets: NonNullable<FinishStep["targets"]>; units: string }) {
  const head = ["finish.targetAt", "finish.targetEdge", "finish.targetMid", "finish.targetSpine"] as const;
  return (
    <table className="narrow mt-1 w-full text-quiet" data-testid="targets">
      <thead className="text-sm">
        <tr>
          {head.map((h) => (
            <th key={h} scope="col" className="text-right font-normal first:text-left">
              {say(h)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {targets.map((t) => (
          <tr key={t.xMm}>
            <th scope="row" className="text-left font-normal">
              {print.length(Math.round(t.xMm), units)}
            </th>
            {[t.edgeMm, t.midMm, t.backMm].map((v, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: columns in order
              <td key={i} className="whitespace-nowrap text-right">
                {thick(v, units)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Steps({
  title,
  steps,
  units,
  took,
  after,
}: {
  title: string;
  steps: FinishStep[];
  units: string;
  took: Map<string, number>;
  after?: React.ReactNode;
}) {
  if (steps.length === 0) return null;
  const low = steps.reduce((a, s) => a + s.lowMin, 0);
  const high = steps.reduce((a, s) => a + s.highMin, 0);
  const cautions = [...new Set(steps.flatMap((s) => s.cautions ?? []))];
  return (
    <details className="border-t border-line pt-1" open={steps[0]?.stage === "hard"} data-steps={steps[0]?.stage}>
      <summary className="flex cursor-pointer items-baseline gap-2 py-1">
        <span className="narrow mr-auto text-lg">{title}</span>
        <span className="text-sm text-quiet">{span(low, high)}</span>
      </summary>
      <ol className="grid list-decimal gap-2 pb-2 pl-5 marker:text-quiet">
        {steps.map((s) => (
          <li key={s.id} data-step={s.id}>
            {stepWords(s, units)} <span className="text-sm text-quiet">{span(s.lowMin, s.highMin)}</span>
            {s.targets && s.targets.length > 0 && <Targets targets={s.targets} units={units} />}
            <TookField step={s.id} min={took.get(s.id) ?? 0} units={units} />
          </li>
        ))}
      </ol>
      {after}
      {cautions.length > 0 && (
        <p className="mb-2 border-l-2 border-ember pl-3 text-sm">{cautions.map((c) => told(c)).join(" ")}</p>
      )}
    </details>
  );
}
