import { useQuery } from "@tanstack/react-query";
import { ArrowLeft, Plus, Trash2 } from "lucide-react";
import { Link, useParams } from "react-router";
import { api, ask, type Stock } from "../api/client";
import { usePieces, useSteels, useStock, useUnits } from "../api/hooks";
import { Etching } from "../bench/Etching";
import { useItem } from "../rack/useItem";
import { useTitle } from "../shell/focus";
import { NotThere } from "../shell/NotThere";
import { Failed, Loading } from "../shell/States";
import { figures, say, told } from "../text/say";
import { Group } from "../ui/Group";
import { Pick } from "../ui/Pick";
import { Typed } from "../ui/Typed";
import { print } from "../units/print";
import { BilletFor } from "./BilletFor";
import { BilletLog } from "./BilletLog";
import { BilletSteps } from "./BilletSteps";
import { BilletWorked } from "./BilletWorked";
import { Strata } from "./Strata";

type Recipe = NonNullable<Stock["billet"]>;
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
  const filled = r.pattern === "cable" || r.pattern === "chain";
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
                {say(o.pouredMm || r.pattern === "cable" ? "billet.sumFilled" : "billet.sum", {
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
                {o.labour
                  ? say("billet.labour", {
                      heats: Math.ceil(o.labour.heats),
                      blows: Math.round(o.labour.blows),
                      time: print.duration(o.labour.timeS),
                      fuel: print.mass(o.labour.fuelG, units),
                    })
                  : say("billet.fire", { time: print.duration(o.fireS), fuel: print.mass(o.fuelG, units) })}
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
              {o.face && (
                <Etching name="bar" label={say("billet.face")} e={o.face} lengthMm={Math.min(160, o.lengthMm)} />
              )}
              <Strata outcome={o} filled={filled} />
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
            {r.stack.slice(0, r.pattern === "cable" ? 1 : r.pattern === "chain" ? 2 : undefined).map((l, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: layers are named by their place
              <div key={i} className="col-span-2 grid grid-cols-[1fr_1fr_auto] items-end gap-2">
                {pick(`stack.${i}.steel`, l.steel, say("field.name.steelId"), grades)}
                {filled ? <span /> : typed(`stack.${i}.thicknessMm`, l.thicknessMm, say("billet.thick"))}
                <button
                  type="button"
                  className="press press-plain min-h-11 !px-2"
                  aria-label={say("billet.remove")}
                  disabled={filled || r.stack.length < 2}
                  onClick={() => void edit.save("billet.layer.delete", String(i))}
                >
                  <Trash2 size={16} aria-hidden />
                </button>
              </div>
            ))}
            {!filled && (
              <>
                <button
                  type="button"
                  className="press self-end justify-self-start"
                  onClick={() => void edit.save("billet.layer.add", "")}
                >
                  <Plus size={16} aria-hidden /> {say("billet.layer.add")}
                </button>
                {pick(
                  "cap",
                  r.cap && r.cap.length > 0 ? "yes" : "no",
                  say("billet.capped"),
                  words(["no", "yes"], "yesno"),
                )}
                {typed("repeats", r.repeats, say("billet.repeats"))}
              </>
            )}
            {r.pattern !== "cable" && typed("widthMm", r.widthMm, say("billet.widthMm"))}
            {typed("lengthMm", r.lengthMm, say("billet.lengthMm"))}
            {typed("weldC", r.weldC, say("billet.weldC"))}
            {pick("flux", r.flux, say("billet.flux"), words(["borax", "none", "canister"], "flux"))}
            {pick("by", r.by || "hand", say("billet.by"), [
              { value: "hand", label: told("billet.by.hand") },
              ...["striker", "powerHammer", "press", "rollingMill"].map((v) => ({
                value: v,
                label: told(`machine.${v}`),
              })),
            ])}
            {pick("made", r.made ? "yes" : "no", say("billet.isMade"), words(["no", "yes"], "billet.made"))}
          </Group>
          <BilletSteps r={r} edit={edit} typed={typed} labour={o?.labour} />
          <BilletWorked r={r} typed={typed} pick={pick} grades={grades} />
          <Group title={say("billet.bar")}>
            {typed("barWidthMm", r.barWidthMm, say("field.billet.widthMm"))}
            {typed("barThicknessMm", r.barThicknessMm, say("field.billet.thicknessMm"))}
            <BilletFor edit={edit} pieces={wanted} layers={o?.layers} />
          </Group>
          <BilletLog item={item} edit={edit} />
          <p className="border-l-2 border-ember pl-3 text-sm">
            {r.flux === "canister" && `${say("caution.can")} `}
            {say("caution.flux")} {say("caution.weldSpits")}
          </p>
        </div>
      </div>
    </div>
  );
}
