import { OctagonAlert, TriangleAlert } from "lucide-react";
import { memo } from "react";
import type { Warning, Zone } from "../api/client";
import { useUnits } from "../api/hooks";
import { useDraft, useDraftState } from "../draft/context";
import { count, figures, say, told } from "../text/say";
import { typedMm } from "../units/print";
import { type Remedy as Edit, remedyWords } from "./remedy";
import { useRemedies } from "./useRemedies";

/** Which stage mends a warning: there it is shown. Stops are shown everywhere. */
const home: Record<string, string[]> = {
  "warn.ricassoThin": ["stock", "blade"],
  "warn.barThin": ["stock"],
  "warn.barHeavy": ["stock", "heats"],
  "warn.tooNarrow": ["stock"],
  "warn.blankWide": ["stock"],
  "warn.tooNarrowUpset": ["stock"],
  "warn.tooLight": ["stock"],
  "warn.volumeShort": ["cut", "stock"],
  "warn.thickSection": ["stock"],
  "warn.assumedSteel": ["stock"],
  "warn.unsettled": ["cut"],
  "warn.edgeThin": ["blade"],
  "warn.decarb": ["blade"],
  "warn.bitShort": ["stock"],
  "warn.bitShallow": ["stock"],
  "warn.formTight": ["blade", "heats"],
  "warn.patternDeep": ["blade", "heats"],
  ...Object.fromEntries(
    [
      "tangWall",
      "handleWall",
      "shoulderSharp",
      "hiddenHole",
      "holeShoulder",
      "holeRim",
      "tangLong",
      "tangShort",
      "fullTangShort",
      "spineStepDown",
      "spineStepUp",
      "pointHigh",
      "pointLow",
    ].map((c) => [`warn.${c}`, ["blade"]]),
  ),
};

interface Props {
  stage: string;
  /** Operations of the heat being looked at: warnings of others are left out. */
  operations?: string[];
  onShow: (zone: Zone) => void;
}

export const Warnings = memo(function Warnings({ stage, operations, onShow }: Props) {
  const { plan } = useDraftState();
  const units = useUnits();
  const rank = { stop: 0, warn: 1, note: 2 };
  const here = plan.warnings
    .filter((w) => w.severity === "stop" || (home[w.code] ?? ["heats"]).includes(stage))
    .filter((w) => {
      const at = [w.where, ...(w.also ?? [])];
      return !operations || at.some((p) => !p.operation || operations.includes(p.operation));
    })
    .sort((a, b) => rank[a.severity] - rank[b.severity]);
  // The same words for two zones are said once.
  const lines: { warning: Warning; words: string; zones: Zone[] }[] = [];
  for (const w of here) {
    const words = told(w.code, figures(w.figures, units));
    const same = lines.find((l) => l.words === words);
    const zones = [w.where, ...(w.also ?? [])].flatMap((p) => (p.zone ? [p.zone] : []));
    if (same) same.zones.push(...zones);
    else lines.push({ warning: w, words, zones });
  }
  const remedyOf = useRemedies(lines.length > 0);
  if (lines.length === 0) return null;
  const list = (of: typeof lines) => (
    <ul className="grid gap-1.5">
      {of.map((l) => (
        <li key={l.words}>
          <Line {...l} onShow={onShow} />
          <Remedy remedy={remedyOf(l.warning)} />
        </li>
      ))}
    </ul>
  );
  const notes = lines.filter((l) => l.warning.severity === "note");
  const fold = notes.length > fewNotes;
  return (
    <div className="mb-3 grid gap-1.5">
      {list(fold ? lines.filter((l) => !notes.includes(l)) : lines)}
      {fold && (
        <details>
          <summary className="cursor-pointer py-1 text-quiet" data-testid="notes">
            {count("warn.notes", notes.length)}
          </summary>
          {list(notes)}
        </details>
      )}
    </div>
  );
});

/** More notes than this are folded away: what has to be decided stands alone. */
const fewNotes = 2;

/** One press that clears a warning. */
function Remedy({ remedy }: { remedy: Edit | undefined }) {
  const draft = useDraft();
  const units = useUnits();
  if (!remedy) return null;
  return (
    <button
      type="button"
      className="press ml-[1.9rem] mt-1"
      data-remedy={remedy.field}
      onClick={() => {
        for (const s of remedy.and ?? []) draft.type(s.field, s.text || typedMm(s.mm ?? 0));
        draft.choose(remedy.field, remedy.text || typedMm(remedy.mm ?? 0));
      }}
    >
      {remedyWords(remedy, units)}
    </button>
  );
}

function Line({
  warning: w,
  words,
  zones,
  onShow,
}: {
  warning: Warning;
  words: string;
  zones: Zone[];
  onShow: (zone: Zone) => void;
}) {
  const stop = w.severity === "stop";
  const zone = zones[0];
  return (
    <button
      type="button"
      data-warning={w.code}
      disabled={!zone}
      onClick={() => zone && onShow(zone)}
      className={`flex w-full gap-2 border-l-[3px] py-0.5 pl-2 text-left text-[15px] leading-snug !opacity-100 ${stop ? "border-ember" : "border-quiet"}`}
    >
      <span className={`mt-0.5 shrink-0 ${stop ? "text-ember" : "text-quiet"}`}>
        {stop ? (
          <OctagonAlert size={16} aria-label={say("severity.stop")} />
        ) : (
          <TriangleAlert size={16} aria-label={say(`severity.${w.severity}`)} />
        )}
      </span>
      <span className={stop ? "font-semibold" : w.severity === "note" ? "text-quiet" : ""}>
        {zones.length > 0 && `${[...new Set(zones)].map((z) => told(`zone.${z}`)).join(", ")}: `}
        {words}
      </span>
    </button>
  );
}
