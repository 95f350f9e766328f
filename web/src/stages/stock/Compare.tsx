import { useQuery } from "@tanstack/react-query";
import { api, ask, type Plan, type RankedStock, type Within } from "../../api/client";
import { useSteelName, useUnits } from "../../api/hooks";
import { useDraft, useDraftPart } from "../../draft/context";
import { barSize } from "../../rack/forms";
import { say, told } from "../../text/say";
import { Sheet } from "../../ui/Sheet";
import { localNumber, print } from "../../units/print";
import { totals } from "../../units/within";
import { useWithinOf } from "./useAsked";

/** The same blade from two pieces of stock, side by side on one scale. */
export function Compare({ two, onClose }: { two: [RankedStock, RankedStock]; onClose: () => void }) {
  const steelName = useSteelName();
  const draft = useDraft();
  const units = useUnits();
  const piece = useDraftPart((s) => s.piece);
  const plans = useQuery({
    queryKey: ["compare", piece.id, piece.version, two[0].id, two[1].id],
    queryFn: () =>
      Promise.all(
        two.map((r) =>
          ask(
            api.POST("/api/v1/plan/preview", {
              body: { doc: piece.doc, edits: [{ field: "stockId", text: r.id }] },
            }),
          ),
        ),
      ),
  });
  const [a, b] = plans.data ?? [];
  const within = [
    useWithinOf([piece.id, piece.version, two[0].id], a?.doc).data,
    useWithinOf([piece.id, piece.version, two[1].id], b?.doc).data,
  ];
  const longest = Math.max(a?.plan.bar.cutLengthMm ?? 1, b?.plan.bar.cutLengthMm ?? 1);
  return (
    <Sheet open onClose={onClose} title={say("rank.compareTitle")} wide>
      {!a || !b ? (
        <p className="text-quiet">{say("ui.loading")}</p>
      ) : (
        <div className="grid gap-4" data-testid="compare">
          {[a, b].map((x, i) => (
            <figure key={two[i]?.id}>
              <figcaption className="narrow text-lg">
                {two[i]?.stock.name} · {steelName(two[i]?.stock.steelId ?? "")} {barSize(x.doc.request.bar, units)}
              </figcaption>
              <Marks plan={x.plan} scale={760 / longest} />
            </figure>
          ))}
          <table className="w-full text-right">
            <thead>
              <tr className="border-b border-line">
                <td />
                {two.map((r) => (
                  <th key={r.id} scope="col" className="narrow py-1 text-[17px]">
                    {r.stock.name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(([code, get]) => (
                <tr key={code} className="border-b border-line" data-figure-of={code}>
                  <th scope="row" className="py-1 text-left font-normal text-quiet">
                    {told(code)}
                  </th>
                  <td className="narrow">{get(a.plan, units, within[0])}</td>
                  <td className="narrow">{get(b.plan, units, within[1])}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="grid grid-cols-2 gap-3">
            {two.map((r) => (
              <button
                key={r.id}
                type="button"
                className="press press-act"
                onClick={() => {
                  draft.choose("stockId", r.id);
                  onClose();
                }}
              >
                {say("rank.take", { name: r.stock.name })}
              </button>
            ))}
          </div>
        </div>
      )}
    </Sheet>
  );
}

type Show = (p: Plan, units: Parameters<typeof print.length>[1], w?: Within) => string;

const rows: [string, Show][] = [
  ["rank.bar", (p, u) => print.reckoned(p.bar.cutLengthMm, p.bar.lowMm, p.bar.highMm, u)],
  ["rank.start", (p, u) => print.mass((p.bar.startMm3 * 7.85) / 1000, u)],
  ["ledger.scale", (p) => localNumber(`${(p.bar.scaleShare * 100).toFixed(1)} %`)],
  ["rank.heats", (p, u, w) => totals(p, w, u).heats],
  ["rank.blows", (p, u, w) => totals(p, w, u).blows],
  ["rank.time", (p, u, w) => `${totals(p, w, u).minutes} min`],
  ["rank.fuel", (p, u, w) => totals(p, w, u).fuel],
  ["rank.stops", (p) => String(p.warnings.filter((w) => w.severity === "stop").length)],
];

function Marks({ plan, scale }: { plan: Plan; scale: number }) {
  const h = Math.max(8, plan.bar.widthMm * scale);
  return (
    <svg
      width={plan.bar.cutLengthMm * scale + 2}
      height={h + 2}
      className="max-w-full"
      role="img"
      aria-label={say("bench.bar")}
    >
      {plan.bar.marks.map((m) => (
        <rect
          key={m.zone}
          x={1 + m.fromMm * scale}
          y="1"
          width={(m.toMm - m.fromMm) * scale}
          height={h}
          fill={`var(--zone-${m.zone})`}
          fillOpacity="0.6"
          stroke="var(--chalk)"
        />
      ))}
    </svg>
  );
}
