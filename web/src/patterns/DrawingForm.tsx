import { useState } from "react";
import type { OutlineFile } from "../api/client";
import { useUnits } from "../api/hooks";
import { say, told } from "../text/say";
import { ending } from "../ui/DropFiles";
import { Pick } from "../ui/Pick";
import { Typed } from "../ui/Typed";
import { useTyped } from "../ui/useTyped";

const unitOf = { "": undefined, mm: "mm", cm: "cm", in: "in" } as const;

/** What is asked of a drawing that an outline is taken from: which file, its unit or length, and how it lies. */
export function DrawingForm({
  file: dropped,
  named,
  onTake,
}: {
  file?: File;
  named?: boolean;
  onTake: (drawn: OutlineFile, name: string) => Promise<void>;
}) {
  const units = useUnits();
  const t = useTyped({ length: "", unit: "", name: dropped?.name.replace(/\.[^.]*$/, "") ?? "" });
  const [file, setFile] = useState(dropped);
  const [flags, setFlags] = useState({ scale: false, turnEnds: false, turnOver: false });
  const { length = "", unit = "", name = "" } = t.texts;
  const take = () =>
    t.attempt(async () => {
      if (!file) return;
      const format = ending(file) === "dxf" ? "dxf" : "svg";
      const text = await file.text();
      await onTake(
        { format, text, length, units, unit: unitOf[unit as keyof typeof unitOf], ...flags },
        name.trim() || file.name.replace(/\.[^.]*$/, ""),
      );
    });
  const check = (flag: keyof typeof flags, code: string) => (
    <label className="flex min-h-9 items-center gap-2">
      <input type="checkbox" checked={flags[flag]} onChange={(e) => setFlags({ ...flags, [flag]: e.target.checked })} />
      {told(code)}
    </label>
  );
  return (
    <form
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void take();
      }}
    >
      <p className="text-quiet">{say("outline.fileHelp")}</p>
      {dropped ? (
        <p className="narrow text-lg">{dropped.name}</p>
      ) : (
        <label className="grid gap-1">
          <span className="text-sm text-quiet">{say("outline.filePick")}</span>
          <input type="file" accept=".svg,.dxf" data-field="file" onChange={(e) => setFile(e.target.files?.[0])} />
        </label>
      )}
      {named && <Typed label={say("field.name.name")} {...t.props("name", "")} text={name} />}
      <Pick
        label={say("outline.fileUnit")}
        field="unit"
        value={unit || "file"}
        options={[
          { value: "file", label: say("outline.unitFile") },
          { value: "mm", label: say("outline.unitMm") },
          { value: "cm", label: say("outline.unitCm") },
          { value: "in", label: say("outline.unitIn") },
        ]}
        onPick={(u) => t.put("unit", u === "file" ? "" : u)}
        error={t.errorOf("unit")?.message}
      />
      <Typed
        label={say("outline.fileLength")}
        {...t.props("length", undefined)}
        text={length}
        hint={say("outline.fileLengthHint")}
      />
      <div>
        {check("turnEnds", "outline.turnEnds")}
        {check("turnOver", "outline.turnOver")}
        {check("scale", "outline.fileScale")}
      </div>
      {(t.errorOf("text") || t.general) && (
        <p role="alert" className="text-ember">
          {t.errorOf("text")?.message ?? t.general}
        </p>
      )}
      <button
        type="submit"
        className="press press-act justify-self-end"
        disabled={!file}
        title={file ? undefined : say("outline.fileNone")}
      >
        {say("outline.fileTake")}
      </button>
    </form>
  );
}
