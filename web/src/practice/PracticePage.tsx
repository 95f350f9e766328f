import { useQuery } from "@tanstack/react-query";
import { ArrowLeft, Eye } from "lucide-react";
import { Link, useParams } from "react-router";
import { api, ask, Refused } from "../api/client";
import { usePieces, useSteelName, useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { useTitle } from "../shell/focus";
import { NotThere } from "../shell/NotThere";
import { Failed, Loading } from "../shell/States";
import { say, told } from "../text/say";
import { print } from "../units/print";
import { Game } from "./Game";

type Exercise = components["schemas"]["PracticeExercise"];

/** Forging played on the screen: what there is to practise, or one exercise of it. */
export function PracticePage() {
  useTitle(say("practice.title"));
  const { id } = useParams();
  const all = useQuery({ queryKey: ["exercises"], queryFn: () => ask(api.GET("/api/v1/practice/exercises")) });
  if (all.isPending) return <Loading />;
  if (all.isError) return <Failed error={all.error} retry={() => void all.refetch()} />;
  if (!id) return <List all={all.data} />;
  const ex = all.data.find((e) => e.id === id);
  if (!ex) return <NotThere />;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="practice">
      <header className="mb-1 flex flex-wrap items-center gap-3">
        <Link to="/practice" className="press press-plain">
          <ArrowLeft size={18} aria-hidden /> {say("practice.all")}
        </Link>
        <h1 className="text-3xl">{told(`exercise.${ex.id}`)}</h1>
      </header>
      <p className="mb-3 max-w-3xl text-quiet">{told(`exercise.${ex.id}.what`)}</p>
      <Game key={ex.id} ex={ex} />
    </div>
  );
}

function List({ all }: { all: Exercise[] }) {
  const units = useUnits();
  const steelName = useSteelName();
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="exercises">
      <header className="mb-2 flex flex-wrap items-center gap-4">
        <h1 className="mr-auto text-3xl">{say("practice.title")}</h1>
        <Link to="/practice/colours" className="press">
          <Eye size={16} aria-hidden /> {say("eye.title")}
        </Link>
        <Link to="/practice/sheet" className="press" data-testid="to-sheet">
          {say("practice.sheet")}
        </Link>
      </header>
      <p className="mb-4 max-w-3xl text-quiet">{say("practice.note")}</p>
      <ol className="grid gap-3">
        {all.map((e) => (
          <li key={e.id} className="flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-line pt-3">
            <div className="min-w-72 flex-1">
              <h2 className="text-2xl">{told(`exercise.${e.id}`)}</h2>
              <p>{told(`exercise.${e.id}.what`)}</p>
              <p className="text-sm text-quiet">
                {say("practice.bar", {
                  steel: steelName(e.steelId),
                  w: print.length(e.widthMm, units),
                  t: print.length(e.thicknessMm, units),
                  l: print.length(e.lengthMm, units),
                })}
                . {say("practice.par", { heats: e.parHeats, blows: e.parBlows })}
              </p>
            </div>
            <Link to={`/practice/${e.id}`} className="press press-act" data-exercise={e.id}>
              {say("practice.try")}
            </Link>
          </li>
        ))}
      </ol>
    </div>
  );
}

/** A piece of work, forged on the screen first. */
export function PracticePiecePage() {
  const { id = "" } = useParams();
  const ex = useQuery({
    queryKey: ["exercise", id],
    queryFn: () => ask(api.GET("/api/v1/pieces/{id}/exercise", { params: { path: { id } } })),
    retry: false,
  });
  const pieces = usePieces();
  const name = pieces.data?.find((p) => p.id === id)?.doc.name ?? "";
  useTitle(say("practice.ofPiece", { name }));
  if (ex.isPending) return <Loading />;
  const why = ex.error instanceof Refused ? ex.error.problem.fields?.[0]?.message : undefined;
  if (ex.isError && !why) return <Failed error={ex.error} retry={() => void ex.refetch()} />;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="practice">
      <header className="mb-1 flex flex-wrap items-center gap-3">
        <Link to={`/pieces/${id}/anvil`} className="press press-plain">
          <ArrowLeft size={18} aria-hidden /> {name}
        </Link>
        <h1 className="text-3xl">{say("practice.ofPiece", { name })}</h1>
      </header>
      {why ? (
        <p role="alert">{why}</p>
      ) : (
        <>
          <p className="mb-3 max-w-3xl text-quiet">{say("practice.ofPiece.what")}</p>
          {ex.data && <Game key={id} ex={ex.data} piece />}
        </>
      )}
    </div>
  );
}
