import { useUnits } from "../../api/hooks";
import { useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { DraftField, DraftPick } from "../../ui/DraftField";
import { Figure } from "../../ui/Figure";
import { Group } from "../../ui/Group";
import { localNumber, print } from "../../units/print";

/** The blade cut across at one station, with what decides how it cuts. */
export function SectionPanel({ at, onAt }: { at: number; onAt: (share: number) => void }) {
  const { plan, doc } = useDraftState();
  const units = useUnits();
  const list = plan.sections;
  const s = list[Math.min(list.length - 1, Math.max(0, Math.floor(at * list.length)))];
  if (!s) return null;
  const groove = doc.request.design.grind.groove;
  return (
    <Group title={say("section.at", { at: print.length(s.x, units) })} term="section" fold="section">
      <input
        type="range"
        className="col-span-2 w-full accent-(--act)"
        min={0}
        max={list.length - 1}
        value={list.indexOf(s)}
        aria-label={say("section.slide")}
        aria-valuetext={print.length(s.x, units)}
        onChange={(e) => onAt((Number(e.target.value) + 0.5) / list.length)}
      />
      <Cut t={s.t} front={s.front ?? s.t.map((v) => v / 2)} heightMm={s.heightMm} />
      <dl className="grid content-start gap-x-2 text-[15px]" data-testid="section-figures">
        {[1, 5, 10].map((h, i) => (
          <Figure
            key={h}
            name={say("section.behind", { h: print.thickness(h, units) })}
            value={print.thickness(s.behindMm[i] ?? 0, units)}
          />
        ))}
        <Figure name={say("section.angle")} value={localNumber(`${s.angleDeg.toFixed(1)}°`)} />
        {(s.setDeg ?? 0) > 0 && (
          <>
            <Figure name={say("section.set")} value={localNumber(`${(s.setDeg ?? 0).toFixed(1)}°`)} />
            <Figure name={say("section.bevelHere")} value={print.length(s.bevelMm ?? 0, units)} />
          </>
        )}
        {(s.backSetDeg ?? 0) > 0 && (
          <>
            <Figure name={say("section.backSet")} value={localNumber(`${(s.backSetDeg ?? 0).toFixed(1)}°`)} />
            <Figure name={say("section.backHere")} value={print.length(s.backMm ?? 0, units)} />
          </>
        )}
        <Figure name={say("section.spineHere")} value={print.thickness(s.t[s.t.length - 1] ?? 0, units)} />
        <Figure name={say("section.heightHere")} value={print.length(s.heightMm, units)} />
        <Figure name={say("section.stiff")} value={print.moment(s.flatwiseMm4, units)} />
      </dl>
      <DraftPick
        field="design.groove"
        label={say("field.name.design.groove")}
        value={groove ? "own" : "none"}
        options={["none", "fuller", "strip", "back", ...(groove ? ["own"] : [])].map((v) => ({
          value: v,
          label: told(`groove.${v}`),
        }))}
      />
      {groove &&
        (["wheelRadiusMm", "depthMm", "lowFraction", "highFraction", "fromMm", "toMm"] as const).map((f) => (
          <DraftField key={f} field={`design.grind.groove.${f}`} label={say(`field.name.design.grind.groove.${f}`)} />
        ))}
    </Group>
  );
}

/** The section at true proportion, edge down. */
function Cut({ t, front, heightMm }: { t: number[]; front: number[]; heightMm: number }) {
  const size = 190;
  const thick = Math.max(...t);
  const k = Math.min((size - 12) / Math.max(heightMm, 1), 130 / Math.max(thick, 1));
  const n = t.length - 1;
  const y = (i: number) => size - 6 - (i / n) * heightMm * k;
  const left = t.map((v, i) => `${(70 + ((front[i] ?? 0) - v) * k).toFixed(1)},${y(i).toFixed(1)}`);
  const right = front.map((v, i) => `${(70 + v * k).toFixed(1)},${y(i).toFixed(1)}`).reverse();
  return (
    <svg width="140" height={size} role="img" aria-label={say("section.title")} className="justify-self-center">
      <path
        d={`M${left.join("L")}L${right.join("L")}Z`}
        fill="var(--zone-blade)"
        fillOpacity="var(--zone-fill)"
        stroke="var(--chalk)"
        strokeWidth="1.2"
        strokeLinejoin="round"
      />
    </svg>
  );
}
