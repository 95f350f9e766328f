import { Link } from "react-router";
import { useBook, useEntry, useUnits } from "../../api/hooks";
import { useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { print } from "../../units/print";
import { finalWords } from "../finish/words";
import { seenWords } from "../harden/seen";
import { treatName } from "../harden/steps";
import type { Told } from "./words";
import { dayAndTime, lasted, percent, readingWords, signed } from "./words";

/** The totals of a session against its plan, its faults, notes and sittings, and the ways out. */
export function LogPanel() {
  const { piece } = useDraftState();
  const units = useUnits();
  const entry = useEntry(piece.id);
  const book = useBook(entry?.id).data?.book;
  if (!entry || !book)
    return (
      <p className="text-quiet" data-testid="log-empty">
        {say("log.empty")}
      </p>
    );
  const t = book.totals;
  const rows: [string, string, string, string][] = [
    [say("log.heats"), String(t.planHeats), String(t.heats), percent(t.heats, t.planHeats)],
    [say("log.blows"), String(t.planBlows), `${t.blows}`, percent(t.blows, t.planBlows)],
    [say("log.atAnvil"), lasted(t.planS), lasted(t.workS), percent(t.workS, t.planS)],
    [say("log.fuel"), print.mass(t.planFuelG, units), print.mass(t.fuelG, units), percent(t.fuelG, t.planFuelG)],
  ];
  if (t.weightG)
    rows.push([
      say("measure.weight"),
      t.planG ? print.mass(t.planG, units) : "",
      print.mass(t.weightG, units),
      percent(t.weightG, t.planG ?? 0),
    ]);
  const at = (path: string) => `/api/v1/sessions/${entry.id}/${path}`;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5" data-testid="log-panel">
      {!book.finished && (
        <Link className="press justify-self-start" to={`/sessions/${entry.id}/replan`} data-testid="to-replan">
          {say("replan.open")}
        </Link>
      )}
      <table className="w-full text-[15px]">
        <caption className="mb-1 text-left text-lg">
          {book.finished ? say("log.whole") : say("log.soFar", { n: book.step, of: book.steps })}
        </caption>
        <thead>
          <tr className="text-quiet">
            <th scope="col" className="sr-only">
              {say("log.what")}
            </th>
            <th scope="col" className="text-right font-normal">
              {say("log.planned")}
            </th>
            <th scope="col" className="text-right font-normal">
              {say("log.was")}
            </th>
            <th scope="col" className="text-right font-normal">
              ±
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([what, planned, was, off]) => (
            <tr key={what}>
              <th scope="row" className="text-left font-normal">
                {what}
              </th>
              <td className="text-right">{planned}</td>
              <td className="text-right">{was}</td>
              <td className="text-right text-quiet">{off}</td>
            </tr>
          ))}
          <tr>
            <th scope="row" className="text-left font-normal">
              {say("log.near")}
            </th>
            <td />
            <td className="text-right">{say("log.nearOf", { n: t.near, of: t.readings })}</td>
          </tr>
        </tbody>
      </table>
      <p className="-mt-3 text-sm text-quiet">{say("log.blowsNote")}</p>
      <List title={say("log.faults")} items={book.faults} none={say("log.noFaults")}>
        {(f) => (
          <>
            {told(`fault.${f.fault?.kind}`)}
            {f.fault?.atMm ? ` ${say("anvil.at", { at: print.length(f.fault.atMm, units) })}` : ""}
            {f.fault?.depthMm ? `, ${say("log.deep", { deep: print.thickness(f.fault.depthMm, units) })}` : ""}
            {f.text ? `. ${f.text}` : ""}
          </>
        )}
      </List>
      <List title={say("log.treatment")} items={book.treatment}>
        {(t) => (
          <>
            {t.step ? treatName(t.step) : ""}
            {t.seen || t.text ? `: ${[seenWords(t.seen, units), t.text].filter(Boolean).join(". ")}` : ""}
          </>
        )}
      </List>
      <List title={say("final.title")} items={book.final}>
        {(t) => finalWords(t.final, units)}
      </List>
      <List title={say("log.notes")} items={book.notes}>
        {(n) => <>{n.text}</>}
      </List>
      <List title={say("log.readings")} items={book.readings}>
        {(r) => (
          <>
            {readingWords(r, units)}
            {r.wanted && (
              <span className={r.within ? "text-quiet" : "text-ember"}> ({signed(r.differMm ?? 0, units)})</span>
            )}
          </>
        )}
      </List>
      <section>
        <h2 className="text-lg">{say("log.sittings")}</h2>
        <ul className="text-[15px]">
          {book.sittings.map((s) => (
            <li key={s.fromMs}>
              {dayAndTime(s.fromMs)}
              <span className="text-quiet">
                {" "}
                ·{" "}
                {say("log.sat", {
                  heats: s.heats,
                  time: lasted(((s.toMs ?? book.lastMs ?? s.fromMs) - s.fromMs) / 1000),
                })}
              </span>
            </li>
          ))}
        </ul>
      </section>
      <nav className="flex flex-wrap gap-1.5" aria-label={say("log.out")}>
        <Link className="press" to={`/sessions/${entry.id}/replay`} data-testid="to-replay">
          {say("replay.title")}
        </Link>
        <a className="press" href={at("book.pdf")} target="_blank" rel="noreferrer" data-testid="as-made">
          {say("log.asMade")}
        </a>
        <a className="press" href={at("book.csv")} download data-testid="log-csv">
          CSV
        </a>
        <a className="press" href={at("book.json")} download data-testid="log-json">
          JSON
        </a>
      </nav>
    </div>
  );
}

function List({
  title,
  items,
  none,
  children,
}: {
  title: string;
  items: Told[];
  none?: string;
  children: (t: Told) => React.ReactNode;
}) {
  if (items.length === 0 && !none) return null;
  return (
    <section>
      <h2 className="text-lg">{title}</h2>
      {items.length === 0 ? (
        <p className="text-quiet">{none}</p>
      ) : (
        <ul className="grid gap-1 text-[15px]">
          {items.map((t) => (
            <li key={t.id} className="border-l-2 border-line pl-2">
              {children(t)}{" "}
              <span className="text-sm text-quiet">
                {["treated", "seen", "finished"].includes(t.kind)
                  ? dayAndTime(t.onMs)
                  : say("log.inHeat", { n: t.ofTrip })}
              </span>
              {t.picture && (
                <a href={`/api/v1/pictures/${t.picture}`} target="_blank" rel="noreferrer" className="mt-1 block">
                  <img
                    src={`/api/v1/pictures/${t.picture}`}
                    alt={t.text ?? say("event.picture")}
                    className="max-h-40 rounded-sm"
                  />
                </a>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
