import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, ask, Refused } from "../../api/client";
import { useDraftState } from "../../draft/context";
import { say } from "../../text/say";
import { about } from "./words";

/** How long a step took, into the log: the next knife is told by it. */
export function TookField({ step, min, units }: { step: string; min: number; units: string }) {
  const { piece } = useDraftState();
  const client = useQueryClient();
  const [text, setText] = useState("");
  const keep = useMutation({
    mutationFn: () =>
      ask(
        api.POST("/api/v1/pieces/{id}/finished", {
          params: { path: { id: piece.id } },
          body: { texts: {}, took: { [step]: text }, units },
        }),
      ),
    onSuccess: async () => {
      setText("");
      await client.invalidateQueries();
    },
  });
  const wrong =
    keep.error instanceof Refused
      ? (keep.error.problem.fields?.[0]?.message ?? keep.error.problem.detail)
      : keep.error
        ? say("ui.offline")
        : undefined;
  return (
    <form
      className="flex flex-wrap items-center gap-2 text-sm text-quiet"
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        if (text.trim() !== "") keep.mutate();
      }}
    >
      {min > 0 && <span data-took={step}>{say("finish.tookSum", { t: about(min) })}</span>}
      <label className="flex items-center gap-2">
        {say("finish.took")}
        <input
          className="w-16 rounded border border-line bg-plate px-2 py-1"
          inputMode="decimal"
          autoComplete="off"
          data-took-field={step}
          value={text}
          aria-invalid={wrong ? true : undefined}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      {text.trim() !== "" && (
        <button type="submit" className="press" data-took-keep={step} disabled={keep.isPending}>
          {say("finish.tookKeep")}
        </button>
      )}
      {wrong && (
        <span role="alert" className="text-ember">
          {wrong}
        </span>
      )}
    </form>
  );
}
