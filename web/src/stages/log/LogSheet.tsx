import { useBook, useEntry, useUnits } from "../../api/hooks";
import { useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { localNumber, print } from "../../units/print";
import { Overlay } from "./Overlay";
import { lasted } from "./words";

/** The book of a piece, where the bench is otherwise: as measured over as planned, by operation, heat by heat. */
export function LogSheet() {
  const { piece } = useDraftState();
  const units = useUnits();
  const entry = useEntry(piece.id);
  const data = useBook(entry?.id).data;
  if (!entry)
    return (
      <div className="m-auto max-w-md p-6 text-center text-quiet">
        <p>{say("log.nothing")}</p>
      </div>
    );
  if (!data) return <div className="flex-1" />;
  const { book, session } = data;
  return (
    <section
      className="min-h-0 flex-1 overflow-y-auto p-4"
      data-testid="log-sheet"
      aria-label={say("stage.log")}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, by keys too
      tabIndex={0}
    >
      <h2 className="mb-1 text-2xl">{say("log.title", { name: session.name })}</h2>
      {book.simulated && (
        <p className="mb-2 text-quiet" data-testid="log-simulated">
          {say("log.simulated")}
        </p>
      )}
      <Overlay book={book} course={session.course} />
      <h3 className="mt-5 mb-1 text-lg">{say("log.byOperation")}</h3>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[560px] text-[15px]" data-testid="log-operations">
          <thead className="text-quiet">
            <tr>
              <th scope="col" className="text-left font-normal">
                {say("log.operation")}
              </th>
              <th scope="col" className="text-right font-normal">
                {say("log.heats")}
              </th>
              <th scope="col" className="text-right font-normal">
                {say("log.blows")}
              </th>
              <th scope="col" className="text-right font-normal">
                {say("log.atAnvil")}
              </th>
            </tr>
          </thead>
          <tbody>
            {book.operations.map((o) => (
              <tr key={o.operation} className={`border-t border-line ${o.done || o.heats > 0 ? "" : "text-quiet"}`}>
                <th scope="row" className="py-0.5 text-left font-normal">
                  {told(`op.${o.kind}`)}
                  {o.notYet ? <span className="text-quiet"> · {say("log.notYet", { n: o.notYet })}</span> : null}
                  {o.past ? <span className="text-ember"> · {say("log.past")}</span> : null}
                </th>
                <Against
                  planned={localNumber(o.planHeats.toFixed(1))}
                  was={localNumber(o.heats.toFixed(1))}
                  begun={o.heats > 0}
                />
                <Against planned={String(o.planBlows)} was={String(o.blows)} begun={o.heats > 0} />
                <Against planned={lasted(o.planS)} was={lasted(o.s)} begun={o.heats > 0} />
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <h3 className="mt-5 mb-1 text-lg">{say("log.heatByHeat")}</h3>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[640px] text-[15px]" data-testid="log-heats">
          <thead className="text-quiet">
            <tr>
              <th scope="col" className="text-left font-normal">
                {say("log.heat")}
              </th>
              <th scope="col" className="text-left font-normal">
                {say("log.steps")}
              </th>
              <th scope="col" className="text-right font-normal">
                {say("log.inFire")}
              </th>
              <th scope="col" className="text-right font-normal">
                {say("log.atAnvil")}
              </th>
              <th scope="col" className="text-right font-normal">
                {say("log.outAt")}
              </th>
              <th scope="col" className="text-right font-normal">
                {say("log.blows")}
              </th>
            </tr>
          </thead>
          <tbody>
            {book.heats.map((h) => (
              <tr key={h.number} className="border-t border-line align-top">
                <th scope="row" className="py-0.5 text-left font-normal">
                  {h.number}
                </th>
                <td>
                  {h.steps.map((k) => told(`op.${session.course.steps[k.step]?.kind}`)).join(", ")}
                  {h.steps.some((k) => k.notYet) && <span className="text-quiet"> · {say("log.notDone")}</span>}
                  {h.assumed && <span className="text-quiet"> · {say("anvil.assumed")}</span>}
                </td>
                <td className="text-right">{h.fireS ? lasted(h.fireS) : "–"}</td>
                <td className="text-right">
                  {h.workS ? lasted(h.workS) : "–"} <span className="text-quiet">/ {lasted(h.planS)}</span>
                </td>
                <td className="text-right">{print.temperature(h.outC, units)}</td>
                <td className="text-right">
                  {h.counted ? "" : "≈ "}
                  {h.blows}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function Against({ planned, was, begun }: { planned: string; was: string; begun: boolean }) {
  return (
    <td className="text-right">
      {begun ? was : "–"} <span className="text-quiet">/ {planned}</span>
    </td>
  );
}
