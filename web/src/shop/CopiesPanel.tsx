import { Download, Save, Upload } from "lucide-react";
import { type ReactNode, useRef, useState } from "react";
import { type Copy, Refused, sendShop } from "../api/client";
import { useCopies, useMakeCopy, usePutBack } from "../api/hooks";
import { locale, say, told } from "../text/say";
import { Sheet } from "../ui/Sheet";

const when = (at: string) => new Date(at).toLocaleString(locale(), { dateStyle: "medium", timeStyle: "short" });
const has = (c: Copy) => say("copies.has", { pieces: c.pieces, patterns: c.patterns, items: c.items });

/** Copies of the whole file: what is in each, one made now, one put back. The fields are where they lie. */
export function CopiesPanel({ fields }: { fields: ReactNode }) {
  const copies = useCopies();
  const make = useMakeCopy();
  const [asked, setAsked] = useState<Copy>();
  return (
    <section data-testid="copies">
      <h2 className="mt-8 mb-3 text-2xl">{say("copies.title")}</h2>
      <div className="grid max-w-5xl gap-8 lg:grid-cols-2">
        <div>
          {copies.data && (
            <p className="mb-2 break-words">
              {say("copies.data", { path: copies.data.data, folder: copies.data.folder })}
            </p>
          )}
          <p className="mb-3 text-quiet">{say("copies.note")}</p>
          <div className="mb-4 grid grid-cols-2 gap-x-4 gap-y-2">{fields}</div>
          <button type="button" className="press press-act" disabled={make.isPending} onClick={() => make.mutate()}>
            <Save size={16} aria-hidden /> {say("copies.now")}
          </button>
          <p role="status" className="mt-2 min-h-6 break-words">
            {make.data && say("copies.made", { name: make.data.name })}
          </p>
          {(make.error ?? copies.error) && (
            <p role="alert" className="text-ember">
              {(make.error ?? copies.error)?.message || say("ui.offline")}
            </p>
          )}
          {copies.data?.failed && (
            <p role="alert" className="text-ember">
              {say("copies.failed", { detail: copies.data.failed })}
            </p>
          )}
        </div>
        <div className="min-w-0">
          {copies.data?.items.length === 0 && <p className="text-quiet">{say("copies.none")}</p>}
          <ul className="max-h-96 overflow-y-auto">
            {copies.data?.items.map((c) => (
              <li key={c.name} className="flex items-start justify-between gap-3 border-b border-line py-2">
                <div className="min-w-0">
                  <p>
                    {when(c.at)} <span className="text-quiet">{told(`copies.why.${c.why}`)}</span>
                  </p>
                  <p className="text-sm text-quiet">
                    {c.wrong || `${has(c)} · ${say("copies.size", { mb: (c.bytes / 1e6).toFixed(1) })}`}
                  </p>
                </div>
                {!c.wrong && (
                  <button type="button" className="press shrink-0" onClick={() => setAsked(c)}>
                    {say("copies.putBack")}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </div>
      </div>
      <Whole />
      {asked && <Asked copy={asked} onClose={() => setAsked(undefined)} />}
    </section>
  );
}

/** The whole shop as open files: out, and in again. */
function Whole() {
  const file = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const put = async (f: File | undefined) => {
    if (!f) return;
    setBusy(true);
    setWrong("");
    try {
      await sendShop(f);
      location.reload();
    } catch (e) {
      setWrong(e instanceof Refused ? (e.problem.fields?.[0]?.message ?? e.problem.detail) : say("ui.offline"));
      setBusy(false);
    }
  };
  return (
    <section className="relative mt-6 max-w-5xl" data-testid="whole">
      <h3 className="mb-2 text-xl">{say("archive.title")}</h3>
      <p className="mb-3 text-quiet">{say("archive.note")}</p>
      <div className="flex flex-wrap gap-2">
        <a className="press" href="/api/v1/archive" download>
          <Download size={16} aria-hidden /> {say("archive.out")}
        </a>
        <button type="button" className="press" disabled={busy} onClick={() => file.current?.click()}>
          <Upload size={16} aria-hidden /> {say("archive.in")}
        </button>
        <input
          ref={file}
          type="file"
          accept=".zip,application/zip"
          className="sr-only"
          aria-label={say("archive.in")}
          tabIndex={-1}
          onChange={(e) => {
            void put(e.target.files?.[0]);
            e.target.value = "";
          }}
        />
      </div>
      {wrong && (
        <p role="alert" className="mt-2 break-words text-ember">
          {wrong}
        </p>
      )}
    </section>
  );
}

/** Asks before a copy takes the place of what is there. */
function Asked({ copy, onClose }: { copy: Copy; onClose: () => void }) {
  const put = usePutBack();
  return (
    <Sheet open onClose={onClose} title={say("copies.ask", { at: when(copy.at) })}>
      <p className="mb-4">{say("copies.askNote", { has: has(copy) })}</p>
      {put.error && (
        <p role="alert" className="mb-3 text-ember">
          {put.error.message || say("ui.offline")}
        </p>
      )}
      <div className="flex gap-2">
        <button
          type="button"
          className="press press-act"
          disabled={put.isPending}
          onClick={() => put.mutate(copy.name, { onSuccess: () => location.reload() })}
        >
          {say("copies.yes")}
        </button>
        <button type="button" className="press" onClick={onClose}>
          {say("copies.no")}
        </button>
      </div>
    </Sheet>
  );
}
