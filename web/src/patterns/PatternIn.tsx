import { useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useCallback, useState } from "react";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, ask, Refused, sendScan, sendShared } from "../api/client";
import { say } from "../text/say";
import { ending } from "../ui/DropFiles";
import { Sheet } from "../ui/Sheet";

// What is asked of a drawing comes with the first one.
const DrawingForm = lazy(() => import("./DrawingForm").then((m) => ({ default: m.DrawingForm })));

/** Kinds of files that a pattern is read from. */
export const patternEndings = ["json", "svg", "dxf", "png", "jpg", "jpeg"];

/**
 * Patterns that come in from a file: JSON at once, a drawing after its unit is said. What is
 * refused is told, and nothing comes in.
 */
export function usePatternIn(onIn: (id: string) => void) {
  const client = useQueryClient();
  const go = useNavigate();
  const [drawing, setDrawing] = useState<File>();
  const done = useCallback(
    async (made: { id: string; name: string }) => {
      await client.invalidateQueries({ queryKey: ["patterns"] });
      toast(say("piece.patternKept", { name: made.name }));
      onIn(made.id);
    },
    [client, onIn],
  );
  const take = useCallback(
    async (file: File) => {
      const kind = ending(file);
      if (kind === "svg" || kind === "dxf") return setDrawing(file);
      try {
        if (kind === "zip") {
          const piece = await sendShared(file);
          await client.invalidateQueries();
          toast(say("share.cameIn", { name: piece.doc.name }), { duration: 9000 });
          return go(`/pieces/${piece.id}`);
        }
        if (kind !== "json") return await done(await sendScan(file));
        const drawn = { format: "svg", text: "", length: "" } as const;
        const text = await file.text();
        await done(await ask(api.POST("/api/v1/patterns/file", { body: { name: "", format: "json", text, drawn } })));
      } catch (e) {
        const said = e instanceof Refused ? (e.problem.fields?.[0]?.message ?? e.problem.detail) : say("ui.offline");
        toast.error(say("patterns.refused", { file: file.name, said }), { duration: 12000 });
      }
    },
    [done, client, go],
  );
  const sheet = (
    <Sheet open={!!drawing} onClose={() => setDrawing(undefined)} title={say("outline.fileTitle")}>
      {drawing && (
        <Suspense>
          <DrawingForm
            file={drawing}
            named
            onTake={async (drawn, name) => {
              const format = drawn.format;
              const made = await ask(api.POST("/api/v1/patterns/file", { body: { name, format, text: "", drawn } }));
              setDrawing(undefined);
              await done(made);
            }}
          />
        </Suspense>
      )}
    </Sheet>
  );
  return { take, sheet };
}

/** The plain button beside dropping. */
export function FileButton({ accept, label, onFile }: { accept: string; label: string; onFile: (f: File) => void }) {
  return (
    <label className="press cursor-pointer focus-within:outline-2 focus-within:outline-act">
      {label}
      <input
        type="file"
        className="sr-only"
        accept={accept}
        data-testid="file-in"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = ""; // the same file again is a change too
          if (file) onFile(file);
        }}
      />
    </label>
  );
}
