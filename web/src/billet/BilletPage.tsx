import { useQuery } from "@tanstack/react-query";
import { ArrowLeft, ChevronDown, ChevronUp, GripVertical, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, ask, type Stock } from "../api/client";
import { usePieces, useSteels, useStock, useUnits } from "../api/hooks";
import { type Item, useItem } from "../rack/useItem";
import { useTitle } from "../shell/focus";
import { NotThere } from "../shell/NotThere";
import { Failed, Loading } from "../shell/States";
import { figures, say, told } from "../text/say";
import { Group } from "../ui/Group";
import { Pick } from "../ui/Pick";
import { Typed } from "../ui/Typed";
import { print } from "../units/print";
import { Strata } from "./Strata";

type Recipe = NonNullable<Stock["billet"]>;
const kinds = ["clean", "weld", "draw", "crop", "grindSides", "restack", "fold"] as const;
const stepFields: Record<string, readonly string[]> = {
  clean: ["perFaceMm"],
  weld: ["heats", "lossFraction"],
  draw: ["widthMm", "thicknessMm"],
  crop: ["endsMm"],
  grindSides: ["perSideMm"],
  restack: ["pieces", "kerfMm", "perFaceMm"],
  fold: ["kerfMm", "perFaceMm"],
};
const patternFields: Record<string, readonly string[]> = {
  straight: [],
  twist: ["turnsPer100Mm"],
  ladder: ["pitchMm", "depthMm", "halfWidthMm"],
  pressed: ["pitchMm", "depthMm", "halfWidthMm"],
  dimple: ["pitchMm", "depthMm", "radiusMm"],
};

/** A layered bar of the rack: what is laid, every step with what it leaves, and the pattern worked into it. */
export function BilletPage() {
  const { id } = useParams();
  const stock = useStock();
  if (stock.isPending) return <Loading />;
  if (stock.isError) return <Failed error={stock.error} retry={() => void stock.refetch()} />;
  const item = stock.data.find((s) => s.id === id);
  return item?.billet ? <Laid key={id} item={item} recipe={item.billet} /> : <NotThere />;
}

function Laid({ item, recipe: r }: { item: Stock; recipe: Recipe }) {
  useTitle(item.name, say("billet.title"));
  const units = useUnits();
  const edit = useItem(item);
  const steels = useSteels();
  const outcome = useQuery({
    queryKey: ["billet", r],
    queryFn: () => ask(api.POST("/api/v1/billet", { body: r })),
    placeholderData: (last) => last,
  });
  const o = outcome.data;
  const wanted = (usePieces().data ?? []).filter((p) => p.doc.stockId === item.id);
  const typed = (field: string, value: number, label: string) => (
    <Typed key={field} label={label} {...edit.props(`billet.${field}`, value)} />
  );
  const pick = (field: string, value: string, label: string, options: { value: string; label: string }[]) => (
    <Pick
      key={field}
      label={label}
      field={`billet.${field}`}
      value={value}
      options={options}
      onPick={(v) => void edit.save(`billet.${field}`, v)}
      error={edit.errors[`billet.${field}`]?.message}
    />
  );
  const grades = (steels.data ?? []).map((g) => ({ value: g.id, label: g.name }));
  const words = (values: readonly string[], prefix: string) =>
    values.map((v) => ({ value: v, label: told(`${prefix}.${v}`) }));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6" data-testid="billet-page">
      <header className="mb-4 flex flex-wrap items-center gap-3">
        <Link to={`/rack/${item.id}`} className="press press-plain">
          <ArrowLeft size={18} aria-hidden /> {item.name}
        </Link>
        <h1 className="mr-auto text-3xl">{say("billet.title")}</h1>
        <Link className="press press-act" to={`/?new&stock=${item.id}`}>
          {say("rack.makeKnife")}
        </Link>
      </header>
      {edit.general && (
        <p role="alert" className="mb-3 text-ember">
          {edit.general}
        </p>
      )}
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,420px)]">
        <div className="grid content-start gap-4 lg:sticky lg:top-0 lg:max-h-[calc(100vh-3rem)] lg:self-start lg:overflow-y-auto">
          {o && (
            <>
              <p className="narrow text-2xl leading-tight" data-testid="billet-sum">
                {say("billet.sum", {
                  layers: o.layers,
                  layer: print.thickness(Math.round(o.layerMm * 1000) / 1000, units),
                  bar: `${print.thickness(r.barWidthMm, units)} × ${print.thickness(r.barThicknessMm, units)} × ${print.length(o.lengthMm, units)}`,
                  mass: print.mass(o.massG, units),
                })}
              </p>
              <p className="text-quiet">
                {say("billet.lost", {
                  mass: print.mass(o.laidG - o.massG, units),
                  laid: print.mass(o.laidG, units),
                })}
                {" · "}
                {say("billet.fire", { time: print.duration(o.fireS), fuel: print.mass(o.fuelG, units) })}
              </p>
              {o.findings.length > 0 && (
                <ul className="grid gap-2">
                  {o.findings.map((x) => (
                    <li
                      key={x.code}
                      data-finding={x.code}
                      className={`border-l-2 pl-3 ${x.severity === "note" ? "border-line text-quiet" : "border-ember"}`}
                    >
                      {told(x.code, figures(x.figures, units))}
                    </li>
                  ))}
                </ul>
              )}
              <Strata outcome={o} />
              <ul className="text-[15px] text-quiet" data-testid="billet-lost">
                {o.lost.map((l, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: steps in order
                  <li key={i}>
                    {say("billet.lostTo", {
                      step: told(`step.${l.step}`),
                      mass: print.mass(l.massG, units),
                      bar: print.length(l.barMm, units),
                    })}
                  </li>
                ))}
              </ul>
            </>
          )}
          {outcome.error && (
            <p role="alert" className="text-ember">
              {outcome.error.message}
            </p>
          )}
        </div>
        <div className="grid content-start gap-6">
          <Group title={say("billet.stack")}>
            {r.stack.map((l, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: layers are named by their place
              <div key={i} className="col-span-2 grid grid-cols-[1fr_1fr_auto] items-end gap-2">
                {pick(`stack.${i}.steel`, l.steel, say("field.name.steelId"), grades)}
                {typed(`stack.${i}.thicknessMm`, l.thicknessMm, say("billet.thick"))}
                <button
                  type="button"
                  className="press press-plain min-h-11 !px-2"
                  aria-label={say("billet.remove")}
                  disabled={r.stack.length < 2}
                  onClick={() => void edit.save("billet.layer.delete", String(i))}
                >
                  <Trash2 size={16} aria-hidden />
                </button>
              </div>
            ))}
            <button
              type="button"
              className="press self-end justify-self-start"
              onClick={() => void edit.save("billet.layer.add", "")}
            >
              <Plus size={16} aria-hidden /> {say("billet.layer.add")}
            </button>
            {pick("cap", r.cap && r.cap.length > 0 ? "yes" : "no", say("billet.capped"), words(["no", "yes"], "yesno"))}
            {typed("repeats", r.repeats, say("billet.repeats"))}
            {typed("widthMm", r.widthMm, say("billet.widthMm"))}
            {typed("lengthMm", r.lengthMm, say("billet.lengthMm"))}
            {typed("weldC", r.weldC, say("billet.weldC"))}
            {pick("flux", r.flux, say("billet.flux"), words(["borax", "none", "canister"], "flux"))}
            {pick("made", r.made ? "yes" : "no", say("billet.isMade"), words(["no", "yes"], "billet.made"))}
          </Group>
          <Steps r={r} edit={edit} typed={typed} />
          <Group title={say("billet.worked")}>
            {pick("pattern", r.pattern, say("billet.worked"), words(Object.keys(patternFields), "pattern"))}
            {r.pattern === "twist" &&
              pick("hand", r.hand ?? "right", say("field.billet.hand"), words(["right", "left"], "hand"))}
            {(patternFields[r.pattern] ?? []).map((f) =>
              typed(f, Number((r as unknown as Record<string, number>)[f] ?? 0), told(`field.billet.${f}`)),
            )}
            {typed("beside", Math.max(1, r.beside ?? 1), say("billet.beside"))}
            {(r.beside ?? 1) > 1 &&
              r.pattern === "twist" &&
              pick("alternate", r.alternate ? "yes" : "no", say("billet.alternates"), words(["no", "yes"], "yesno"))}
            {pick("edgeSteelId", r.edgeSteelId || "none", say("billet.edge"), [
              { value: "none", label: say("billet.edge.none") },
              ...grades,
            ])}
            {r.edgeSteelId && typed("edgeMm", r.edgeMm ?? 0, say("billet.edgeMm"))}
          </Group>
          <Group title={say("billet.bar")}>
            {typed("barWidthMm", r.barWidthMm, say("field.billet.widthMm"))}
            {typed("barThicknessMm", r.barThicknessMm, say("field.billet.thicknessMm"))}
            <div className="col-span-2">
              <Typed
                label={say("billet.for")}
                hint={say("billet.forHint")}
                placeholder="65; 210"
                {...edit.props("billet.for", "")}
              />
              {o && (
                <span className="mt-1.5 flex flex-wrap gap-1.5">
                  {wanted.map((p) => (
                    <button
                      key={p.id}
                      type="button"
                      className="press"
                      data-for={p.doc.name}
                      onClick={() =>
                        void edit.save(
                          "billet.for",
                          `${o.layers}; ${print.edit("lengthMm", Math.ceil(p.summary.cutLengthMm), units)}`,
                        )
                      }
                    >
                      {say("billet.forPiece", {
                        name: p.doc.name,
                        long: print.length(Math.ceil(p.summary.cutLengthMm), units),
                      })}
                    </button>
                  ))}
                </span>
              )}
            </div>
          </Group>
          <p className="border-l-2 border-ember pl-3 text-sm">
            {say("caution.flux")} {say("caution.weldSpits")}
          </p>
        </div>
      </div>
    </div>
  );
}

function Steps({
  r,
  edit,
  typed,
}: {
  r: Recipe;
  edit: Item;
  typed: (field: string, value: number, label: string) => React.ReactNode;
}) {
  const [over, setOver] = useState(-1);
  const move = (from: number, to: number) => void edit.save("billet.step.move", `${from}; ${to}`);
  return (
    <Group title={say("billet.steps.title")}>
      <ol className="col-span-2 grid gap-3" data-testid="billet-steps">
        {r.steps.map((s, i) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: steps are named by their place
            key={i}
            data-step={s.kind}
            className={`border-t pt-1 ${over === i ? "border-ember" : "border-line"}`}
            onDragOver={(e) => {
              e.preventDefault();
              setOver(i);
            }}
            onDrop={(e) => {
              e.preventDefault();
              setOver(-1);
              const from = Number(e.dataTransfer.getData("text/plain"));
              if (from !== i) move(from, i);
            }}
          >
            {/* biome-ignore lint/a11y/noStaticElementInteractions: dragged by hand; its keys are the two arrows */}
            <span
              className="flex cursor-grab items-center gap-1"
              draggable
              onDragStart={(e) => e.dataTransfer.setData("text/plain", String(i))}
              onDragEnd={() => setOver(-1)}
            >
              <GripVertical size={16} aria-hidden className="text-quiet" />
              <span className="narrow mr-auto text-lg">
                {i + 1}. {told(`step.${s.kind}`)}
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
          </li>
        ))}
      </ol>
      <div className="col-span-2 flex flex-wrap gap-1.5" data-testid="billet-add">
        <span className="text-quiet">{say("billet.step.add")}:</span>
        {kinds.map((k) => (
          <button key={k} type="button" className="press" onClick={() => void edit.save("billet.step.add", k)}>
            {told(`step.${k}`)}
          </button>
        ))}
      </div>
    </Group>
  );
}
