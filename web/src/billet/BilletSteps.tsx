import { ChevronDown, ChevronUp, GripVertical, Trash2 } from "lucide-react";
import { useState } from "react";
import type { Stock } from "../api/client";
import { useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import type { Item } from "../rack/useItem";
import { say, told } from "../text/say";
import { Group } from "../ui/Group";
import { Pick } from "../ui/Pick";
import { print } from "../units/print";

export type Recipe = NonNullable<Stock["billet"]>;
export type TypedIn = (field: string, value: number, label: string) => React.ReactNode;
const kinds = ["clean", "weld", "draw", "crop", "grindSides", "restack", "fold"] as const;
const layered: readonly string[] = ["clean", "restack", "fold"];
const stepFields: Record<string, readonly string[]> = {
  clean: ["perFaceMm"],
  weld: ["heats", "lossFraction"],
  draw: ["widthMm", "thicknessMm"],
  crop: ["endsMm"],
  grindSides: ["perSideMm"],
  restack: ["pieces", "kerfMm", "perFaceMm"],
  fold: ["kerfMm", "perFaceMm"],
};

/** The place of the step under a finger or the pointer; -1 where there is none. */
function stepAt(x: number, y: number): number {
  const at = document.elementFromPoint(x, y)?.closest<HTMLElement>("[data-step]");
  return at ? Number(at.dataset.place) : -1;
}

/** The steps of a billet, dragged by hand or moved with the two arrows; under each what it takes at the fire. */
export function BilletSteps({
  r,
  edit,
  typed,
  labour,
}: {
  r: Recipe;
  edit: Item;
  typed: TypedIn;
  labour?: components["schemas"]["BilletLabour"];
}) {
  const units = useUnits();
  const [drag, setDrag] = useState<{ from: number; over: number } | null>(null);
  const move = (from: number, to: number) => void edit.save("billet.step.move", `${from}; ${to}`);
  const filled = r.pattern === "cable" || r.pattern === "chain";
  return (
    <Group title={say("billet.steps.title")}>
      <ol className="col-span-2 grid gap-3" data-testid="billet-steps">
        {r.steps.map((s, i) => {
          const l = labour?.steps[i];
          return (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: steps are named by their place
              key={i}
              data-step={s.kind}
              data-place={i}
              className={`border-t pt-1 ${drag && drag.over === i && drag.from !== i ? "border-ember" : "border-line"} ${drag?.from === i ? "opacity-60" : ""}`}
            >
              <span className="flex items-center gap-1">
                <span
                  data-grip
                  className="flex min-h-9 flex-1 cursor-grab touch-none items-center gap-1 select-none"
                  onPointerDown={(e) => {
                    e.currentTarget.setPointerCapture(e.pointerId);
                    setDrag({ from: i, over: i });
                  }}
                  onPointerMove={(e) => {
                    const over = stepAt(e.clientX, e.clientY);
                    if (drag && over >= 0 && over !== drag.over) setDrag({ ...drag, over });
                  }}
                  onPointerUp={() => {
                    if (drag && drag.over !== drag.from) move(drag.from, drag.over);
                    setDrag(null);
                  }}
                  onPointerCancel={() => setDrag(null)}
                >
                  <GripVertical size={16} aria-hidden className="text-quiet" />
                  <span className="narrow mr-auto text-lg">
                    {i + 1}. {told(`step.${s.kind}`)}
                  </span>
                </span>
                <button
                  type="button"
                  className="press press-plain min-h-9 !px-2"
                  aria-label={say("billet.up")}
                  disabled={i === 0}
                  onClick={() => move(i, i - 1)}
                >
                  <ChevronUp size={16} aria-hidden />
                </button>
                <button
                  type="button"
                  className="press press-plain min-h-9 !px-2"
                  aria-label={say("billet.down")}
                  disabled={i === r.steps.length - 1}
                  onClick={() => move(i, i + 1)}
                >
                  <ChevronDown size={16} aria-hidden />
                </button>
                <button
                  type="button"
                  className="press press-plain min-h-9 !px-2"
                  aria-label={say("billet.remove")}
                  onClick={() => void edit.save("billet.step.delete", String(i))}
                >
                  <Trash2 size={16} aria-hidden />
                </button>
              </span>
              <span className="grid grid-cols-2 gap-2">
                {(stepFields[s.kind] ?? []).map((f) =>
                  typed(
                    `steps.${i}.${f}`,
                    Number((s as unknown as Record<string, number>)[f] ?? 0),
                    told(`field.billet.${f}`),
                  ),
                )}
                {s.kind === "restack" && (
                  <Pick
                    label={say("field.billet.turnEverySecond")}
                    value={s.turnEverySecond ? "yes" : "no"}
                    options={["no", "yes"].map((v) => ({ value: v, label: told(`yesno.${v}`) }))}
                    onPick={(v) => void edit.save(`billet.steps.${i}.turnEverySecond`, v)}
                  />
                )}
              </span>
              {l && (l.blows > 0 || (l.saveG ?? 0) >= 0.5) && (
                <p className="mt-1 text-sm text-quiet" data-testid="step-labour">
                  {l.blows > 0
                    ? say(s.kind === "draw" ? "billet.stepLabour" : "billet.stepWeld", {
                        heats: Math.ceil(l.heats),
                        blows: Math.round(l.blows),
                        time: print.duration(l.timeS),
                        fuel: print.mass(l.fuelG, units),
                      })
                    : say("billet.stepSaves", {
                        mm: print.thickness(0.1, units),
                        mass: print.mass(l.saveG ?? 0, units),
                      })}
                </p>
              )}
              {labour?.tooStiff?.includes(i) && (
                <p className="mt-1 border-l-2 border-ember pl-2 text-sm" data-testid="step-stiff">
                  {say("billet.stiff")}
                </p>
              )}
            </li>
          );
        })}
      </ol>
      <div className="col-span-2 flex flex-wrap gap-1.5" data-testid="billet-add">
        <span className="text-quiet">{say("billet.step.add")}:</span>
        {kinds
          .filter((k) => !filled || !layered.includes(k))
          .map((k) => (
            <button key={k} type="button" className="press" onClick={() => void edit.save("billet.step.add", k)}>
              {told(`step.${k}`)}
            </button>
          ))}
      </div>
    </Group>
  );
}
