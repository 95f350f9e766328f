import { Copy } from "lucide-react";
import { useNavigate } from "react-router";
import { api, ask } from "../api/client";
import { useDraftState } from "../draft/context";
import { say } from "../text/say";
import { mayChange, useMe } from "./me";

/** A shared piece of another: it is looked at, and a copy may be taken. */
export function Others() {
  const { piece } = useDraftState();
  const me = useMe();
  const go = useNavigate();
  if (mayChange(me, piece.doc.owner)) return null;
  const copy = async () => {
    const made = await ask(
      api.POST("/api/v1/pieces/{id}/duplicate", { params: { path: { id: piece.id } }, body: { name: "" } }),
    );
    go(`/pieces/${made.piece.id}`);
  };
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-3 border-b border-line bg-raised px-4 py-2"
      data-others
    >
      <span className="flex-1">{say("school.notYours")}</span>
      <button type="button" className="press press-act" onClick={() => void copy()}>
        <Copy size={16} aria-hidden /> {say("pieces.duplicateShort")}
      </button>
    </div>
  );
}
