import { useState } from "react";
import { api, ask } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraft, useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { Sheet } from "../../ui/Sheet";
import { Typed } from "../../ui/Typed";
import { useTyped } from "../../ui/useTyped";
import { print } from "../../units/print";

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
  const { doc } = useDraftState();
  const t = useTyped();
  const [file, setFile] = useState<File>();
  const [flags, setFlags] = useState({ scale: false, turnEnds: false, turnOver: false });
  const length = t.texts.length ?? print.edit("lengthMm", doc.request.design.lengthMm, units);
  const take = async () => {
    await draft.flush();
    const { id, version } = draft.get().piece;
    const a = await t.attempt(async () => {
      const text = (await file?.text()) ?? "";
      const format = file?.name.toLowerCase().endsWith(".dxf") ? "dxf" : "svg";
      return ask(
        api.POST("/api/v1/pieces/{id}/outline", {
          params: { path: { id } },
          body: { version, file: { format, text, length, units, ...flags } },
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
      <Typed label={say("outline.fileLength")} {...t.props("length", doc.request.design.lengthMm)} text={length} />
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
