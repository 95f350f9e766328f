import { useState } from "react";
import { Link } from "react-router";
import type { Stock } from "../api/client";
import { useFits, useUnits } from "../api/hooks";
import { Silhouette } from "../bench/Silhouette";
import { say } from "../text/say";
import { Group } from "../ui/Group";
import { fitWords } from "./fit";

/** What of the library comes of a piece: as it is, or scaled. */
export function FitsPanel({ item }: { item: Stock }) {
  const [asked, setAsked] = useState(false);
  const units = useUnits();
  const fits = useFits(asked ? item : undefined);
  return (
    <Group title={say("rack.fits")}>
      {!item.usable ? (
        <p className="col-span-2 text-quiet">{say(item.refused ? "rack.fitsRefused" : "rack.fitsNothing")}</p>
      ) : !asked ? (
        <button
          type="button"
          className="press col-span-2 justify-self-start"
          onClick={() => setAsked(true)}
          data-testid="ask-fits"
        >
          {say("rack.fitsAsk")}
        </button>
      ) : fits.isPending ? (
        <p className="col-span-2 text-quiet" role="status">
          {say("rack.fitsWait")}
        </p>
      ) : (
        <ol className="col-span-2" data-testid="fits">
          {(fits.data ?? []).map((f) => (
            <li key={f.pattern.id} className="flex items-center gap-3 border-b border-line py-1.5">
              <Silhouette
                stations={f.pattern.sketch}
                scale={110 / Math.max(1, f.pattern.sketch.at(-1)?.x ?? 1)}
                label={f.pattern.name}
              />
              <span className="flex-1">
                <span className="narrow block text-[17px] leading-tight">{f.pattern.name}</span>
                <span className="block text-sm text-quiet">{fitWords(f, units)}</span>
              </span>
              {(f.feasible || f.factor > 0) && (
                <Link
                  className="press"
                  to={`/?new&stock=${item.id}&pattern=${f.pattern.id}`}
                  aria-label={say("rack.planThis", { name: f.pattern.name })}
                >
                  {say("rack.planIt")}
                </Link>
              )}
            </li>
          ))}
        </ol>
      )}
    </Group>
  );
}
