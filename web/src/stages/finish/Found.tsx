import { X } from "lucide-react";
import { useEffect, useState } from "react";
import { useUnits } from "../../api/hooks";
import { useDraft, useDraftPart, useDraftState } from "../../draft/context";
import { say } from "../../text/say";
import { print } from "../../units/print";
import type { Finished } from "./useFinish";

export interface Place {
  face: "front" | "back";
  xMm: number;
  yMm: number;
}

/** What calipers and a look say of the cold blade: typed as one line each, or begun by a click on a face. */
export function Found({ f, place }: { f: Finished; place?: Place }) {
  const { doc } = useDraftState();
  const draft = useDraft();
  const units = useUnits();
  const found = doc.request.finish;
  const readings = found?.readings ?? [];
  const pits = found?.pits ?? [];
  return (
    <div className="mt-3 grid gap-4 sm:grid-cols-2">
      <div>
        <Line field="finish.reading.add" label={say("finish.addReading")} begun={place && start(place, units)} />
        <ul className="mt-1 grid gap-0.5" data-testid="readings">
          {readings.map((r, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a reading is named by its place
            <li key={i} className="flex items-center gap-2">
              <span className="mr-auto">
                {say("finish.reading", {
                  x: print.length(r.xMm, units),
                  y: print.length(r.yMm, units),
                  t: print.thickness(r.thicknessMm, units),
                })}
                {(r.xMm < 0 || r.yMm < 0 || r.xMm > doc.request.design.lengthMm) && (
                  <span className="text-quiet"> · {say("finish.offBlade")}</span>
                )}
              </span>
              <Remove onClick={() => draft.choose("finish.reading.delete", String(i))} />
            </li>
          ))}
        </ul>
      </div>
      <div>
        <Line
          field="finish.pit.add"
          label={say("finish.addPit")}
          begun={place && `${start(place, units)}${place.face}; `}
        />
        <ul className="mt-1 grid gap-0.5" data-testid="pits">
          {pits.map((p, i) => {
            const a = f.map.pits[i];
            const stays = a && !a.outside && a.leftMm < 0;
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: a pit is named by its place
              <li key={i} className="flex items-center gap-2" data-stays={stays || undefined}>
                <span className="mr-auto">
                  {say("finish.pit", {
                    x: print.length(p.xMm, units),
                    y: print.length(p.yMm, units),
                    face: say(p.face === "front" ? "finish.front" : "finish.back").toLowerCase(),
                    d: print.thickness(p.depthMm, units),
                  })}{" "}
                  <span className={stays ? "text-ember" : "text-quiet"}>
                    {stays
                      ? say("finish.pitStays", { mm: print.thickness(Math.round(-a.leftMm * 100) / 100, units) })
                      : say("finish.pitOut")}
                  </span>
                </span>
                <Remove onClick={() => draft.choose("finish.pit.delete", String(i))} />
              </li>
            );
          })}
        </ul>
      </div>
    </div>
  );
}

const start = (p: Place, units: string) =>
  `${print.edit("xMm", Math.round(p.xMm * 2) / 2, units)}; ${print.edit("yMm", Math.round(p.yMm * 2) / 2, units)}; `;

function Remove({ onClick }: { onClick: () => void }) {
  return (
    <button
      type="button"
      className="press press-plain min-h-9 !px-2"
      aria-label={say("finish.remove")}
      onClick={onClick}
    >
      <X size={15} aria-hidden />
    </button>
  );
}

function Line({ field, label, begun }: { field: string; label: string; begun?: string }) {
  const draft = useDraft();
  const error = useDraftPart((s) => s.errors[field]);
  const kept = useDraftPart((s) => s.typed[field]);
  const [text, setText] = useState("");
  useEffect(() => {
    if (begun) setText(begun);
  }, [begun]);
  const add = () => {
    if (text.trim() === "") return;
    draft.choose(field, text);
    setText("");
  };
  const shown = text || (error ? (kept ?? "") : "");
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <label>
        <span className="mb-0.5 block text-sm text-quiet">{label}</span>
        <span className="flex gap-2">
          <input
            className="min-w-0 flex-1 rounded border border-line bg-plate px-2 py-2"
            data-field={field}
            value={shown}
            autoComplete="off"
            aria-invalid={error ? true : undefined}
            onChange={(e) => {
              if (error) draft.revert(field);
              setText(e.target.value);
            }}
          />
          <button type="submit" className="press">
            {say("finish.add")}
          </button>
        </span>
      </label>
      {error && (
        <span role="alert" className="text-sm text-ember">
          {error.message}
        </span>
      )}
    </form>
  );
}
