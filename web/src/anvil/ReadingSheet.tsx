import { type FormEvent, useEffect, useState } from "react";
import { useUnits } from "../api/hooks";
import { say, told } from "../text/say";
import { Pick } from "../ui/Pick";
import { Sheet } from "../ui/Sheet";
import { print } from "../units/print";
import type { Quantity, Shown, Step, Wrong } from "./core";
import type { Link } from "./link";
import { wrongWords } from "./words";

const quantities: Quantity[] = [
  "height",
  "thickness",
  "edgeThickness",
  "length",
  "weight",
  "temperature",
  "fuel",
  "rise",
];
const placed = ["height", "thickness", "edgeThickness", "temperature"];
const sized = ["height", "thickness", "edgeThickness", "length"];
const unitOf = (q: Quantity, units: string) =>
  q === "weight" || q === "fuel"
    ? "g"
    : q === "temperature"
      ? print.unit("tempC", units)
      : print.unit("mm", units) || print.unit("xMm", units);

/** What calipers, scale or pyrometer say, with the place where they were put. */
export function ReadingSheet({
  open,
  link,
  step,
  shown,
  onClose,
}: {
  open: boolean;
  link: Link;
  step?: Step;
  shown: Shown;
  onClose: () => void;
}) {
  const units = useUnits();
  const [quantity, setQuantity] = useState<Quantity>("height");
  const [text, setText] = useState("");
  const [at, setAt] = useState("");
  const hottest = shown.view.phase === "out" || shown.view.phase === "fire";
  const [hot, setHot] = useState(hottest);
  const [wrong, setWrong] = useState<Wrong[]>([]);
  // what is read is of the step that was just done, while the piece is in the fire
  const last = shown.view.phase === "out" ? step : link.session.course.steps[shown.view.step - 1];
  // biome-ignore lint/correctness/useExhaustiveDependencies: set up once each time it opens
  useEffect(() => {
    if (!open) return;
    const goal = last?.goal;
    if (goal) setQuantity(goal.measure);
    setAt(goal ? print.edit("atMm", Math.round(goal.atMm * 10) / 10, units) : "");
    setText("");
    setHot(hottest);
    setWrong([]);
  }, [open]);
  const keep = (e: FormEvent) => {
    e.preventDefault();
    const r = link.reading(quantity, text, placed.includes(quantity) ? at : "", units);
    if (!r.reading || r.problems.length > 0) {
      setWrong(r.problems);
      return;
    }
    const reading = hot && sized.includes(quantity) ? { ...r.reading, hot } : r.reading;
    const problems = link.tell({ kind: "reading", reading, step: last?.id });
    setWrong(problems);
    if (problems.length === 0) onClose();
  };
  const of = (...fields: string[]) => {
    const w = wrong.find((x) => fields.some((f) => x.field === f || x.field === `reading.${f}`));
    return w && wrongWords(w, units);
  };
  return (
    <Sheet open={open} onClose={onClose} title={say("anvil.reading")}>
      <form onSubmit={keep} className="grid gap-3">
        <Pick
          label={say("reading.what")}
          value={quantity}
          options={quantities.map((q) => ({ value: q, label: told(`measure.${q}`) }))}
          onPick={(q) => setQuantity(q as Quantity)}
        />
        <Line
          name="text"
          first
          label={`${told(`measure.${quantity}`)}, ${unitOf(quantity, units)}`}
          value={text}
          onChange={setText}
          wrong={of("text", "mm", "massG", "tempC")}
        />
        {placed.includes(quantity) && (
          <Line
            name="at"
            label={`${say("reading.at")}, ${print.unit("atMm", units)}`}
            value={at}
            onChange={setAt}
            wrong={of("atMm")}
          />
        )}
        {sized.includes(quantity) && (
          <Pick
            label={say("reading.state")}
            value={hot ? "hot" : "cold"}
            options={["hot", "cold"].map((v) => ({ value: v, label: told(`reading.${v}`) }))}
            onPick={(v) => setHot(v === "hot")}
          />
        )}
        <button type="submit" className="press press-act min-h-12 justify-center text-lg">
          {say("reading.keep")}
        </button>
      </form>
    </Sheet>
  );
}

function Line({
  name,
  label,
  value,
  onChange,
  wrong,
  first,
}: {
  name: string;
  label: string;
  value: string;
  onChange: (v: string) => void;
  wrong?: string;
  first?: boolean;
}) {
  return (
    <label className="block">
      <span className="mb-0.5 block text-sm text-quiet">{label}</span>
      <input
        className="w-full rounded border border-line bg-plate px-2 py-2 text-xl"
        data-reading={name}
        data-first={first || undefined}
        value={value}
        autoComplete="off"
        aria-invalid={wrong ? true : undefined}
        onChange={(e) => onChange(e.target.value)}
      />
      {wrong && (
        <span role="alert" className="text-sm text-ember">
          {wrong}
        </span>
      )}
    </label>
  );
}
