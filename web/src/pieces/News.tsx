import { useEditShop, useShop } from "../api/hooks";
import { say, told } from "../text/say";

/** What is new since the shop was told last; once read it is gone. */
export function News() {
  const shop = useShop();
  const edit = useEditShop();
  const news = shop.data?.news ?? [];
  const newest = news[0]?.split(".")[1];
  if (!newest) return null;
  return (
    <section aria-label={say("news.title")} className="mb-4 border-l-4 border-(--act) bg-raised p-4" data-news>
      <h2 className="mb-2 text-xl">{say("news.title")}</h2>
      <ul className="mb-3 list-disc pl-5">
        {news.map((code) => (
          <li key={code}>{told(code)}</li>
        ))}
      </ul>
      <button type="button" className="press" onClick={() => edit.mutate([{ field: "newsSeen", text: newest }])}>
        {say("news.seen")}
      </button>
    </section>
  );
}
