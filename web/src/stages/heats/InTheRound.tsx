import { useQuery } from "@tanstack/react-query";
import { lazy, memo, Suspense, useState } from "react";
import { api, ask } from "../../api/client";
import { useDraftPart } from "../../draft/context";
import { say } from "../../text/say";
import { Sheet } from "../../ui/Sheet";

const Solid = lazy(() => import("./Solid"));

/** The piece in the round, at the heat that is looked at. */
export const InTheRound = memo(function InTheRound({ heat }: { heat: number }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)} data-testid="in-the-round">
        {say("solid.open")}
      </button>
      <Sheet open={open} onClose={() => setOpen(false)} title={say("solid.title")} wide>
        {open && <Loaded heat={heat} />}
      </Sheet>
    </>
  );
});

function Loaded({ heat }: { heat: number }) {
  const piece = useDraftPart((s) => s.piece);
  const solid = useQuery({
    queryKey: ["solid", piece.id, piece.version, heat],
    queryFn: () => ask(api.GET("/api/v1/pieces/{id}/solid", { params: { path: { id: piece.id }, query: { heat } } })),
  });
  if (!solid.data) return <p className="text-quiet">{say("ui.loading")}</p>;
  return (
    <Suspense fallback={<p className="text-quiet">{say("ui.loading")}</p>}>
      <Solid solid={solid.data} heat={heat} />
    </Suspense>
  );
}
