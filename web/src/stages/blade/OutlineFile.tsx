import { useState } from "react";
import { api, ask } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraft } from "../../draft/context";
import { say, told } from "../../text/say";
import { Pick } from "../../ui/Pick";
import { Sheet } from "../../ui/Sheet";
import { Typed } from "../../ui/Typed";
import { useTyped } from "../../ui/useTyped";

/** Takes the outline out of a drawing: its scale is asked, and checked against what the file says. */
export function OutlineFile() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)}>
        {say("outline.file")}
      </button>
      <Sheet open={open} onClose={() => setOpen(false)} title={say("outline.fileTitle")}>
        <Form onDone={() => setOpen(false)} />
      </Sheet>
    </>
  );
}

function Form({ onDone }: { onDone: () => void }) {
  const draft = useDraft();
  const units = useUnits();
  const t = useTyped({ length: "", unit: "" });
  const [file, setFile] = useState<File>();
  const [flags, setFlags] = useState({ scale: false, turnEnds: false, turnOver: false });
  const { length = "", unit = "" } = t.texts;
  const unitOf = { "": undefined, mm: "mm", cm: "cm", in: "in" } as const;
  const take = async () => {
    await draft.flush();
    const { id, version } = draft.get().piece;
    const a = await t.attempt(async () => {
      const text = (await file?.text()) ?? "";
      const format = file?.name.toLowerCase().endsWith(".dxf") ? "dxf" : "svg";
      return ask(
        api.POST("/api/v1/pieces/{id}/outline", {
          params: { path: { id } },
          body: { version, file: { format, text, length, units, unit: unitOf[unit as keyof typeof unitOf], ...flags } },
        }),
      );
    });
    if (!a) return;
    draft.replace(a);
    onDone();
  };
  const check = (name: keyof typeof flags, code: string) => (
    <label className="flex min-h-9 items-center gap-2">
      <input type="checkbox" checked={flags[name]} onChange={(e) => setFlags({ ...flags, [name]: e.target.checked })} />
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
      <label className="grid gap-1">
        <span className="text-sm text-quiet">{say("outline.filePick")}</span>
        <input type="file" accept=".svg,.dxf" data-field="file" onChange={(e) => setFile(e.target.files?.[0])} />
      </label>
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
        error={t.errors.unit?.message}
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
      {(t.errors.text || t.general) && (
        <p role="alert" className="text-ember">
          {t.errors.text?.message ?? t.general}
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
