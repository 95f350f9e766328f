import { X } from "lucide-react";
import { useLocation, useNavigate } from "react-router";
import { useEditShop, usePieces, useShop } from "../api/hooks";
import { say, told } from "../text/say";

/** Where each step of the first walk leads. */
const places = [
  () => "/?new",
  (id: string) => `/pieces/${id}/cut`,
  (id: string) => `/pieces/${id}/heats`,
  (id: string) => `/practice/piece/${id}`,
  (id: string) => `/pieces/${id}/fire`,
];

/** The first walk: five steps over the page, one at a time, that may be left at any of them. */
export function Walk() {
  const shop = useShop();
  const edit = useEditShop();
  const pieces = usePieces();
  const go = useNavigate();
  const where = useLocation();
  const id = pieces.data?.[0]?.id;
  const wanted = shop.data?.walk ?? 0;
  if (wanted < 1 || wanted > places.length || pieces.isPending) return null;
  const step = id ? wanted : 1; // without a piece there is nothing further to be seen
  const place = places[step - 1]?.(id ?? "") ?? "/";
  const there = where.pathname + where.search === place || (step === 1 && where.search.startsWith("?new"));
  const to = (n: number) => edit.mutate([{ field: "walk", text: String(n > places.length ? 0 : n) }]);
  return (
    <section
      aria-label={say("walk.name")}
      data-walk={step}
      className="no-print flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line bg-raised px-4 py-2 sm:px-6"
    >
      <p className="min-w-0 flex-1 basis-72">
        <span className="narrow mr-2 text-quiet">{say("walk.step", { n: step, of: places.length })}</span>
        <strong>{told(`walk.title.${step}`)}.</strong> {told(`walk.words.${step}`)}
      </p>
      <span className="flex items-center gap-2">
        {!there && (
          <button type="button" className="press press-act" onClick={() => go(place)}>
            {say("walk.show")}
          </button>
        )}
        {id && (
          <button type="button" className="press" onClick={() => to(step + 1)}>
            {say(step === places.length ? "walk.done" : "walk.next")}
          </button>
        )}
        <button type="button" className="press press-plain" onClick={() => to(0)} aria-label={say("walk.leave")}>
          <X size={16} aria-hidden /> {say("walk.leaveShort")}
        </button>
      </span>
    </section>
  );
}
