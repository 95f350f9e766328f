import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { Etching } from "../../bench/Etching";
import { useDraft, useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { print } from "../../units/print";

/** What the pattern can be made to show, and what is left on the faces for it. */
export function Wishes() {
  const { piece } = useDraftState();
  const draft = useDraft();
  const units = useUnits();
  const { data } = useQuery({
    queryKey: ["wishes", piece.id, piece.version],
    queryFn: () => ask(api.POST("/api/v1/plan/wishes", { body: piece.doc })),
    placeholderData: (last) => last,
  });
  if (!data || data.length === 0) return null;
  return (
    <ul className="mb-3 grid gap-1" data-testid="wishes" aria-label={say("wish.title")}>
      {data.map((w) => (
        <li key={w.want} className="flex flex-wrap items-center gap-x-3" data-wish={w.want} data-shows={w.shows}>
          <span className="narrow w-32 text-lg">{told(`wish.${w.want}`)}</span>
          {w.shows ? (
            <span className="text-quiet">{say("wish.shows")}</span>
          ) : w.turnsPer100Mm ? (
            <span className="text-quiet">
              {say(w.can ? "wish.turns" : "wish.turnsNot", {
                turns: Math.round(w.turnsPer100Mm * 10) / 10,
                pitch: print.length(Math.round(w.pitchMm ?? 0), units),
              })}
            </span>
          ) : w.can ? (
            <>
              <span>{say("wish.takes", { face: print.thickness(w.faceMm ?? 0, units) })}</span>
              <button
                type="button"
                className="press"
                onClick={() => draft.choose("allowances.faceMm", print.edit("faceMm", w.faceMm ?? 0, units))}
              >
                {say("way.take")}
              </button>
            </>
          ) : (
            <span className="text-quiet">
              {say("wish.cannot", {
                face: print.thickness(w.faceMm ?? 0, units),
                bar: print.thickness(w.barMm ?? 0, units),
              })}
            </span>
          )}
          {w.hollow && <Hollow deepMm={w.hollow.depthMm} wallMm={w.hollow.wallMm} />}
        </li>
      ))}
    </ul>
  );
}

/** The hollow that reaches what lies deeper than the faces: its wall, its face, and one press to take it. */
function Hollow({ deepMm, wallMm }: { deepMm: number; wallMm: number }) {
  const { piece, doc } = useDraftState();
  const draft = useDraft();
  const units = useUnits();
  const [seen, setSeen] = useState(false);
  const face = useQuery({
    queryKey: ["face", piece.id, piece.version, "hollow", deepMm],
    enabled: seen,
    queryFn: () =>
      ask(
        api.POST("/api/v1/plan/face", {
          body: { doc: piece.doc, deeperMm: 0, hollowMm: deepMm, nx: 900, ny: 150 },
        }),
      ),
  });
  return (
    <div className="basis-full pl-3" data-hollow={deepMm}>
      <span className="mr-3">
        {say("wish.hollow", { deep: print.thickness(deepMm, units), wall: print.thickness(wallMm, units) })}
      </span>
      <button type="button" className="press press-plain mr-2" aria-expanded={seen} onClick={() => setSeen(!seen)}>
        {say("wish.hollowSee")}
      </button>
      <button
        type="button"
        className="press"
        onClick={() => draft.choose("finish.hollow", print.edit("deepMm", deepMm, units))}
      >
        {say("way.take")}
      </button>
      {seen && face.data?.front && (
        <Etching
          name="hollow"
          label={say("wish.hollowFace")}
          e={face.data.front}
          lengthMm={doc.request.design.lengthMm}
        />
      )}
    </div>
  );
}
