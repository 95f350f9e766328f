import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Archive, Download, QrCode } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { api, ask, type Pattern, type Revision } from "../api/client";
import { useUnits } from "../api/hooks";
import { Silhouette } from "../bench/Silhouette";
import { locale, say } from "../text/say";
import { Pick } from "../ui/Pick";
import { Sheet } from "../ui/Sheet";
import { Typed } from "../ui/Typed";
import { useTyped } from "../ui/useTyped";
import { print, type System } from "../units/print";

/** One pattern: its name, tags and size, and its revisions side by side. */
export function PatternSheet({ pattern, onClose }: { pattern?: Pattern; onClose: () => void }) {
  return (
    <Sheet open={!!pattern} onClose={onClose} title={pattern?.name ?? ""} wide>
      {pattern && <Body key={`${pattern.id}${pattern.version}`} pattern={pattern} onClose={onClose} />}
    </Sheet>
  );
}

const scales = ["scale", "scaleLength", "scaleHeight", "scaleThickness"] as const;

function Body({ pattern: p, onClose }: { pattern: Pattern; onClose: () => void }) {
  const client = useQueryClient();
  const t = useTyped();
  const params = { params: { path: { id: p.id } } };
  const done = async (call: () => Promise<unknown>, close = false) => {
    const ok = await t.attempt(async () => {
      await call();
      return true;
    });
    if (!ok) return;
    await client.invalidateQueries({ queryKey: ["patterns"] });
    if (close) onClose();
  };
  const save = () =>
    done(() => ask(api.PATCH("/api/v1/patterns/{id}", { ...params, body: { version: p.version, edits: t.edits() } })));
  return (
    <div className="grid gap-6">
      <div className="flex flex-wrap items-center gap-2">
        <Link data-first className="press press-act" to={`/?new&pattern=${p.id}`}>
          {say("patterns.planThis")}
        </Link>
        {["json", "svg", "dxf"].map((f) => (
          <a key={f} className="press" href={`/api/v1/patterns/${p.id}/export/${f}`} download data-export={f}>
            <Download size={16} aria-hidden /> {f.toUpperCase()}
          </a>
        ))}
        <a
          className="press"
          href={`/api/v1/patterns/${p.id}/export/page`}
          target="_blank"
          rel="noreferrer"
          data-export="page"
        >
          <QrCode size={16} aria-hidden /> {say("patterns.page")}
        </a>
      </div>
      <form
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (t.edits().length) void save();
        }}
      >
        <div className="grid gap-3 sm:grid-cols-2">
          <Typed label={say("field.name.name")} {...t.props("name", p.name)} text={t.texts.name ?? p.name} />
          <Typed
            label={say("patterns.tags")}
            {...t.props("tags", p.tags.join(", "))}
            text={t.texts.tags ?? p.tags.join(", ")}
          />
        </div>
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
          {scales.map((f) => (
            <Typed key={f} label={say(`patterns.${f}`)} {...t.props(f, "")} text={t.texts[f] ?? ""} />
          ))}
        </div>
        {t.general && (
          <p role="alert" className="text-ember">
            {t.general}
          </p>
        )}
        <div className="flex justify-between">
          <button
            type="button"
            className="press press-plain"
            onClick={() =>
              void done(
                () => ask(api.POST("/api/v1/patterns/{id}/archive", { ...params, body: { version: p.version } })),
                true,
              )
            }
          >
            <Archive size={16} aria-hidden /> {say("patterns.remove")}
          </button>
          <button type="submit" className="press press-act" disabled={t.edits().length === 0}>
            {say("patterns.keep")}
          </button>
        </div>
      </form>
      <Compare
        pattern={p}
        onRestore={(n) =>
          void done(() =>
            ask(
              api.POST("/api/v1/patterns/{id}/revisions/{n}/restore", {
                params: { path: { id: p.id, n } },
                body: { version: p.version },
              }),
            ),
          )
        }
      />
    </div>
  );
}

const rows = ["lengthMm", "heightMm", "spineMm", "overallMm", "balanceMm", "massG", "forgedMassG", "barMm"] as const;

/** A figure of a revision, or the difference of two, with its unit. */
function shown(name: (typeof rows)[number], v: number, units: System): string {
  if (name.endsWith("G")) return print.mass(v, units);
  return name === "spineMm" ? print.thickness(v, units) : print.length(v, units);
}

function Compare({ pattern, onRestore }: { pattern: Pattern; onRestore: (n: number) => void }) {
  const units = useUnits();
  const history = useQuery({
    // Not under "patterns": a list that is fetched before the pattern would offer what its version refuses.
    queryKey: ["revisions", pattern.id, pattern.version],
    queryFn: () => ask(api.GET("/api/v1/patterns/{id}/revisions", { params: { path: { id: pattern.id }, query: {} } })),
  });
  const [left, setLeft] = useState<number>();
  const list = history.data ?? [];
  const newest = list[0];
  const other = list.find((r) => r.n === left) ?? list[1] ?? newest;
  if (!newest || !other) return null;
  const scale = Math.min(1.2, 340 / Math.max(...[newest, other].map((r) => r.sketch.at(-1)?.x ?? 1)));
  const name = (r: Revision) =>
    say("patterns.revisionOf", { n: r.n, date: new Date(r.createdAt).toLocaleDateString(locale()) });
  return (
    <section className="grid gap-3" data-testid="compare">
      <h3 className="border-b border-line text-lg">{say("patterns.compare")}</h3>
      {newest.n >= 300 && <p className="text-sm text-quiet">{say("patterns.kept")}</p>}
      <div className="grid gap-4 sm:grid-cols-2">
        {[other, newest].map((r, i) => (
          <div key={i === 0 ? "left" : "right"} className="grid content-between gap-2">
            {i === 0 ? (
              <Pick
                label={say("patterns.against")}
                value={String(r.n)}
                options={list.map((x) => ({ value: String(x.n), label: name(x) }))}
                onPick={(v) => setLeft(Number(v))}
              />
            ) : (
              <p className="text-quiet">{say("patterns.newest", { n: r.n })}</p>
            )}
            <Silhouette stations={r.sketch} scale={scale} label={name(r)} />
          </div>
        ))}
      </div>
      <table className="narrow w-full text-[17px]">
        <thead>
          <tr className="small-caps text-right">
            <th scope="col" className="text-left">
              {say("patterns.figure")}
            </th>
            <th scope="col">{say("patterns.revision", { n: other.n })}</th>
            <th scope="col">{say("patterns.revision", { n: newest.n })}</th>
            <th scope="col">{say("patterns.difference")}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((f) => {
            const by = newest.measures[f] - other.measures[f];
            const none = shown(f, Math.abs(by), units) === shown(f, 0, units);
            return (
              <tr key={f} className="border-t border-line text-right" data-compare={f}>
                <th scope="row" className="text-left font-medium">
                  {say(`measure.${f}`, {
                    bar: `${print.length(newest.measures.barWidthMm, units)} × ${print.length(newest.measures.barThicknessMm, units)}`,
                  })}
                </th>
                <td className="text-quiet">{shown(f, other.measures[f], units)}</td>
                <td>{shown(f, newest.measures[f], units)}</td>
                <td className={none ? "text-quiet" : "text-act"}>
                  {none ? "–" : `${by > 0 ? "+" : "−"}${shown(f, Math.abs(by), units)}`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {other.n !== newest.n && (
        <button type="button" className="press justify-self-start" onClick={() => onRestore(other.n)}>
          {say("patterns.restore", { n: other.n })}
        </button>
      )}
    </section>
  );
}
