import { useUnits } from "../../api/hooks";
import { say, told } from "../../text/say";
import { print } from "../../units/print";
import { useSure } from "../stock/useAsked";

/** How much bar suffices how often; the band lies on the bar too. */
export function SureLengths() {
  const units = useUnits();
  const sure = useSure();
  const s = sure.data;
  // Its place is kept, so that what is below does not move from under a finger.
  if (!s) return sure.isLoading ? <div className="mt-2 min-h-40" aria-hidden="true" /> : null;
  const worst = Object.entries(s.sources).sort((a, b) => b[1] - a[1])[0];
  return (
    <div className="mt-2 min-h-40" data-testid="sure">
      <dl className="grid grid-cols-3 gap-2 text-center">
        {(
          [
            ["50", s.p50Mm],
            ["80", s.p80Mm],
            ["95", s.p95Mm],
          ] as const
        ).map(([p, mm]) => (
          <div key={p} className="border border-line py-1">
            <dt className="text-sm text-quiet">{say("sure.percent", { p })}</dt>
            <dd className="narrow text-xl">{print.reckoned(mm, 0, 0, units)}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-sm text-quiet">
        {say("sure.advice")} {worst && say("sure.source", { source: told(`sure.source.${worst[0]}`) })}{" "}
        {say("sure.error", { error: print.thickness(s.fitErrorMm, units) })}
      </p>
    </div>
  );
}
