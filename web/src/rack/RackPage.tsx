import { useQueryClient } from "@tanstack/react-query";
import { Archive, Plus } from "lucide-react";
import { useState } from "react";
import { api, ask, type Stock } from "../api/client";
import { useSteels, useStock, useUnits } from "../api/hooks";
import { useKeys } from "../shell/keys";
import { Failed, Loading } from "../shell/States";
import { say } from "../text/say";
import { Pick } from "../ui/Pick";
import { Sheet } from "../ui/Sheet";
import { Typed } from "../ui/Typed";
import { useTyped } from "../ui/useTyped";
import { print } from "../units/print";
import { type BarForm, barFields, barForms, barSize } from "./bar";

/** The bars that are there, drawn at their lengths. */
export function RackPage() {
  const stock = useStock();
  const [sheet, setSheet] = useState<Stock | "new">();
  useKeys({ n: () => setSheet("new") });
  const bars = (stock.data ?? []).filter((s) => s.bar);
  const longest = Math.max(1, ...bars.map((s) => s.piece.lengthMm ?? 0));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4 sm:p-6">
      <header className="mb-4 flex items-end gap-3">
        <h1 className="mr-auto text-3xl">{say("nav.rack")}</h1>
        <button type="button" className="press press-act" onClick={() => setSheet("new")}>
          <Plus size={18} aria-hidden /> {say("rack.add")}
        </button>
      </header>
      {stock.isPending ? (
        <Loading />
      ) : stock.isError ? (
        <Failed error={stock.error} retry={() => void stock.refetch()} />
      ) : bars.length === 0 ? (
        <p className="text-lg text-quiet">{say("rack.none")}</p>
      ) : (
        <ul className="border-t border-line">
          {bars.map((s) => (
            <li key={s.id} className="border-b border-line">
              <Row item={s} longest={longest} onOpen={() => setSheet(s)} />
            </li>
          ))}
        </ul>
      )}
      <Sheet
        open={!!sheet}
        onClose={() => setSheet(undefined)}
        title={sheet === "new" ? say("rack.add") : say("rack.edit")}
      >
        {sheet && <BarSheet item={sheet === "new" ? undefined : sheet} onClose={() => setSheet(undefined)} />}
      </Sheet>
    </div>
  );
}

function Row({ item, longest, onOpen }: { item: Stock; longest: number; onOpen: () => void }) {
  const units = useUnits();
  const length = item.piece.lengthMm ?? 0;
  const high = item.piece.widthMm ?? item.piece.sideMm ?? item.piece.diameterMm ?? item.piece.acrossFlatsMm ?? 10;
  const px = 560 / longest;
  const free = Math.max(0, Math.min(length, item.freeMm));
  return (
    <button
      type="button"
      onClick={onOpen}
      className="group flex w-full flex-wrap items-center gap-x-6 gap-y-1 py-3 text-left"
    >
      <span className="w-[562px] max-w-full">
        <svg width={length * px + 2} height={Math.max(8, high * px) + 2} aria-hidden className="max-w-full">
          <rect
            x="1"
            y="1"
            width={length * px}
            height={Math.max(8, high * px)}
            fill="none"
            stroke="var(--quiet)"
            strokeDasharray="4 3"
          />
          <rect
            x="1"
            y="1"
            width={free * px}
            height={Math.max(8, high * px)}
            fill="var(--line)"
            stroke="var(--chalk)"
          />
        </svg>
      </span>
      <span className="min-w-60 flex-1">
        <span className="narrow block text-xl group-hover:text-act">
          {item.steelId} · {say(`form.${item.piece.form}`)} {barSize(item.piece, units)} × {print.length(length, units)}
        </span>
        <span className="block text-quiet">
          {item.name} · {print.mass(item.massG, units)} ·{" "}
          {item.freeMm < 0
            ? say("rack.over", { length: print.length(-item.freeMm, units) })
            : say("rack.free", { length: print.length(item.freeMm, units) })}
          {item.count > 1 ? ` · ${say("rack.count", { n: item.count })}` : ""}
          {item.notes ? ` · ${item.notes}` : ""}
        </span>
      </span>
    </button>
  );
}

function BarSheet({ item, onClose }: { item?: Stock; onClose: () => void }) {
  const client = useQueryClient();
  const steels = useSteels();
  const units = useUnits();
  const [form, setForm] = useState<BarForm>((item?.piece.form as BarForm) ?? "flat");
  const t = useTyped(item ? {} : { name: "", steelId: "1084" });
  const done = async (call: () => Promise<unknown>) => {
    const ok = await t.attempt(async () => {
      await call();
      return true;
    });
    if (!ok) return;
    await client.invalidateQueries({ queryKey: ["stock"] });
    onClose();
  };
  const save = () =>
    done(() =>
      item
        ? ask(
            api.PATCH("/api/v1/stock/{id}", {
              params: { path: { id: item.id } },
              body: { version: item.version, edits: t.edits() },
            }),
          )
        : ask(
            api.POST("/api/v1/stock", {
              body: {
                form,
                edits: t.edits(["name", "notes", "steelId", "count", ...barFields[form].map((f) => `piece.${f}`)]),
              },
            }),
          ),
    );
  const piece = item?.piece;
  return (
    <form
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <Typed label={say("rack.name")} {...t.props("name", item?.name ?? "")} text={t.texts.name ?? item?.name ?? ""} />
      <div className="grid grid-cols-2 gap-3">
        {!item && (
          <Pick
            label={say("field.name.bar.form")}
            value={form}
            onPick={(v) => setForm(v as BarForm)}
            options={barForms.map((f) => ({ value: f, label: say(`form.${f}`) }))}
          />
        )}
        {barFields[form].map((f) => (
          <Typed
            key={f}
            label={say(`field.name.bar.${f}`)}
            {...t.props(`piece.${f}`, piece?.[f] ?? 0)}
            text={t.texts[`piece.${f}`] ?? (item ? undefined : "")}
          />
        ))}
        <Typed label={say("rack.howMany")} {...t.props("count", item?.count ?? 1)} />
        <Pick
          label={say("field.name.steelId")}
          value={t.texts.steelId ?? item?.steelId ?? "1084"}
          onPick={(v) => t.put("steelId", v)}
          options={(steels.data ?? []).map((g) => ({
            value: g.id,
            label: g.name,
            note: `${print.temperature(g.forgeLowC, units)}–${print.temperature(g.forgeHighC, units)}`,
          }))}
        />
      </div>
      <Typed
        label={say("rack.notes")}
        {...t.props("notes", item?.notes ?? "")}
        text={t.texts.notes ?? item?.notes ?? ""}
      />
      {t.general && (
        <p role="alert" className="text-ember">
          {t.general}
        </p>
      )}
      <div className="mt-2 flex justify-between">
        {item ? (
          <button
            type="button"
            className="press press-plain"
            onClick={() =>
              void done(() =>
                ask(
                  api.POST("/api/v1/stock/{id}/archive", {
                    params: { path: { id: item.id } },
                    body: { version: item.version },
                  }),
                ),
              )
            }
          >
            <Archive size={16} aria-hidden /> {say("rack.remove")}
          </button>
        ) : (
          <span />
        )}
        <button type="submit" className="press press-act">
          {say("ui.keep")}
        </button>
      </div>
    </form>
  );
}
