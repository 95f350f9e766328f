import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { api, ask, Refused, type SheetOrder, type SheetPlan, type Stock } from "../api/client";
import { usePatterns, usePieces, useSteelName, useStock, useUnits } from "../api/hooks";
import { useTitle } from "../shell/focus";
import { useKeys } from "../shell/keys";
import { Failed, Loading } from "../shell/States";
import { say, told } from "../text/say";
import { Figure } from "../ui/Figure";
import { Pick } from "../ui/Pick";
import { print } from "../units/print";
import { Kept } from "./Kept";
import { SheetDrawn } from "./SheetDrawn";
import { Ways } from "./Ways";

const sizes = ["kerfMm", "gapMm", "marginMm", "mostTurnDeg"] as const;
const usual = { kerfMm: 1.5, gapMm: 1, marginMm: 4, mostTurnDeg: 20 };
const sheetForms = ["flat", "disc", "leaf", "taperedFlat"];

type Laid = NonNullable<Stock["layout"]>;
type Held = NonNullable<SheetOrder["held"]>;

/** Outlines of pieces and patterns laid on a plate, a disc or the like, by themselves or by hand. */
export function SheetPage() {
  useTitle(say("sheet.title"));
  const units = useUnits();
  const steelName = useSteelName();
  const stock = useStock(false);
  const pieces = usePieces(false);
  const patterns = usePatterns(false);
  const [search] = useSearchParams();
  const [from, setFrom] = useState(search.get("stock") ? `stock ${search.get("stock")}` : "");
  const [wanted, setWanted] = useState<Record<string, number>>({});
  const [way, setWay] = useState<SheetOrder["way"]>("forge");
  const [cut, setCut] = useState<SheetOrder["cut"]>("saw");
  const [flip, setFlip] = useState(false);
  const [typed, setTyped] = useState<Partial<Record<(typeof sizes)[number], string>>>({});
  const [plan, setPlan] = useState<SheetPlan>();
  const [chosen, setChosen] = useState<number>();
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const [past, setPast] = useState<Held[]>([]);
  const sheets = (stock.data ?? []).filter((s) => sheetForms.includes(s.piece.form));
  const [kind = "stock", fromId = ""] = (from || `stock ${sheets[0]?.id ?? ""}`).split(" ");
  const item = kind === "stock" ? sheets.find((s) => s.id === fromId) : undefined;
  const layout = item?.layout;
  const keptOn = layout ? item.id : "";
  const all = [
    ...(pieces.data ?? []).map((p) => ({ key: `piece ${p.id}`, name: p.doc.name, note: say("nav.pieces") })),
    ...(patterns.data ?? []).map((p) => ({ key: `pattern ${p.id}`, name: p.name, note: say("nav.patterns") })),
  ];
  const order = (): SheetOrder => ({
    ...(kind === "blank" ? { blankId: fromId } : { stockId: fromId }),
    parts: all
      .filter((p) => (wanted[p.key] ?? 0) > 0)
      .map((p) => {
        const [kind, id = ""] = p.key.split(" ");
        return { ...(kind === "piece" ? { pieceId: id } : { patternId: id }), count: wanted[p.key] ?? 1 };
      }),
    way,
    cut,
    flip,
    ...usual,
    edits: sizes.flatMap((f) => (typed[f] === undefined ? [] : [{ field: f, text: typed[f] ?? "", units }])),
  });
  /** A move by hand can be taken back; what is laid anew begins anew. */
  const moved = (held: Held) => {
    if (!plan) return;
    setPast([...past, plan.layout.placed]);
    void lay({ ...plan.order, held });
  };
  const undo = () => {
    const last = past.at(-1);
    if (!last || !plan) return;
    setPast(past.slice(0, -1));
    void lay({ ...plan.order, held: last });
  };
  const lay = async (body: SheetOrder) => {
    setWrong("");
    setBusy(true);
    try {
      setPlan(await ask(api.POST("/api/v1/sheet", { body })));
    } catch (e) {
      if (e instanceof Refused) setWrong(e.problem.fields?.map((f) => f.message).join(" ") || e.problem.detail);
      else setWrong(say("ui.offline"));
    } finally {
      setBusy(false);
    }
  };
  const save = async (format: "svg" | "dxf") => {
    if (!plan) return;
    const blob = await ask(
      api.POST("/api/v1/sheet/{format}", {
        params: { path: { format } },
        body: { ...plan.order, held: plan.layout.placed },
        parseAs: "blob",
      }),
    );
    const link = document.createElement("a");
    link.href = URL.createObjectURL(blob as unknown as Blob);
    link.download = `${say("file.sheet")}.${format}`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is kept is taken up once, when its sheet is chosen
  useEffect(() => {
    if (!layout || !keptOn) return;
    setWanted(Object.fromEntries(layout.parts.map((p) => [keyOf(p), p.count])));
    setWay(layout.way);
    setCut(layout.cut ?? "saw");
    setFlip(layout.flip);
    setTyped(Object.fromEntries(sizes.map((f) => [f, print.edit(f, layout[f], units)])));
    void lay({ ...taken(layout), stockId: keptOn });
  }, [keptOn]);
  useKeys({
    "mod+z": () => undo(),
  });
  if (stock.isPending || pieces.isPending || patterns.isPending) return <Loading />;
  if (stock.isError) return <Failed error={stock.error} retry={() => void stock.refetch()} />;
  const any = Object.values(wanted).some((n) => n > 0);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6">
      <header className="mb-4 flex flex-wrap items-end gap-2">
        <h1 className="mr-auto text-3xl">{say("sheet.title")}</h1>
        {plan && plan.layout.placed.length > 0 && (
          <>
            <button type="button" className="press no-print" onClick={() => void save("svg")} data-save="svg">
              SVG
            </button>
            <button type="button" className="press no-print" onClick={() => void save("dxf")} data-save="dxf">
              DXF
            </button>
          </>
        )}
      </header>
      <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[22rem_1fr]">
        <form
          className="no-print grid content-start gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            setPast([]);
            void lay(order());
          }}
        >
          {sheets.length === 0 ? (
            <p className="text-quiet">{say("sheet.none")}</p>
          ) : (
            <Pick
              label={say("sheet.from")}
              value={`${kind} ${fromId}`}
              options={[
                ...sheets.map((s) => ({ value: `stock ${s.id}`, label: s.name, note: steelName(s.steelId) })),
                ...(pieces.data ?? []).map((p) => ({
                  value: `blank ${p.id}`,
                  label: say("sheet.blankOf", { name: p.doc.name }),
                  note: steelName(p.doc.request.steelId),
                })),
              ]}
              onPick={(v) => {
                setFrom(v);
                setPlan(undefined);
                setPast([]);
              }}
              field="sheet.stock"
            />
          )}
          <h2 className="narrow border-b border-line text-lg">{say("sheet.parts")}</h2>
          <ul className="typed max-h-[38vh] overflow-y-auto">
            {all.map((p) => (
              <li key={p.key} className="flex items-center gap-3 border-b border-line py-1">
                <span className="min-w-0 flex-1">
                  <span className="narrow block truncate text-[17px]">{p.name}</span>
                  <span className="block text-sm text-quiet">{p.note}</span>
                </span>
                <span className="w-16">
                  <input
                    type="number"
                    min={0}
                    max={60}
                    value={wanted[p.key] ?? 0}
                    aria-label={say("cuts.howMany", { name: p.name })}
                    onFocus={(e) => e.target.select()}
                    onChange={(e) =>
                      setWanted({ ...wanted, [p.key]: Math.max(0, Math.min(60, Number(e.target.value))) })
                    }
                    data-want={p.name}
                  />
                </span>
              </li>
            ))}
          </ul>
          <Pick
            label={say("sheet.way")}
            value={way}
            options={["forge", "grind"].map((v) => ({ value: v, label: told(`sheet.way.${v}`) }))}
            onPick={(v) => setWay(v as SheetOrder["way"])}
            field="sheet.way"
          />
          <Pick
            label={say("sheet.cut")}
            value={cut ?? "saw"}
            options={["saw", "hot"].map((v) => ({ value: v, label: told(`sheet.cut.${v}`) }))}
            onPick={(v) => setCut(v as SheetOrder["cut"])}
            field="sheet.cut"
          />
          <div className="typed grid grid-cols-2 gap-2">
            {sizes.map((f) => (
              <label key={f} className="grid content-end gap-1">
                <span className="text-sm text-quiet">
                  {f.endsWith("Mm") ? `${say(`sheet.${f}`)}, ${print.unit(f, units)}` : say(`sheet.${f}`)}
                </span>
                <input
                  value={typed[f] ?? print.edit(f, usual[f], units)}
                  inputMode="decimal"
                  onChange={(e) => setTyped({ ...typed, [f]: e.target.value })}
                  data-field={`sheet.${f}`}
                />
              </label>
            ))}
          </div>
          <label className="flex min-h-9 items-center gap-2">
            <input type="checkbox" checked={flip} onChange={(e) => setFlip(e.target.checked)} />
            {say("sheet.flip")}
          </label>
          <button type="submit" className="press press-act" disabled={!any || busy || !fromId}>
            {say(plan ? "sheet.anew" : "sheet.lay")}
          </button>
          {wrong && (
            <p role="alert" className="text-ember">
              {wrong}
            </p>
          )}
        </form>
        <div className="grid content-start gap-4" aria-busy={busy}>
          {plan ? (
            <>
              <SheetDrawn plan={plan} units={units} chosen={chosen} onChoose={setChosen} onMoved={moved} />
              <p className="text-sm text-quiet">
                {say("sheet.move")}{" "}
                {past.length > 0 && (
                  <button type="button" className="underline" onClick={undo} data-testid="sheet-undo">
                    {say("sheet.undo")}
                  </button>
                )}
              </p>
            </>
          ) : (
            <p className="max-w-prose text-quiet">{say("sheet.help")}</p>
          )}
          {item && <Kept key={item.id} item={item} plan={plan} onGone={() => setPlan(undefined)} />}
          {plan && <Findings plan={plan} />}
        </div>
      </div>
    </div>
  );
}

const keyOf = (p: { pieceId?: string; patternId?: string }) =>
  p.pieceId ? `piece ${p.pieceId}` : `pattern ${p.patternId}`;

/** What is kept with a sheet, without what it came to. */
const taken = ({ names: _names, usedMm: _usedMm, across: _across, ...laying }: Laid) => laying;

/** What the layout comes to, what is wrong with it, and sawing against forging. */
function Findings({ plan }: { plan: SheetPlan }) {
  const units = useUnits();
  const names = plan.layout.unplaced.map((i) => plan.parts[i]?.name ?? "").join(", ");
  return (
    <>
      {names && (
        <p role="alert" className="text-ember" data-testid="sheet-unplaced">
          {say("sheet.unplaced", { names })}
        </p>
      )}
      {plan.faults.length > 0 && (
        <p role="alert" className="text-ember" data-testid="sheet-faults">
          {say("sheet.faults", { n: plan.faults.length })}
        </p>
      )}
      <dl className="grid max-w-md gap-1 text-[15px]" data-testid="sheet-figures">
        <Figure name={say("sheet.used")} value={print.mass(plan.usedG, units)} />
        <Figure name={say("sheet.waste")} value={print.mass(plan.wasteG, units)} />
        <Figure name={say("sheet.rest")} value={print.mass(plan.restG, units)} />
        <Figure
          name={plan.heats ? say("sheet.hot", { heats: plan.heats }) : say("sheet.saw")}
          value={print.duration(plan.sawS)}
        />
      </dl>
      <Ways plan={plan} />
    </>
  );
}
