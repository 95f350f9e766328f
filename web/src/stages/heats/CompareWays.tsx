import { useQuery } from "@tanstack/react-query";
import { memo, useState } from "react";
import { api, ask, type Edit, type Plan, Refused, type Within } from "../../api/client";
import { useShop, useStock, useUnits } from "../../api/hooks";
import { useDraft, useDraftPart } from "../../draft/context";
import { barSize } from "../../rack/forms";
import { say, told } from "../../text/say";
import { Pick } from "../../ui/Pick";
import { Sheet } from "../../ui/Sheet";
import { localNumber, print, type System } from "../../units/print";
import { totals } from "../../units/within";
import { useWithin, useWithinOf } from "../stock/useAsked";
import { machines } from "./machine";
import { hammerText, handText, hearthText } from "./Sets";

interface Way {
  value: string;
  label: string;
  edits: Edit[];
}

/** Another method, order, taper, hand or smith for the same blade, side by side with what is planned. */
export const CompareWays = memo(function CompareWays() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)} data-testid="compare-ways">
        {say("compare.open")}
      </button>
      <Sheet open={open} onClose={() => setOpen(false)} title={say("compare.title")} wide>
        {open && <Sides onDone={() => setOpen(false)} />}
      </Sheet>
    </>
  );
});

function useWays(): Way[] {
  const shop = useShop();
  const stock = useStock();
  const units = useUnits();
  const stockId = useDraftPart((s) => s.doc.stockId);
  const c = useDraftPart((s) => s.doc.request.choices);
  const hand = useDraftPart((s) => s.doc.hand);
  const machine = useDraftPart((s) => s.doc.request.smith.machine?.kind ?? "none");
  const way = (field: string, prefix: string, values: string[], now: string): Way[] =>
    values
      .filter((v) => v !== now)
      .map((v) => ({
        value: `${field}=${v}`,
        label: told(`${prefix}.${v}`),
        edits: [{ field: `choices.${field}`, text: v }],
      }));
  return [
    ...way("method", "method", ["pinchOut", "pushIn"], c.method),
    ...way("first", "first", ["point", "tang"], c.first ?? "point"),
    ...way("taper", "taper", ["forged", "ground"], c.taper ?? "forged"),
    ...way("curve", "curve", ["preCurve", "correct", "sweep"], c.curve),
    ...way("holding", "holding", ["wholeBar", "tongs", "weldedRod"], c.holding),
    ...machines
      .filter((k) => k !== machine)
      .map((k) => ({
        value: `machine=${k}`,
        label: say(`machine.${k}`),
        edits: [{ field: "smith.machine", text: k }],
      })),
    ...(shop.data?.smiths ?? [])
      .filter((s) => s.name !== hand)
      .map((s) => ({ value: `smith=${s.name}`, label: s.name, edits: [{ field: "smith.hand", text: handText(s) }] })),
    ...(shop.data?.hammers ?? []).map((h) => ({
      value: `hammer=${h.name}`,
      label: h.name,
      edits: [{ field: "smith.hammer", text: hammerText(h) }],
    })),
    ...(shop.data?.hearths ?? []).map((h) => ({
      value: `hearth=${h.name}`,
      label: h.name,
      edits: [{ field: "fire.hearth", text: hearthText(h) }],
    })),
    ...(stock.data ?? [])
      .filter((i) => i.id !== stockId && i.piece.form === "flat")
      .map((i) => ({
        value: `bar=${i.id}`,
        label: `${i.name}, ${barSize(i.piece, units)}`,
        edits: [{ field: "stockId", text: i.id }],
      })),
  ];
}

function Sides({ onDone }: { onDone: () => void }) {
  const draft = useDraft();
  const units = useUnits();
  const ways = useWays();
  const piece = useDraftPart((s) => s.piece);
  const now = useDraftPart((s) => s.plan);
  const [value, setValue] = useState(ways[0]?.value ?? "");
  const way = ways.find((w) => w.value === value);
  const other = useQuery({
    queryKey: ["way", piece.id, piece.version, value],
    queryFn: () => ask(api.POST("/api/v1/plan/preview", { body: { doc: piece.doc, edits: way?.edits ?? [] } })),
    enabled: !!way,
    retry: false,
  });
  const within = useWithin().data;
  const otherWithin = useWithinOf([piece.id, piece.version, value], other.data?.doc).data;
  const why =
    other.error instanceof Refused
      ? (other.error.problem.fields?.map((f) => f.message).join(" ") ?? other.error.problem.detail)
      : "";
  const take = async () => {
    for (const e of way?.edits ?? []) draft.type(e.field, e.text);
    await draft.flush();
    onDone();
  };
  return (
    <div className="grid gap-4" data-testid="ways">
      <Pick
        label={say("compare.with")}
        value={value}
        onPick={setValue}
        options={ways.map((w) => ({ value: w.value, label: w.label }))}
        field="way"
      />
      {why && (
        <p role="alert" className="text-ember">
          {say("compare.none", { why })}
        </p>
      )}
      {other.data && (
        <>
          <table className="w-full text-right">
            <thead>
              <tr className="border-b border-line">
                <th scope="col">
                  <span className="sr-only">{say("patterns.figure")}</span>
                </th>
                <th scope="col" className="narrow py-1 text-[17px]">
                  {say("compare.now")}
                </th>
                <th scope="col" className="narrow py-1 text-[17px]">
                  {way?.label}
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.map(([code, get]) => {
                const a = get(now, units, within);
                const b = get(other.data.plan, units, otherWithin);
                return (
                  <tr key={code} className="border-b border-line" data-way={code} data-differs={a !== b}>
                    <th scope="row" className="py-1 text-left font-normal text-quiet">
                      {told(code)}
                    </th>
                    <td className="narrow">{a}</td>
                    <td className={`narrow ${a === b ? "text-quiet" : "text-act"}`}>{b}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <button type="button" className="press press-act justify-self-end" onClick={() => void take()}>
            {say("compare.take")}
          </button>
        </>
      )}
    </div>
  );
}

const rows: [string, (p: Plan, u: System, w?: Within) => string][] = [
  ["rank.bar", (p, u) => print.reckoned(p.bar.cutLengthMm, p.bar.lowMm, p.bar.highMm, u)],
  ["rank.heats", (p, u, w) => totals(p, w, u).heats],
  ["rank.blows", (p, u, w) => totals(p, w, u).blows],
  ["rank.time", (p, u, w) => `${totals(p, w, u).minutes} min`],
  ["rank.fuel", (p, u, w) => totals(p, w, u).fuel],
  ["compare.money", (p) => (p.totals.money.total > 0 ? print.money(p.totals.money.total) : "–")],
  ["compare.loss", (p) => localNumber(`${(p.bar.scaleShare * 100).toFixed(1)} %`)],
  ["ledger.grind", (p, u) => print.mass(p.ledger.find((l) => l.code === "ledger.grind")?.massG ?? 0, u)],
  ["compare.warnings", (p) => String(p.warnings.filter((w) => w.severity !== "note").length)],
];
