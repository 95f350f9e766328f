import { Eye, Hammer } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { useTitle } from "../shell/focus";
import { say } from "../text/say";
import { SearchField } from "../ui/SearchField";
import { WordDrawing } from "./WordDrawing";
import { search } from "./words";

/** Every word of the trade that is used anywhere, with a small drawing. */
export function WordsPage() {
  useTitle(say("words.title"));
  const { id } = useParams();
  const [text, setText] = useState("");
  const found = search(text);
  useEffect(() => {
    if (!id) return;
    const word = document.getElementById(`word-${id}`);
    word?.scrollIntoView({ block: "center" });
    word?.focus();
  }, [id]);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6">
      <header className="mb-4 flex flex-wrap items-end gap-3">
        <h1 className="text-3xl">{say("words.title")}</h1>
        <p className="mr-auto pb-1 text-quiet">{say("words.lead")}</p>
        <Link to="/practice" className="press">
          <Hammer size={16} aria-hidden /> {say("practice.title")}
        </Link>
        <Link to="/practice/colours" className="press">
          <Eye size={16} aria-hidden /> {say("eye.title")}
        </Link>
        <SearchField label={say("words.search")} text={text} onType={setText} />
      </header>
      {found.length === 0 && <p className="text-quiet">{say("words.none")}</p>}
      <ul className="grid gap-x-8 border-t border-line md:grid-cols-2 2xl:grid-cols-3">
        {found.map((w) => (
          <li
            key={w.id}
            id={`word-${w.id}`}
            tabIndex={-1}
            className={`flex items-center gap-4 border-b border-line py-2.5 outline-none focus:bg-raised ${w.id === id ? "bg-raised" : ""}`}
          >
            <WordDrawing id={w.id} className="h-[60px] w-[120px] shrink-0" />
            <span>
              <span className="narrow block text-xl leading-tight">{w.name}</span>
              <span className="block leading-snug text-quiet">{w.says}</span>
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
