import { useQueryClient } from "@tanstack/react-query";
import { Archive, ArrowLeft } from "lucide-react";
import { Link, useNavigate } from "react-router";
import { api, ask, type Stock } from "../api/client";
import { useUnits } from "../api/hooks";
import { useTitle } from "../shell/focus";
import { locale, say } from "../text/say";
import { Figure } from "../ui/Figure";
import { Group } from "../ui/Group";
import { Typed } from "../ui/Typed";
import { print } from "../units/print";
import { AnalysisPanel } from "./AnalysisPanel";
import { BeliefPanel } from "./BeliefPanel";
import { DeadPanel } from "./DeadPanel";
import { Drawn } from "./Drawn";
import { FitsPanel } from "./FitsPanel";
import { barSize, formFields } from "./forms";
import { HazardPanel } from "./HazardPanel";
import { type Item, useItem } from "./useItem";

/** Everything that is known of one piece of stock. */
export function ItemPage({ item }: { item: Stock }) {
  useTitle(item.name, say("nav.rack"));
  const edit = useItem(item);
  const units = useUnits();
  const go = useNavigate();
  const client = useQueryClient();
  const away = async () => {
    await ask(
      api.POST("/api/v1/stock/{id}/archive", {
        params: { path: { id: item.id } },
        body: { version: item.version },
      }),
    );
    await client.invalidateQueries({ queryKey: ["stock"] });
    go("/rack");
  };
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6">
      <header className="mb-4 flex flex-wrap items-center gap-3">
        <Link to="/rack" className="press press-plain" aria-label={say("rack.back")}>
          <ArrowLeft size={18} aria-hidden /> {say("nav.rack")}
        </Link>
        <h1 className="mr-auto text-3xl">{item.name}</h1>
        {item.billet && (
          <Link className="press" to={`/billets/${item.id}`} data-testid="to-billet">
            {say("billet.open")}
          </Link>
        )}
        {item.usable && (
          <Link className="press press-act" to={`/?new&stock=${item.id}`}>
            {say("rack.makeKnife")}
          </Link>
        )}
        <button type="button" className="press press-plain" onClick={() => void away()}>
          <Archive size={16} aria-hidden /> {say("rack.remove")}
        </button>
      </header>
      {edit.general && (
        <p role="alert" className="mb-3 text-ember">
          {edit.general}
        </p>
      )}
      <div className="mb-5 grid items-center gap-x-8 gap-y-3 md:grid-cols-[1fr_20rem]">
        <div className="grid min-h-36 place-items-center overflow-hidden border border-line p-3" data-testid="drawn">
          <Drawn piece={item.piece} width={640} height={190} takenShare={takenShare(item)} />
        </div>
        <Facts item={item} />
      </div>
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-2">
        <div className="grid content-start gap-6">
          <Group title={`${say(`form.${item.piece.form}`)} ${barSize(item.piece, units)}`}>
            <Dimensions item={item} edit={edit} />
          </Group>
          <DeadPanel item={item} edit={edit} />
          <HazardPanel item={item} edit={edit} />
          <Group title={say("rack.shelf")}>
            <Typed label={say("rack.name")} {...edit.props("name", item.name)} />
            <Typed label={say("rack.place")} {...edit.props("place", item.place ?? "")} />
            <Typed label={say("rack.cost")} {...edit.props("cost", item.cost ?? 0)} />
            <div className="col-span-2">
              <Typed label={say("rack.notes")} {...edit.props("notes", item.notes ?? "")} />
            </div>
          </Group>
          <History item={item} />
        </div>
        <div className="grid content-start gap-6">
          <BeliefPanel item={item} edit={edit} />
          <AnalysisPanel item={item} edit={edit} />
          <FitsPanel item={item} />
        </div>
      </div>
    </div>
  );
}

const takenShare = (s: Stock) => {
  const all = (s.start?.lengthMm ?? 0) * s.count;
  return all > 0 ? Math.min(1, Math.max(0, 1 - s.freeMm / all)) : 0;
};

function Dimensions({ item, edit }: { item: Stock; edit: Item }) {
  return (
    <>
      {formFields[item.piece.form].map((f) => (
        <Typed key={f} label={say(`field.name.bar.${f}`)} {...edit.props(`piece.${f}`, item.piece[f] ?? 0)} />
      ))}
      {(item.piece.layers ?? []).map((l, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a layer is named by its place
        <div key={i} className="contents">
          <Typed
            label={say("field.name.bar.layerCount", { n: i + 1 })}
            {...edit.props(`piece.layers.${i}.count`, l.count)}
          />
          <Typed
            label={say("field.name.bar.layerThicknessMm", { n: i + 1 })}
            {...edit.props(`piece.layers.${i}.thicknessMm`, l.thicknessMm)}
          />
        </div>
      ))}
      <Typed label={say("rack.howMany")} {...edit.props("count", item.count)} />
      <Typed label={say("rack.weighed")} {...edit.props("weighedKg", item.weighedKg ?? 0)} />
    </>
  );
}

/** What the piece comes to, and whether the scale agrees. */
function Facts({ item }: { item: Stock }) {
  const units = useUnits();
  const s = item.start;
  return (
    <dl className="grid gap-1" data-testid="item-facts">
      <Figure name={say("rack.computedMass")} value={print.mass(item.massG, units)} />
      {(item.weighedKg ?? 0) > 0 && (
        <Figure name={say("rack.onScale")} value={`${print.mass((item.weighedKg ?? 0) * 1000, units)}`} />
      )}
      {s && (
        <>
          <Figure
            name={say("rack.comesTo")}
            value={`${print.thickness(s.widthMm, units)} × ${print.thickness(s.thicknessMm, units)}`}
          />
          <Figure name={say("rack.usableLength")} value={print.length(s.lengthMm, units)} />
          <Figure name={say("rack.freeLength")} value={print.length(item.freeMm, units)} />
          {item.layout && (
            <Link className="underline" to={`/sheet?stock=${item.id}`}>
              {say("rack.laidOn", { names: item.layout.names.join(", ") })}
            </Link>
          )}
        </>
      )}
      {item.weightDiffers && (
        <p className="border-l-[3px] border-ember pl-2" role="status" data-testid="weight-differs">
          {say("rack.weightDiffers", { share: Math.abs((item.weighedShare - 1) * 100).toFixed(0) })}
        </p>
      )}
    </dl>
  );
}

function History({ item }: { item: Stock }) {
  const units = useUnits();
  const cuts = item.history ?? [];
  if (cuts.length === 0) return null;
  return (
    <Group title={say("rack.history")}>
      <ul className="col-span-2" data-testid="history">
        {cuts.map((c, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: several are made at once, and none is taken away
          <li key={i} className="flex justify-between gap-3 border-b border-line py-1">
            <span>
              {c.name || say("school.another")} · {print.length(c.lengthMm, units)}
            </span>
            <span className="text-quiet">{new Date(c.at).toLocaleDateString(locale())}</span>
          </li>
        ))}
      </ul>
    </Group>
  );
}
