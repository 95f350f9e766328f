import { useState } from "react";
import type { FittingPattern, Pattern } from "../api/client";
import { useUnits } from "../api/hooks";
import { Silhouette } from "../bench/Silhouette";
import { fitWords } from "../rack/fit";
import { say } from "../text/say";
import { print } from "../units/print";
import { Option } from "./Option";

/** Which knife: one of the patterns; with a bar chosen first, what of them comes of it. */
export function KnifeQuestion({
  patterns,
  chosen,
  onChoose,
  narrow,
  fits,
  waiting,
}: {
  patterns: Pattern[];
  chosen?: Pattern;
  onChoose: (id: string) => void;
  narrow: boolean;
  fits?: FittingPattern[];
  waiting: boolean;
}) {
  const units = useUnits();
  const [all, setAll] = useState(!narrow);
  const shown = all ? patterns : patterns.filter((p) => p === chosen);
  const rank = (p: Pattern) => {
    const i = fits?.findIndex((f) => f.pattern.id === p.id) ?? -1;
    return i < 0 ? patterns.length : i;
  };
  const sorted = fits ? [...shown].sort((a, b) => rank(a) - rank(b)) : shown;
  return (
    <>
      {waiting && (
        <p role="status" className="mb-2 text-quiet">
          {say("rack.fitsWait")}
        </p>
      )}
      <div role="radiogroup" aria-label={say("new.whatFor")} className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
        {sorted.map((p) => {
          const fit = fits?.find((f) => f.pattern.id === p.id);
          return (
            <Option key={p.id} name="pattern" checked={p.id === chosen?.id} onCheck={() => onChoose(p.id)}>
              <Silhouette stations={p.sketch} scale={0.62} label={say(`shape.${p.design.shape}`)} />
              <span className="narrow mt-1 block text-lg">{p.name}</span>
              <span className="block text-sm text-quiet">
                {say(`shape.${p.design.shape}`)} · {print.length(p.design.lengthMm, units)} ·{" "}
                {say(`tangKind.${p.design.tangKind}`)}
              </span>
              {fit && (
                <span className={`block text-sm ${fit.feasible ? "text-act" : "text-ember"}`} data-fit={p.name}>
                  {fitWords(fit, units)}
                </span>
              )}
            </Option>
          );
        })}
      </div>
      {!all && patterns.length > 1 && (
        <button type="button" className="press press-plain mt-2" onClick={() => setAll(true)}>
          {say("new.anotherKnife")}
        </button>
      )}
    </>
  );
}
