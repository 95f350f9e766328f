import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, ask, Refused } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraft, useDraftPart } from "../../draft/context";
import { say } from "../../text/say";
import { print } from "../../units/print";
import { useCuts } from "../stock/useAsked";

/** Where the cut stands with the rack: booked, made, or only wanted. */
export function CutState() {
  const draft = useDraft();
  const client = useQueryClient();
  const cuts = useCuts();
  const stockId = useDraftPart((s) => s.piece.doc.stockId);
  const units = useUnits();
  const [wrong, setWrong] = useState("");
  if (!stockId || !cuts.data) return null;
  const set = async (role: string, state: "proposed" | "booked" | "made", length?: string) => {
    setWrong("");
    try {
      await draft.flush();
      await ask(
        api.POST("/api/v1/pieces/{id}/cuts/{role}", {
          params: { path: { id: draft.get().piece.id, role } },
          body: { state, length, units },
        }),
      );
    } catch (e) {
      setWrong(e instanceof Refused ? (e.problem.fields?.[0]?.message ?? e.problem.detail) : say("ui.offline"));
    }
    await client.invalidateQueries({ queryKey: ["cuts"] });
    await client.invalidateQueries({ queryKey: ["stock"] });
  };
  return (
    <div className="mt-3 grid gap-1" data-testid="cut-state">
      {cuts.data.map((c) => (
        <div key={c.role} className="flex flex-wrap items-center gap-2" data-cut={c.role} data-state={c.state}>
          <span className="flex-1">{say(`cut.state.${c.state}`)}</span>
          {c.state === "proposed" && (
            <button type="button" className="press" onClick={() => void set(c.role, "booked")}>
              {say("cut.book")}
            </button>
          )}
          {c.state === "booked" && (
            <button type="button" className="press" onClick={() => void set(c.role, "proposed")}>
              {say("cut.letGo")}
            </button>
          )}
          {c.state !== "made" && (
            <form
              className="flex items-center gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                void set(c.role, "made", String(new FormData(e.currentTarget).get("length") ?? ""));
              }}
            >
              <input
                name="length"
                className="pick w-24"
                data-testid={`really-${c.role}`}
                aria-label={say("cut.really")}
                title={say("cut.really")}
                placeholder={print.length(c.lengthMm, units)}
              />
              <button type="submit" className="press">
                {say("cut.made")}
              </button>
            </form>
          )}
          {c.state === "made" && <span className="tabular-nums">{print.length(c.lengthMm, units)}</span>}
        </div>
      ))}
      {wrong && (
        <p role="alert" className="text-ember">
          {wrong}
        </p>
      )}
      <Link to="/cuts" className="justify-self-start text-sm text-act underline underline-offset-4">
        {say("cuts.open")}
      </Link>
    </div>
  );
}
