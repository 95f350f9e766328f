import type { Stock } from "../api/client";
import { useSteels } from "../api/hooks";
import { say, told } from "../text/say";
import { Group } from "../ui/Group";
import { Typed } from "../ui/Typed";
import type { Item } from "./useItem";

const elements = [
  "carbonPct",
  "manganesePct",
  "siliconPct",
  "nickelPct",
  "chromiumPct",
  "molybdenumPct",
  "vanadiumPct",
  "copperPct",
] as const;

/** What the certificate of a known bar says of it, over what is typical of its grade. */
export function AnalysisPanel({ item, edit }: { item: Stock; edit: Item }) {
  const grade = useSteels().data?.find((g) => g.id === item.steelId);
  if (item.believed || !grade) return null;
  return (
    <Group title={say("analysis.title")}>
      {elements.map((e) => (
        <Typed
          key={e}
          label={`${told(`field.name.analysis.${e}`)}, %`}
          {...edit.props(`analysis.${e}`, item.analysis?.[e] ?? (item.analysis ? 0 : (grade[e] ?? 0)))}
        />
      ))}
      <p className="col-span-2 text-sm text-quiet">{say("analysis.note")}</p>
      {item.analysis && (
        <button
          type="button"
          className="press justify-self-start"
          onClick={() => void edit.save("analysis.usual", "")}
          data-testid="analysis-usual"
        >
          {say("analysis.usual")}
        </button>
      )}
    </Group>
  );
}
