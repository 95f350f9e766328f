import { useQueryClient } from "@tanstack/react-query";
import { Archive, ArchiveRestore, Download, Layers, Plus, Scissors, Spline, Upload } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, ask, type Stock } from "../api/client";
import { useSteelName, useStock, useUnits } from "../api/hooks";
import { useTitle } from "../shell/focus";
import { useKeys } from "../shell/keys";
import { NotThere } from "../shell/NotThere";
import { Failed, Loading, SetAside } from "../shell/States";
import { say, told } from "../text/say";
import { DropFiles } from "../ui/DropFiles";
import { Sheet } from "../ui/Sheet";
import { print } from "../units/print";
import { Drawn, extent } from "./Drawn";
import { barSize, type Form } from "./forms";
import { ItemPage } from "./ItemPage";
import { NewItem } from "./NewItem";
import { TableIn } from "./TableIn";

/** The rack, or one piece of it. */
export function RackPage() {
  const { id } = useParams();
  const stock = useStock();
  if (stock.isPending) return <Loading />;
  if (stock.isError) return <Failed error={stock.error} retry={() => void stock.refetch()} />;
  if (!id) return <Rack items={stock.data} />;
  const item = stock.data.find((s) => s.id === id);
  return item ? <ItemPage key={id} item={item} /> : <NotThere />;
}

/** Every piece that is there, drawn from its own dimensions on one scale. */
function Rack({ items }: { items: Stock[] }) {
  useTitle(say("nav.rack"));
  const [sheet, setSheet] = useState<"new" | "table">();
  const [dropped, setDropped] = useState<File>();
  const [off, setOff] = useState(false);
  useKeys({ n: () => setSheet("new") });
  const client = useQueryClient();
  const go = useNavigate();
  const lay = async () => {
    const made = await ask(
      api.POST("/api/v1/stock", {
        body: {
          form: "flat",
          edits: [
            { field: "name", text: say("billet.title"), units: "mm" },
            { field: "billet.lay", text: "", units: "mm" },
          ],
        },
      }),
    );
    await client.invalidateQueries({ queryKey: ["stock"] });
    go(`/billets/${made.id}`);
  };
  const longest = Math.max(1, ...items.map((s) => extent(s.piece)[0]));
  return (
    <DropFiles
      endings={["csv"]}
      what={say("drop.table")}
      onFile={(f) => {
        setDropped(f);
        setSheet("table");
      }}
      className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6"
    >
      <header className="mb-4 flex flex-wrap items-end gap-2">
        <h1 className="mr-auto text-3xl">{say("nav.rack")}</h1>
        <button type="button" className="press press-plain" aria-pressed={off} onClick={() => setOff(!off)}>
          <Archive size={16} aria-hidden /> {say("rack.off")}
        </button>
        <Link to="/cuts" className="press">
          <Scissors size={18} aria-hidden /> {say("cuts.title")}
        </Link>
        <Link to="/sheet" className="press">
          <Spline size={18} aria-hidden /> {say("sheet.title")}
        </Link>
        <a className="press" href="/api/v1/stock.csv" download data-testid="csv-out">
          <Download size={18} aria-hidden /> {say("rack.csvOut")}
        </a>
        <button
          type="button"
          className="press"
          onClick={() => {
            setDropped(undefined);
            setSheet("table");
          }}
        >
          <Upload size={18} aria-hidden /> {say("rack.csvIn")}
        </button>
        <button type="button" className="press" onClick={() => void lay()} data-testid="lay-billet">
          <Layers size={18} aria-hidden /> {say("billet.new")}
        </button>
        <button type="button" className="press press-act" onClick={() => setSheet("new")}>
          <Plus size={18} aria-hidden /> {say("rack.add")}
        </button>
      </header>
      <SetAside kind="stock" />
      {off ? (
        <OffTheRack />
      ) : items.length === 0 ? (
        <p className="text-lg text-quiet">{say("rack.none")}</p>
      ) : (
        <ul className="border-t border-line">
          {items.map((s) => (
            <li key={s.id} className="border-b border-line">
              <Row item={s} longest={longest} />
            </li>
          ))}
        </ul>
      )}
      <Sheet open={sheet === "new"} onClose={() => setSheet(undefined)} title={say("rack.add")}>
        <NewItem />
      </Sheet>
      <Sheet open={sheet === "table"} onClose={() => setSheet(undefined)} title={say("rack.csvIn")}>
        <TableIn file={dropped} onClose={() => setSheet(undefined)} />
      </Sheet>
    </DropFiles>
  );
}

/** What was taken off the rack or used up; each can be put back. */
function OffTheRack() {
  const steelName = useSteelName();
  const units = useUnits();
  const client = useQueryClient();
  const stock = useStock(true);
  if (stock.isPending) return <Loading />;
  if (stock.isError) return <Failed error={stock.error} retry={() => void stock.refetch()} />;
  if (stock.data.length === 0) return <p className="text-lg text-quiet">{say("rack.noneOff")}</p>;
  const putBack = async (s: Stock) => {
    const params = { params: { path: { id: s.id } } };
    await ask(api.POST("/api/v1/stock/{id}/restore", { ...params, body: { version: s.version } }));
    await client.invalidateQueries({ queryKey: ["stock"] });
  };
  return (
    <ul className="border-t border-line">
      {stock.data.map((s) => (
        <li key={s.id} className="flex flex-wrap items-center gap-4 border-b border-line py-2.5" data-off={s.name}>
          <span className="flex-1">
            <span className="narrow block text-xl">
              {steelName(s.steelId)} · {say(`form.${s.piece.form}`)} {barSize(s.piece, units)}
            </span>
            <span className="text-quiet">
              {s.name} · {print.mass(s.massG, units)}
            </span>
          </span>
          <button type="button" className="press" onClick={() => void putBack(s)}>
            <ArchiveRestore size={16} aria-hidden /> {say("rack.putBack")}
          </button>
        </li>
      ))}
    </ul>
  );
}

/** Forms whose size says their length already. */
const stubby: Form[] = ["ball", "roller", "race", "disc", "chain"];

/** px that the longest piece takes up in the list. */
const listPx = 420;

function Row({ item, longest }: { item: Stock; longest: number }) {
  const steelName = useSteelName();
  const units = useUnits();
  const all = (item.start?.lengthMm ?? 0) * item.count;
  const k = listPx / longest;
  const [w, h] = extent(item.piece);
  // a small lump would be a dot on the scale of a long bar
  const small = Math.max(w, h) * k < 34;
  const top = item.belief?.shares[0];
  return (
    <Link
      to={`/rack/${item.id}`}
      data-item={item.name}
      className="group flex w-full flex-wrap items-center gap-x-6 gap-y-1 py-2.5 text-left"
    >
      <span className="grid w-[430px] max-w-full justify-items-start">
        <Drawn
          piece={item.piece}
          width={430}
          height={90}
          scale={small ? 34 / Math.max(w, h) : k}
          takenShare={all > 0 ? 1 - item.freeMm / all : 0}
        />
      </span>
      <span className="min-w-60 flex-1">
        <span className="narrow block text-xl group-hover:text-act">
          {steelName(item.steelId)} · {say(`form.${item.piece.form}`)} {barSize(item.piece, units)}
          {item.start && !stubby.includes(item.piece.form) ? ` × ${print.length(item.start.wholeMm, units)}` : ""}
          {item.count > 1 ? ` · ${say("rack.count", { n: item.count })}` : ""}
        </span>
        <span className="block text-quiet">
          {item.name} · {print.mass(item.massG, units)}
          {item.start
            ? ` · ${
                item.freeMm < 0
                  ? say("rack.over", { length: print.length(-item.freeMm, units) })
                  : say("rack.free", { length: print.length(item.freeMm, units) })
              }`
            : ""}
          {item.place ? ` · ${item.place}` : ""}
          {item.notes ? ` · ${item.notes}` : ""}
        </span>
        {(item.refused || top || item.weightDiffers) && (
          <span className="block">
            {item.refused && <b className="text-ember">{say("rack.doNotHeat")} </b>}
            {top && item.belief && (
              <span className={item.belief.verdict === "contradictory" ? "text-ember" : ""}>
                {item.belief.verdict === "contradictory"
                  ? say("rack.contradictory")
                  : say("rack.believed", {
                      family: told(`family.${top.family}`),
                      share: (top.now * 100).toFixed(0),
                    })}{" "}
              </span>
            )}
            {item.weightDiffers && <span>{say("rack.weightDiffersShort")}</span>}
          </span>
        )}
      </span>
    </Link>
  );
}
