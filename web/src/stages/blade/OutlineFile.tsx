import { useState } from "react";
import { api, ask } from "../../api/client";
import { useDraft } from "../../draft/context";
import { DrawingForm } from "../../patterns/DrawingForm";
import { say } from "../../text/say";
import { Sheet } from "../../ui/Sheet";

/** Takes the outline out of a drawing: its scale is asked, and checked against what the file says. */
export function OutlineFile() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)}>
        {say("outline.file")}
      </button>
      <OutlineSheet open={open} onClose={() => setOpen(false)} />
    </>
  );
}

/** The sheet by itself, for a file that was dropped on the bench. */
export function OutlineSheet({ open, file, onClose }: { open: boolean; file?: File; onClose: () => void }) {
  const draft = useDraft();
  return (
    <Sheet open={open} onClose={onClose} title={say("outline.fileTitle")}>
      <DrawingForm
        file={file}
        onTake={async (drawn) => {
          await draft.flush();
          const { id, version } = draft.get().piece;
          const a = await ask(
            api.POST("/api/v1/pieces/{id}/outline", {
              params: { path: { id } },
              body: { version, file: drawn },
            }),
          );
          draft.replace(a);
          onClose();
        }}
      />
    </Sheet>
  );
}
