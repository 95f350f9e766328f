import { Link } from "react-router";
import { useDraft, useDraftState } from "../../draft/context";
import { count, say, told } from "../../text/say";
import { print } from "../../units/print";

const kinds = ["blow", "scale", "spread", "bend", "loss"] as const;

/** What of the shop's book this plan goes by, what it will really take, and the plan without it at a touch. */
export function ByTheBook() {
  const { plan, doc } = useDraftState();
  const draft = useDraft();
  const byTable = doc.request.choices.byTable === true;
  const l = plan.learned;
  if (!l && !byTable) return null;
  const really = plan.really;
  return (
    <section className="mt-2 grid gap-1 border-l-2 border-line pl-3" data-testid="by-the-book" data-table={byTable}>
      {byTable ? (
        <p className="text-quiet">{say("learned.byTable")}</p>
      ) : (
        <>
          {really?.timeS && (
            <p data-testid="really">
              {say("learned.really", {
                mid: print.duration(really.timeS.mid),
                low: print.duration(really.timeS.low80),
                high: print.duration(really.timeS.high80),
              })}
              {really.heats &&
                ` ${say("learned.reallyHeats", {
                  mid: Math.round(really.heats.mid),
                  low: Math.floor(really.heats.low80),
                  high: Math.ceil(really.heats.high80),
                })}`}
            </p>
          )}
          <p className="text-quiet">
            {say("learned.goesBy")}{" "}
            {kinds
              .flatMap((k) => {
                const t = l?.[k];
                return t
                  ? [
                      `${told(`learned.kind.${k}`)} × ${(Math.round(t.factor * 100) / 100).toString()} (${count("learned.pieces", t.n)})`,
                    ]
                  : [];
              })
              .join(" · ")}{" "}
            <Link to="/learned" className="underline">
              {say("learned.title")}
            </Link>
          </p>
        </>
      )}
      <button
        type="button"
        className="press justify-self-start"
        data-testid="by-table"
        onClick={() => draft.choose("choices.byTable", byTable ? "no" : "yes")}
      >
        {say(byTable ? "learned.with" : "learned.without")}
      </button>
    </section>
  );
}
