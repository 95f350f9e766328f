import { Footprints } from "lucide-react";
import { useEffect } from "react";
import { Link, useParams } from "react-router";
import { useEditShop } from "../api/hooks";
import { HeatScale } from "../practice/HeatScale";
import { useTitle } from "../shell/focus";
import { say, told } from "../text/say";
import { type Chapter, chapters } from "./chapters";

/** The handbook: what the application does, in the order in which smiths work, with drawings that the core makes of a plan. */
export function HelpPage() {
  useTitle(say("help.title"));
  const { id } = useParams();
  const edit = useEditShop();
  useEffect(() => {
    const at = id && document.getElementById(`help-${id}`);
    if (at) at.scrollIntoView();
  }, [id]);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6">
      <header className="mb-4 flex flex-wrap items-end gap-3">
        <h1 className="text-3xl">{say("help.title")}</h1>
        <p className="mr-auto pb-1 text-quiet">{say("help.lead")}</p>
        <button type="button" className="press" onClick={() => edit.mutate([{ field: "walk", text: "1" }])}>
          <Footprints size={16} aria-hidden /> {say("walk.name")}
        </button>
      </header>
      <nav aria-label={say("help.contents")} className="mb-6 flex flex-wrap gap-x-5 gap-y-1">
        {chapters.map((c) => (
          <Link key={c.id} className="underline decoration-line underline-offset-4" to={`/help/${c.id}`}>
            {told(`help.${c.id}.title`)}
          </Link>
        ))}
      </nav>
      <div className="grid max-w-6xl gap-8">
        {chapters.map((c) => (
          <Told key={c.id} chapter={c} />
        ))}
      </div>
      <p className="mt-8 max-w-3xl border-t border-line pt-4 text-quiet">{say("caution.general")}</p>
    </div>
  );
}

function Told({ chapter: c }: { chapter: Chapter }) {
  const words = told(`help.${c.id}.words`).split("\n");
  return (
    <section id={`help-${c.id}`} className="grid items-start gap-x-8 gap-y-3 border-t border-line pt-4 lg:grid-cols-2">
      <div>
        <h2 className="mb-2 text-2xl">{told(`help.${c.id}.title`)}</h2>
        {words.map((p) => (
          <p key={p} className="mb-2 max-w-prose">
            {p}
          </p>
        ))}
        {c.id === "fire" && (
          <div className="mb-3">
            <HeatScale />
          </div>
        )}
        <Link className="press" to={c.to}>
          {say("help.open")}
        </Link>
      </div>
      {c.drawing && (
        <img
          src={`/api/v1/help/${c.drawing}`}
          alt={told(`help.drawing.${c.drawing}`)}
          className="w-full max-w-2xl"
          loading="lazy"
        />
      )}
    </section>
  );
}
