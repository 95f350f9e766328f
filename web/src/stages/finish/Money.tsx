import { useUnits } from "../../api/hooks";
import { useDraftState } from "../../draft/context";
import { locale, say, told } from "../../text/say";
import { DraftField } from "../../ui/DraftField";
import { Group } from "../../ui/Group";
import { print } from "../../units/print";
import { type Finished, usePromise } from "./useFinish";
import { about } from "./words";

/** What the whole knife takes and costs, and when it can be ready. */
export function Money({ f }: { f: Finished }) {
  const { doc } = useDraftState();
  useUnits();
  const { data: p } = usePromise();
  const a = f.account;
  const prices = doc.request.finish?.prices;
  const field = (name: string, value: number) => (
    <DraftField field={`finish.prices.${name}`} label={told(`field.name.finish.prices.${name}`)} value={value} />
  );
  return (
    <Group title={say("finish.money")}>
      <dl className="col-span-2 grid grid-cols-[1fr_auto] gap-x-3" data-testid="finish-money">
        {a.hours.map((h) => (
          <div key={h.what} className="contents">
            <dt className="text-quiet">{told(`finish.hours.${h.what}`)}</dt>
            <dd className="narrow text-right">
              {about(h.min)}{" "}
              <span className="text-quiet">
                ({about(h.lowMin)} – {about(h.highMin)})
              </span>
            </dd>
          </div>
        ))}
        <dt>{say("finish.whole")}</dt>
        <dd className="narrow text-right">{about(a.min)}</dd>
        {a.cost > 0 && (
          <>
            <dt>{say("finish.costs")}</dt>
            <dd className="narrow text-right">
              {print.money(a.cost)}{" "}
              <span className="text-quiet">
                ({print.money(a.lowCost)} – {print.money(a.highCost)})
              </span>
            </dd>
            <dt>{say("finish.price")}</dt>
            <dd className="narrow text-right text-lg">{print.money(a.price)}</dd>
          </>
        )}
      </dl>
      <p className="col-span-2 text-sm text-quiet" data-testid="promise">
        {p?.day
          ? say("finish.promise", { day: new Date(p.day).toLocaleDateString(locale()), n: p.ahead })
          : say("finish.noPromise")}
      </p>
      {field("beltPrice", prices?.beltPrice ?? 0)}
      {field("blockPrice", prices?.blockPrice ?? 0)}
      {field("sheathPrice", prices?.sheathPrice ?? 0)}
      {field("marginShare", prices?.marginShare ?? 0)}
    </Group>
  );
}
