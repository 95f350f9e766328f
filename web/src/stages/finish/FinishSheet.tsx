import { useState } from "react";
import { useUnits } from "../../api/hooks";
import { useDraftState } from "../../draft/context";
import { say } from "../../text/say";
import { print } from "../../units/print";
import { FaceDrawn } from "./FaceDrawn";
import { FittingsDrawn } from "./FittingsDrawn";
import { Found, type Place } from "./Found";
import { MapDrawn } from "./MapDrawn";
import { useFinish } from "./useFinish";

/** What is to be ground off both faces, what was found there, and how handle and fittings are cut. */
export function FinishSheet({ flip }: { flip: boolean }) {
  const { doc, plan } = useDraftState();
  const units = useUnits();
  const { data: f } = useFinish();
  const [place, setPlace] = useState<Place>();
  if (!f) return <div className="flex-1" />;
  const found = doc.request.finish;
  const m = f.map;
  return (
    <section
      className="min-h-0 flex-1 overflow-y-auto p-4"
      data-testid="finish-sheet"
      aria-label={say("stage.finish")}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, by keys too
      tabIndex={0}
    >
      {doc.request.billet && <FaceDrawn />}
      <h2 className="text-2xl">{say("finish.map")}</h2>
      <p className="mb-2 text-quiet" data-testid="map-sum">
        {say("finish.wholeBlade", {
          mass: print.mass(m.totalG, units),
          least: print.thickness(Math.round(m.leastMm * 100) / 100, units),
          most: print.thickness(Math.round(m.mostMm * 100) / 100, units),
        })}
        . {say("finish.mapNote")}
      </p>
      {(["front", "back"] as const).map((face) => (
        <MapDrawn
          key={face}
          map={m}
          face={face}
          flip={flip}
          readings={found?.readings ?? []}
          finished={plan.drawing.finished}
          onPlace={(at, xMm, yMm) => setPlace({ face: at, xMm, yMm })}
        />
      ))}
      <Found f={f} place={place} />
      {f.handle.sections.length > 0 ? (
        <FittingsDrawn f={f} />
      ) : (
        <p className="mt-5 text-quiet">{say("finish.noHandle")}</p>
      )}
    </section>
  );
}
