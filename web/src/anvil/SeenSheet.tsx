import { type FormEvent, useEffect, useState } from "react";
import { Refused } from "../api/client";
import { useUnits } from "../api/hooks";
import { treatName } from "../stages/harden/steps";
import { say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { Sheet } from "../ui/Sheet";
import { print } from "../units/print";
import { keepPicture } from "./album";
import type { Shown } from "./core";
import type { Link } from "./link";
import { wrongWords } from "./words";

const all = ["temp", "bath", "time", "warp", "file", "grain", "hard"] as const;
type Sight = (typeof all)[number];
const unitOf = (s: Sight, quick: boolean, units: string): string =>
  s === "temp" || s === "bath"
    ? print.unit("tempC", units)
    : s === "warp"
      ? print.unit("xMm", units)
      : s === "time"
        ? quick
          ? "s"
          : "min"
        : "";

/** What was seen of a step of hardening or tempering: that in hand, or the one just done. */
export function SeenSheet({
  open,
  link,
  shown,
  onClose,
}: {
  open: boolean;
  link: Link;
  shown: Shown;
  onClose: () => void;
}) {
  const units = useUnits();
  const steps = link.session.course.treatment ?? [];
  const at = shown.view.treating ? (shown.view.treat ?? 0) : steps.length - 1;
  const [of, setOf] = useState("");
  const [typed, setTyped] = useState<Partial<Record<Sight, string>>>({});
  const [text, setText] = useState("");
  const [picture, setPicture] = useState<File>();
  const [wrong, setWrong] = useState<{ field: string; message: string }>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: set up once each time it opens
  useEffect(() => {
    if (!open) return;
    setOf(steps[at]?.id ?? "");
    setTyped({});
    setText("");
    setPicture(undefined);
    setWrong(undefined);
  }, [open]);
  const step = steps.find((s) => s.id === of);
  const quick = (step?.countS ?? 0) > 0 && (step?.countS ?? 0) < 120;
  const sights = all.filter((s) => step?.sees.includes(s));
  const keep = async (e: FormEvent) => {
    e.preventDefault();
    const read = link.seen(typed, quick, units);
    const first = read.problems[0];
    if (first) return setWrong({ field: first.field, message: wrongWords(first, units) });
    let id: string | undefined;
    if (picture)
      try {
        id = await keepPicture(picture);
      } catch (err) {
        return setWrong({
          field: "",
          message: err instanceof Refused ? err.problem.detail : say("anvil.pictureLater"),
        });
      }
    const problems = link.tell({ kind: "seen", step: of, seen: read.seen, text: text || undefined, picture: id });
    const refused = problems[0];
    if (refused) setWrong({ field: refused.field, message: wrongWords(refused, units) });
    else onClose();
  };
  const field = "w-full rounded border border-line bg-plate px-2 py-2 text-xl";
  const message = (s: Sight) =>
    wrong && (wrong.field === s || wrong.field.startsWith(`seen.${fieldOf[s]}`)) ? wrong.message : undefined;
  return (
    <Sheet open={open} onClose={onClose} title={say("anvil.sawIt")}>
      <form onSubmit={(e) => void keep(e)} className="grid gap-3" data-testid="seen-form">
        <Pick
          label={say("seen.of")}
          field="seen-of"
          value={of}
          options={steps.map((s) => ({ value: s.id, label: treatName(s.id) }))}
          onPick={setOf}
        />
        {sights.map((s, i) =>
          s === "file" ? (
            <Pick
              key={s}
              label={told("see.file")}
              field="seen-file"
              value={typed.file ?? "none"}
              options={["none", "skates", "bites"].map((v) => ({ value: v, label: told(`file.${v}`) }))}
              onPick={(v) => setTyped({ ...typed, file: v === "none" ? "" : v })}
            />
          ) : (
            <label key={s}>
              <span className="mb-0.5 block text-sm text-quiet">
                {[told(`see.${s}`), unitOf(s, quick, units)].filter(Boolean).join(", ")}
              </span>
              <input
                className={field}
                data-seen={s}
                data-first={i === 0 || undefined}
                autoComplete="off"
                value={typed[s] ?? ""}
                aria-invalid={message(s) ? true : undefined}
                onChange={(e) => setTyped({ ...typed, [s]: e.target.value })}
              />
              {message(s) && (
                <span role="alert" className="text-sm text-ember">
                  {message(s)}
                </span>
              )}
            </label>
          ),
        )}
        <label>
          <span className="mb-0.5 block text-sm text-quiet">{say("note.text")}</span>
          <textarea
            className={`${field} min-h-20`}
            data-seen="text"
            value={text}
            maxLength={5000}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        <label>
          <span className="mb-0.5 block text-sm text-quiet">{say("note.picture")}</span>
          <input type="file" accept="image/png,image/jpeg" onChange={(e) => setPicture(e.target.files?.[0])} />
        </label>
        {wrong && !all.some((s) => message(s)) && (
          <p role="alert" className="text-ember">
            {wrong.message}
          </p>
        )}
        <button type="submit" className="press press-act min-h-12 justify-center text-lg">
          {say("reading.keep")}
        </button>
      </form>
    </Sheet>
  );
}

const fieldOf: Record<Sight, string> = {
  temp: "tempC",
  bath: "bathC",
  time: "timeS",
  warp: "warpMm",
  file: "file",
  grain: "grainNumber",
  hard: "hrc",
};
