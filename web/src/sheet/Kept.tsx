import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask, Refused, type SheetPlan, type Stock } from "../api/client";
import { count, say } from "../text/say";

/** What is laid stays with its sheet until it is sawn out of it. */
export function Kept({ item, plan, onGone }: { item: Stock; plan?: SheetPlan; onGone: () => void }) {
  const [wrong, setWrong] = useState("");
  const [told, setTold] = useState("");
  const queries = useQueryClient();
  const version = item.version;
  const path = { params: { path: { id: item.id } } };
  const go = async (what: () => Promise<unknown>, then?: () => void) => {
    setWrong("");
    setTold("");
    try {
      await what();
      then?.();
    } catch (e) {
      if (e instanceof Refused) setWrong(e.problem.fields?.map((f) => f.message).join(" ") || e.problem.detail);
      else setWrong(say("ui.offline"));
    }
    await queries.invalidateQueries({ queryKey: ["stock"] });
  };
  const forgetOrSaw = (what: "sawn" | "forget") => async () => {
    const body = { ...path, body: { version } };
    return what === "sawn"
      ? await ask(api.POST("/api/v1/stock/{id}/layout/sawn", body))
      : await ask(api.POST("/api/v1/stock/{id}/layout/forget", body));
  };
  const sound = plan && plan.layout.placed.length > 0 && plan.faults.length === 0;
  const n = item.layout?.held?.length ?? 0;
  return (
    <section className="grid gap-2" data-testid="sheet-kept">
      {item.layout && <p>{say("sheet.kept", { names: item.layout.names.join(", ") })}</p>}
      <div className="no-print flex flex-wrap gap-2">
        {sound && (
          <button
            type="button"
            className="press"
            data-testid="sheet-keep"
            onClick={() =>
              void go(() =>
                ask(
                  api.PUT("/api/v1/stock/{id}/layout", {
                    ...path,
                    body: { version, order: { ...plan.order, held: plan.layout.placed } },
                  }),
                ),
              )
            }
          >
            {say("sheet.keep")}
          </button>
        )}
        {item.layout && (
          <>
            <button
              type="button"
              className="press press-act"
              data-testid="sheet-sawn"
              onClick={() =>
                void go(forgetOrSaw("sawn"), () => {
                  setTold(count("sheet.sawnNote", n));
                  onGone();
                })
              }
            >
              {say("sheet.sawn")}
            </button>
            <button
              type="button"
              className="press"
              data-testid="sheet-forget"
              onClick={() => void go(forgetOrSaw("forget"))}
            >
              {say("sheet.forget")}
            </button>
          </>
        )}
      </div>
      {told && <p role="status">{told}</p>}
      {wrong && (
        <p role="alert" className="text-ember">
          {wrong}
        </p>
      )}
    </section>
  );
}
