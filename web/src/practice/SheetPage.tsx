import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft, Check, Undo2, X } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import { useUnits } from "../api/hooks";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { locale, say, told } from "../text/say";
import { print } from "../units/print";

/** A teacher's sheet: who has practised what, and how it went. */
export function PracticeSheetPage() {
  useTitle(say("practice.sheet"));
  const units = useUnits();
  const queries = useQueryClient();
  const sheet = useQuery({ queryKey: ["practised"], queryFn: () => ask(api.GET("/api/v1/practice/sheet")) });
  const [gone, setGone] = useState<string>();
  const [search, setSearch] = useState("");
  if (sheet.isPending) return <Loading />;
  if (sheet.isError) return <Failed error={sheet.error} retry={() => void sheet.refetch()} />;
  const set = async (id: string, off: boolean) => {
    const path = { params: { path: { id } } };
    await (off
      ? api.POST("/api/v1/practice/sheet/{id}/remove", path)
      : api.POST("/api/v1/practice/sheet/{id}/restore", path));
    setGone(off ? id : undefined);
    await queries.invalidateQueries({ queryKey: ["practised"] });
  };
  const nameOf = (l: { exercise: string; piece?: string }) => l.piece || told(`exercise.${l.exercise}`);
  const found = sheet.data.filter((l) => `${l.who} ${nameOf(l)}`.toLowerCase().includes(search.toLowerCase()));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="practice-sheet">
      <header className="mb-3 flex flex-wrap items-center gap-3">
        <Link to="/practice" className="press press-plain">
          <ArrowLeft size={18} aria-hidden /> {say("practice.all")}
        </Link>
        <h1 className="mr-auto text-3xl">{say("practice.sheet")}</h1>
        {gone && (
          <button type="button" className="press" onClick={() => void set(gone, false)} data-testid="practised-restore">
            <Undo2 size={16} aria-hidden /> {say("practice.putBack")}
          </button>
        )}
        {sheet.data.length > 0 && (
          <a className="press" href="/api/v1/practice/sheet.csv" download data-testid="practice-csv">
            CSV
          </a>
        )}
      </header>
      {sheet.data.length === 0 ? (
        <p className="max-w-prose text-quiet">{say("practice.sheetEmpty")}</p>
      ) : (
        <>
          <label className="typed mb-3 grid max-w-xs gap-0.5">
            <span className="text-sm text-quiet">{say("practice.sheetFind")}</span>
            <input type="search" value={search} onChange={(e) => setSearch(e.target.value)} data-testid="sheet-find" />
          </label>
          <div className="overflow-x-auto">
            <table className="w-full max-w-5xl">
              <thead>
                <tr className="text-left text-sm text-quiet">
                  {["who", "what", "done", "heatsOf", "blowsOfPar", "coldOnes", "worst", "faults", "when"].map((c) => (
                    <th key={c} scope="col" className="py-1 pr-4 font-normal">
                      {told(`practice.col.${c}`)}
                    </th>
                  ))}
                  <td />
                </tr>
              </thead>
              <tbody className="tabular-nums">
                {found.map((l) => (
                  <tr key={l.id} className="border-t border-line align-top" data-practised={l.who}>
                    <th scope="row" className="py-1.5 pr-4 text-left font-medium">
                      {l.who}
                    </th>
                    <td className="py-1.5 pr-4">{nameOf(l)}</td>
                    <td className="py-1.5 pr-4">
                      {l.came.done ? (
                        <Check size={16} className="text-act" aria-label={say("practice.col.done")} />
                      ) : (
                        `${l.came.met}/${l.came.goals}`
                      )}
                    </td>
                    <td className="py-1.5 pr-4">
                      {l.came.heats}/{l.came.parHeats}
                    </td>
                    <td className="py-1.5 pr-4">
                      {l.came.blows}/{l.came.parBlows}
                    </td>
                    <td className={`py-1.5 pr-4 ${l.came.coldBlows > 0 ? "text-ember" : ""}`}>{l.came.coldBlows}</td>
                    <td className="py-1.5 pr-4 whitespace-nowrap">
                      {l.came.worstMm > 0 ? print.thickness(Math.round(l.came.worstMm * 10) / 10, units) : "–"}
                    </td>
                    <td className="py-1.5 pr-4">{l.came.faults.map((f) => told(`fault.${f}`)).join(", ")}</td>
                    <td className="py-1.5 pr-4 text-quiet">{new Date(l.at).toLocaleDateString(locale())}</td>
                    <td>
                      <button
                        type="button"
                        className="press press-plain"
                        aria-label={say("practice.takeOff", { who: l.who })}
                        onClick={() => void set(l.id, true)}
                        data-testid="practised-remove"
                      >
                        <X size={16} aria-hidden />
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      )}
    </div>
  );
}
