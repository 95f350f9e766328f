import { Trash2 } from "lucide-react";
import { useState } from "react";
import { Refused, type Stock, sendKept } from "../api/client";
import { useUnits } from "../api/hooks";
import type { Item } from "../rack/useItem";
import { locale, say, told } from "../text/say";
import { Group } from "../ui/Group";
import { Pick } from "../ui/Pick";
import { print } from "../units/print";

const kinds = ["weld", "split", "layers", "salvaged", "note"] as const;

/** What happened as the billet was welded, and the picture of its test etch. */
export function BilletLog({ item, edit }: { item: Stock; edit: Item }) {
  const units = useUnits();
  const [kind, setKind] = useState<string>("weld");
  const [much, setMuch] = useState("");
  const [words, setWords] = useState("");
  const [wrong, setWrong] = useState("");
  const measured = kind === "split" || kind === "salvaged" || kind === "layers";
  const add = async () => {
    if (!(await edit.save("billet.log", `${kind}; ${measured ? much : ""}; ${words}`))) return;
    setMuch("");
    setWords("");
  };
  const etch = async (file: File) => {
    setWrong("");
    try {
      await edit.save("billet.etch", (await sendKept(file)).name);
    } catch (e) {
      setWrong(e instanceof Refused ? (e.problem.fields?.[0]?.message ?? e.problem.detail) : say("ui.offline"));
    }
  };
  const log = item.welded ?? [];
  return (
    <Group title={say("billet.log")}>
      <ol className="col-span-2 grid gap-1" data-testid="billet-log">
        {log.length === 0 && <li className="text-quiet">{say("billet.logEmpty")}</li>}
        {log.map((w, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: entries are named by their place
          <li key={i} className="flex items-baseline gap-2" data-entry={w.kind}>
            <span className="mr-auto">
              <span className="text-quiet">{new Date(w.at).toLocaleDateString(locale())}</span>{" "}
              {told(`billet.log.${w.kind}`)}
              {w.layers ? `, ${w.layers}` : ""}
              {w.mm ? `, ${print.length(w.mm, units)}` : ""}
              {w.words ? `: ${w.words}` : ""}
            </span>
            <button
              type="button"
              className="press press-plain min-h-9 !px-2"
              aria-label={say("billet.logRemove")}
              onClick={() => void edit.save("billet.log.delete", String(i))}
            >
              <Trash2 size={16} aria-hidden />
            </button>
          </li>
        ))}
      </ol>
      <Pick
        label={say("billet.logKind")}
        field="billet-log-kind"
        value={kind}
        options={kinds.map((k) => ({ value: k, label: told(`billet.log.${k}`) }))}
        onPick={setKind}
      />
      {measured && (
        <label>
          <span className="mb-0.5 block text-sm text-quiet">
            {kind === "layers" ? say("billet.logLost") : say("billet.logLength")}
          </span>
          <input
            className="pick w-full"
            data-testid="log-much"
            value={much}
            onChange={(e) => setMuch(e.target.value)}
          />
        </label>
      )}
      <label className="col-span-2">
        <span className="mb-0.5 block text-sm text-quiet">{say("billet.logSaid")}</span>
        <input
          className="pick w-full"
          data-testid="log-words"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
      </label>
      {edit.errors["billet.log"] && (
        <p role="alert" className="col-span-2 text-sm text-ember">
          {edit.errors["billet.log"].message}
        </p>
      )}
      <button type="button" className="press justify-self-start" data-testid="log-add" onClick={() => void add()}>
        {say("billet.logAdd")}
      </button>
      <div className="col-span-2">
        {item.etchId && (
          <img
            src={`/api/v1/pictures/${item.etchId}`}
            alt={say("billet.etch")}
            className="mb-2 max-h-48 w-full object-contain"
            data-testid="etch"
          />
        )}
        <label className="press inline-flex cursor-pointer focus-within:outline-2 focus-within:outline-act">
          {say(item.etchId ? "billet.etchOther" : "billet.etchAdd")}
          <input
            type="file"
            accept="image/png,image/jpeg"
            className="sr-only"
            data-testid="etch-file"
            onChange={(e) => {
              const f = e.target.files?.[0];
              if (f) void etch(f);
              e.target.value = "";
            }}
          />
        </label>
        {item.etchId && (
          <button type="button" className="press press-plain ml-2" onClick={() => void edit.save("billet.etch", "")}>
            {say("billet.etchGone")}
          </button>
        )}
        {wrong && (
          <p role="alert" className="text-sm text-ember">
            {wrong}
          </p>
        )}
      </div>
    </Group>
  );
}
