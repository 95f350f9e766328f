import { useQueryClient } from "@tanstack/react-query";
import { BatteryLow, Plus, Trash2 } from "lucide-react";
import { type FormEvent, useState } from "react";
import { api, ask, Refused } from "../api/client";
import { useAccess } from "../api/hooks";
import type { components } from "../api/schema";
import { locale, say, told } from "../text/say";
import { Pick } from "../ui/Pick";

type To = components["schemas"]["AccessTo"];
type Kind = components["schemas"]["NewAccess"]["kind"];
const kinds: Kind[] = ["caliper", "pyrometer", "scale", "pedal"];
const when = (at: string) => new Date(at).toLocaleString(locale(), { dateStyle: "medium", timeStyle: "short" });

/** Instruments that report and screens that are paired: let in, named, let in no more. */
export function AccessPanel() {
  const client = useQueryClient();
  const all = useAccess();
  const [kind, setKind] = useState<Kind>("caliper");
  const [name, setName] = useState("");
  const [given, setGiven] = useState<{ name: string; key: string }>();
  const [wrong, setWrong] = useState("");
  const act = async (f: () => Promise<unknown>) => {
    setWrong("");
    try {
      await f();
    } catch (e) {
      setWrong(e instanceof Refused ? (e.problem.fields?.[0]?.message ?? e.problem.detail) : say("ui.offline"));
    }
    await client.invalidateQueries({ queryKey: ["access"] });
  };
  const add = (e: FormEvent) => {
    e.preventDefault();
    void act(async () => {
      const body = { kind, name: name || told(`access.kind.${kind}`) };
      const a = await ask(api.POST("/api/v1/access", { body }));
      setGiven({ name: a.name, key: a.key });
      setName("");
    });
  };
  return (
    <section data-testid="access">
      <h2 className="mt-8 mb-3 text-2xl">{say("access.title")}</h2>
      <p className="mb-3 max-w-3xl text-quiet">{say("access.note")}</p>
      <form onSubmit={add} className="flex flex-wrap items-end gap-3">
        <Pick
          field="access.kind"
          label={say("access.kind")}
          value={kind}
          options={kinds.map((k) => ({ value: k, label: told(`access.kind.${k}`) }))}
          onPick={(v) => setKind(v as Kind)}
        />
        <label>
          <span className="mb-0.5 block text-sm text-quiet">{say("access.name")}</span>
          <input
            className="pick w-56"
            data-testid="access-name"
            value={name}
            placeholder={told(`access.kind.${kind}`)}
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <button type="submit" className="press" data-testid="access-add">
          <Plus size={16} aria-hidden /> {say("access.add")}
        </button>
      </form>
      {wrong && (
        <p role="alert" className="mt-2 text-ember">
          {wrong}
        </p>
      )}
      {given && (
        <p className="mt-3 border-l-2 border-act pl-3" role="status">
          {given.name}. {say("access.key")}{" "}
          <code className="break-all select-all" data-testid="access-key">
            {given.key}
          </code>
        </p>
      )}
      {all.data?.length === 0 && <p className="mt-3 text-quiet">{say("access.none")}</p>}
      <ul className="mt-3 grid max-w-4xl">
        {all.data?.map((a) => (
          <One
            key={a.id}
            a={a}
            rename={(n) =>
              act(() => ask(api.PATCH("/api/v1/access/{id}", { params: { path: { id: a.id } }, body: { name: n } })))
            }
            revoke={() => act(() => ask(api.DELETE("/api/v1/access/{id}", { params: { path: { id: a.id } } })))}
          />
        ))}
      </ul>
    </section>
  );
}

function One({ a, rename, revoke }: { a: To; rename: (name: string) => void; revoke: () => void }) {
  const l = a.last;
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line py-2" data-access={a.kind}>
      <span className="w-28 text-quiet">{told(`access.kind.${a.kind}`)}</span>
      <input
        className="pick w-52"
        aria-label={say("access.rename")}
        defaultValue={a.name}
        readOnly={a.kind === "student" || a.kind === "teacher"}
        onBlur={(e) => e.target.value !== a.name && rename(e.target.value)}
        onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
      />
      <span className="min-w-40 flex-1 text-sm text-quiet">
        {a.seenAt ? say("access.seen", { when: when(a.seenAt) }) : say("access.never")}
        {l?.line.unit && ` · ${say("access.last", { value: l.line.value ?? 0, unit: l.line.unit })}`}
        {l && (
          <span className={l.taken ? "" : "text-ember"}>
            {" "}
            · {l.taken ? say("access.taken") : say("access.notTaken", { why: l.fields?.[0]?.message ?? "" })}
          </span>
        )}
        {l?.line.battery !== undefined && l.line.battery > 0 && (
          <span className={l.line.battery < 0.15 ? "text-ember" : ""}>
            {" "}
            {l.line.battery < 0.15 && <BatteryLow size={14} className="inline" aria-hidden />}{" "}
            {say("access.battery", { share: Math.round(l.line.battery * 100) })}
          </span>
        )}
      </span>
      <button type="button" className="press" onClick={revoke} data-testid="access-revoke">
        <Trash2 size={16} aria-hidden /> {say("access.revoke")}
      </button>
    </li>
  );
}
