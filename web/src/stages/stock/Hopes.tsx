import { useUnits } from "../../api/hooks";
import { useDraft, useDraftPart } from "../../draft/context";
import { figures, say, told } from "../../text/say";
import { print, typedMm } from "../../units/print";
import { useHopes } from "./useAsked";

const obstacles = [
  "warn.volumeShort",
  "warn.tooNarrow",
  "warn.tooNarrowUpset",
  "warn.tooLight",
  "warn.barThin",
  "warn.ricassoThin",
];

/** Where the bar will not do: each way out with its figure, and one press to take it. */
export function Hopes() {
  const draft = useDraft();
  const units = useUnits();
  const stuck = useDraftPart((s) => s.plan.warnings.some((w) => w.severity === "stop" && obstacles.includes(w.code)));
  const hopes = useHopes(stuck);
  if (stuck && hopes.isPending)
    return (
      <p className="text-quiet" role="status">
        {say("hope.wait")}
      </p>
    );
  if (!stuck || !hopes.data?.length) return null;
  return (
    <section data-testid="hopes">
      <h2 className="narrow mb-1.5 border-b border-line text-lg">{say("hope.title")}</h2>
      <ul className="grid gap-1.5">
        {hopes.data.map((h) => (
          <li
            key={h.code}
            className={`flex items-start gap-3 text-[15px] ${h.works ? "" : "text-quiet"}`}
            data-hope={h.code}
            data-works={h.works}
          >
            <span className="flex-1">
              {told(h.code, figures(h.figures, units))}{" "}
              {h.works && h.barMm ? (
                <span className="text-quiet">{say("hope.takes", { bar: print.length(h.barMm, units) })}</span>
              ) : (
                !h.works && say("hope.notEnough")
              )}
            </span>
            {h.works && h.field && (
              <button
                type="button"
                className="press"
                onClick={() => h.field && draft.choose(h.field, h.text || typedMm(h.mm ?? 0))}
              >
                {say("hope.take")}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
