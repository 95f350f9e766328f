import { Link } from "react-router";
import { useBook, useEntry, useUnits } from "../../api/hooks";
import { useDraftPart } from "../../draft/context";
import { say } from "../../text/say";
import { dayAndTime } from "../log/words";
import { seenWords } from "./seen";
import { treatName } from "./steps";

/** What was done and seen of it, from the book, and the way to where it is told. */
export function Noted() {
  const piece = useDraftPart((s) => s.piece);
  const units = useUnits();
  const entry = useEntry(piece.id);
  const items = useBook(entry?.id).data?.book.treatment ?? [];
  return (
    <section className="grid gap-1" data-testid="treat-noted">
      {items.length > 0 && (
        <>
          <h2 className="text-lg">{say("treat.noted")}</h2>
          <ul className="grid gap-0.5 text-[15px]">
            {items.map((t) => (
              <li key={t.id}>
                <span className="text-quiet">{dayAndTime(t.onMs)}</span> {t.step ? treatName(t.step) : ""}
                {t.seen || t.text ? `: ${[seenWords(t.seen, units), t.text].filter(Boolean).join(". ")}` : ""}
              </li>
            ))}
          </ul>
        </>
      )}
      <Link
        className="press press-act justify-self-start"
        to={`/pieces/${piece.id}/anvil`}
        data-testid="treat-at-anvil"
      >
        {say("treat.atAnvil")}
      </Link>
    </section>
  );
}
