import { useState } from "react";
import { Link } from "react-router";
import { useSessions, useSteelName } from "../api/hooks";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { lasted } from "../stages/log/words";
import { locale, say, told } from "../text/say";
import { SearchField } from "../ui/SearchField";
import { found } from "./found";

/** The book of all pieces: every session at the fire, found by piece, steel, smith, fault and day. */
export function BookPage() {
  useTitle(say("book.title"));
  const all = useSessions();
  const steelName = useSteelName();
  const [words, setWords] = useState("");
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  if (all.isPending) return <Loading />;
  if (all.isError) return <Failed error={all.error} retry={() => void all.refetch()} />;
  const shown = all.data.filter((e) => found(e.progress, steelName(e.progress.steelId), { words, from, to }));
  const date = "rounded border border-line bg-plate px-2 py-2";
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="book-page">
      <h1 className="mb-4 text-3xl">{say("book.title")}</h1>
      <div className="mb-4 flex flex-wrap items-end gap-3">
        <div className="min-w-64 flex-1">
          <SearchField label={say("book.find")} text={words} onType={setWords} />
        </div>
        <label>
          <span className="mb-0.5 block text-sm text-quiet">{say("book.from")}</span>
          <input type="date" className={date} value={from} onChange={(e) => setFrom(e.target.value)} />
        </label>
        <label>
          <span className="mb-0.5 block text-sm text-quiet">{say("book.to")}</span>
          <input type="date" className={date} value={to} onChange={(e) => setTo(e.target.value)} />
        </label>
      </div>
      {shown.length === 0 ? (
        <p className="text-quiet">{say(all.data.length === 0 ? "book.none" : "book.noneFound")}</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full min-w-[640px]">
            <thead className="text-left text-quiet">
              <tr>
                <th scope="col" className="font-normal">
                  {say("nav.pieces")}
                </th>
                <th scope="col" className="font-normal">
                  {say("book.date")}
                </th>
                <th scope="col" className="font-normal">
                  {say("book.by")}
                </th>
                <th scope="col" className="font-normal">
                  {say("book.state")}
                </th>
                <th scope="col" className="font-normal">
                  {say("log.atAnvil")}
                </th>
                <th scope="col" className="font-normal">
                  {say("book.faults")}
                </th>
              </tr>
            </thead>
            <tbody>
              {shown.map(({ id, pieceId, replaced, progress: p }) => (
                <tr key={id} className="border-t border-line align-top" data-session={id}>
                  <th scope="row" className="py-2 text-left font-normal">
                    <Link to={`/pieces/${pieceId}/log`} className="narrow text-xl hover:text-act">
                      {p.name}
                    </Link>
                    <span className="block text-quiet">{steelName(p.steelId)}</span>
                  </th>
                  <td className="py-2">{p.lastMs ? new Date(p.lastMs).toLocaleDateString(locale()) : "–"}</td>
                  <td className="py-2">{p.hand}</td>
                  <td className="py-2">
                    {p.phase === "finished"
                      ? say("anvil.wasFinished", { heats: p.trips })
                      : say("anvil.whereHeats", { n: p.trips, of: p.heats })}
                    {replaced && <span className="block text-quiet">{say("book.replaced")}</span>}
                  </td>
                  <td className="py-2">{lasted(p.lastsS)}</td>
                  <td className="py-2">{[...new Set(p.faults)].map((f) => told(`fault.${f}`)).join(", ")}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}
