import { type FormEvent, useEffect, useState } from "react";
import { Refused } from "../api/client";
import { useUnits } from "../api/hooks";
import { say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { Sheet } from "../ui/Sheet";
import { keepPicture } from "./album";
import type { Event } from "./core";
import type { Link } from "./link";
import { wrongWords } from "./words";

type FaultKind = NonNullable<Event["fault"]>["kind"];
const faults: FaultKind[] = ["lip", "crack", "coldShut", "buckle", "gouge", "burnt", "bent", "dropped"];

/** What went wrong and where, or a note; either with a picture. */
export function NoteSheet({
  kind,
  open,
  link,
  onClose,
}: {
  kind: "fault" | "note";
  open: boolean;
  link: Link;
  onClose: () => void;
}) {
  const units = useUnits();
  const [fault, setFault] = useState<FaultKind>("lip");
  const [at, setAt] = useState("");
  const [depth, setDepth] = useState("");
  const [text, setText] = useState("");
  const [picture, setPicture] = useState<File>();
  const [wrong, setWrong] = useState<string>();
  useEffect(() => {
    if (!open) return;
    setAt("");
    setDepth("");
    setText("");
    setPicture(undefined);
    setWrong(undefined);
  }, [open]);
  const keep = async (e: FormEvent) => {
    e.preventDefault();
    const of = (typed: string) =>
      typed.trim() === ""
        ? { reading: { mm: 0 } as { mm?: number }, problems: [] }
        : link.reading("length", typed, "", units);
    const [where, deep] = [of(at), of(depth)];
    const bad = [...where.problems, ...deep.problems][0];
    if (bad) return setWrong(wrongWords({ ...bad, field: "mm" }, units));
    let id: string | undefined;
    if (picture)
      try {
        id = await keepPicture(picture);
      } catch (err) {
        return setWrong(
          err instanceof Refused ? (err.problem.fields?.[0]?.message ?? err.problem.detail) : say("anvil.pictureLater"),
        );
      }
    const said =
      kind === "fault"
        ? {
            kind: "fault" as const,
            fault: { kind: fault, atMm: where.reading?.mm, depthMm: deep.reading?.mm },
            text,
            picture: id,
          }
        : id
          ? { kind: "picture" as const, picture: id, text }
          : { kind: "note" as const, text };
    const problems = link.tell(said);
    const first = problems[0];
    if (first) setWrong(wrongWords(first, units));
    else onClose();
  };
  const field = "w-full rounded border border-line bg-plate px-2 py-2 text-xl";
  return (
    <Sheet open={open} onClose={onClose} title={say(kind === "fault" ? "anvil.fault" : "anvil.note")}>
      <form onSubmit={(e) => void keep(e)} className="grid gap-3">
        {kind === "fault" && (
          <>
            <Pick
              label={say("fault.what")}
              field="fault-kind"
              value={fault}
              options={faults.map((f) => ({ value: f, label: told(`fault.${f}`) }))}
              onPick={(f) => setFault(f as FaultKind)}
              first
            />
            <p className="text-sm text-quiet" data-testid="fault-advice">
              {told(`fault.${fault}.do`)}
            </p>
            <div className="grid grid-cols-2 gap-3">
              <label>
                <span className="mb-0.5 block text-sm text-quiet">{say("fault.at")}</span>
                <input className={field} data-fault="at" value={at} onChange={(e) => setAt(e.target.value)} />
              </label>
              <label>
                <span className="mb-0.5 block text-sm text-quiet">{say("fault.depth")}</span>
                <input className={field} data-fault="depth" value={depth} onChange={(e) => setDepth(e.target.value)} />
              </label>
            </div>
          </>
        )}
        <label>
          <span className="mb-0.5 block text-sm text-quiet">{say("note.text")}</span>
          <textarea
            className={`${field} min-h-24`}
            data-note="text"
            data-first={kind === "note" || undefined}
            value={text}
            maxLength={5000}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        <label>
          <span className="mb-0.5 block text-sm text-quiet">{say("note.picture")}</span>
          <input
            type="file"
            accept="image/png,image/jpeg"
            data-note="picture"
            onChange={(e) => setPicture(e.target.files?.[0])}
          />
        </label>
        {wrong && (
          <p role="alert" className="text-ember">
            {wrong}
          </p>
        )}
        <button type="submit" className="press press-act min-h-12 justify-center text-lg">
          {say("reading.keep")}
        </button>
      </form>
    </Sheet>
  );
}
