import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { api, ask } from "../../api/client";
import { useStock, useUnits } from "../../api/hooks";
import { Etching } from "../../bench/Etching";
import { useDraft, useDraftState } from "../../draft/context";
import { say } from "../../text/say";
import { Pick } from "../../ui/Pick";
import { Sheet } from "../../ui/Sheet";
import { print } from "../../units/print";

import { Wishes } from "./Wishes";

const FaceRound = lazy(() => import("./FaceRound"));

const stepMm = 0.05;
/** While the slider is dragged a coarse face is enough; once it rests, a fine one. */
const coarse: [number, number] = [300, 50];
const fine: [number, number] = [1200, 200];
const restMs = 60;

/** Both faces of a blade of a patterned bar as they etch, as deep as they will be ground. */
export function FaceDrawn() {
  const { piece, doc } = useDraftState();
  const draft = useDraft();
  const units = useUnits();
  const [steps, setSteps] = useState(0);
  const [bevels, setBevels] = useState<"forged" | "ground" | "both">("forged");
  const [round, setRound] = useState(false);
  const ground = bevels === "ground";
  const [rests, setRests] = useState(true);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it rests anew after each change
  useEffect(() => {
    setRests(false);
    const t = setTimeout(() => setRests(true), restMs);
    return () => clearTimeout(t);
  }, [steps, bevels]);
  const deeperMm = steps * stepMm;
  const [nx, ny] = rests ? fine : coarse;
  const face = useQuery({
    queryKey: ["face", piece.id, piece.version, deeperMm, ground, nx],
    queryFn: () =>
      ask(
        api.POST("/api/v1/plan/face", {
          body: { doc: piece.doc, deeperMm, ground, nx: nx ?? 300, ny: ny ?? 50 },
        }),
      ),
    placeholderData: (last) => last,
  });
  const other = useQuery({
    queryKey: ["face", piece.id, piece.version, deeperMm, true, nx],
    enabled: bevels === "both",
    queryFn: () =>
      ask(
        api.POST("/api/v1/plan/face", {
          body: { doc: piece.doc, deeperMm, ground: true, nx: nx ?? 300, ny: ny ?? 50 },
        }),
      ),
    placeholderData: (last) => last,
  });
  const solid = useQuery({
    queryKey: ["faceSolid", piece.id, piece.version],
    enabled: round,
    queryFn: () => ask(api.POST("/api/v1/plan/face/solid", { body: piece.doc })),
  });
  const item = (useStock().data ?? []).find((s) => s.id === doc.stockId);
  const etchId = item?.etchId;
  const laidAnew = item?.billet && JSON.stringify(item.billet) !== JSON.stringify(doc.request.billet);
  const f = face.data;
  if (!f?.front || !f.back) return null;
  const mm = print.thickness(Math.round(Math.abs(deeperMm) * 100) / 100, units);
  return (
    <section className="mb-5" data-testid="face" data-nx={f.front.nx} data-deeper={deeperMm.toFixed(2)}>
      <h2 className="text-2xl">{say("face.title")}</h2>
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <label className="min-w-56 flex-1">
          <span className="mb-0.5 block text-sm text-quiet">
            {say("face.deeper")}:{" "}
            {steps === 0 ? say("face.plan") : steps > 0 ? say("face.by", { mm }) : say("face.on", { mm })}
          </span>
          <input
            type="range"
            className="min-h-11 w-full accent-act"
            min={-20}
            max={20}
            value={steps}
            data-testid="face-deeper"
            onChange={({ target: { value } }) => setSteps(Number(value))}
          />
        </label>
        <Pick
          label={say("face.ground")}
          field="face-ground"
          value={bevels}
          options={[
            { value: "forged", label: say("face.forged") },
            { value: "ground", label: say("face.groundIn") },
            { value: "both", label: say("face.both") },
          ]}
          onPick={(v) => setBevels(v === "ground" || v === "both" ? v : "forged")}
        />
        <button type="button" className="press" data-testid="face-in-round" onClick={() => setRound(true)}>
          {say("face.inRound")}
        </button>
        <a
          className="press"
          href={`/api/v1/pieces/${piece.id}/face.png?deeperMm=${deeperMm}&ground=${ground}`}
          download
        >
          PNG
        </a>
        <a
          className="press"
          href={`/api/v1/pieces/${piece.id}/face.svg?deeperMm=${deeperMm}&ground=${ground}`}
          download
        >
          SVG
        </a>
      </div>
      {laidAnew && (
        <p className="mb-2 flex flex-wrap items-center gap-3 border-l-2 border-ember pl-3" data-testid="laid-anew">
          {say("face.laidAnew")}
          <button type="button" className="press" onClick={() => draft.choose("stockId", item.id)}>
            {say("face.takeIt")}
          </button>
        </p>
      )}
      <Wishes />
      <Etching
        name="front"
        label={bevels === "both" ? say("face.forged") : undefined}
        e={f.front}
        lengthMm={doc.request.design.lengthMm}
      />
      {bevels === "both" && other.data?.front ? (
        <Etching
          name="ground"
          label={say("face.groundIn")}
          e={other.data.front}
          lengthMm={doc.request.design.lengthMm}
        />
      ) : (
        <Etching name="back" e={f.back} lengthMm={doc.request.design.lengthMm} />
      )}
      {etchId && (
        <figure className="mb-2">
          <figcaption className="text-quiet">{say("face.etched")}</figcaption>
          <img
            src={`/api/v1/pictures/${etchId}`}
            alt={say("face.etched")}
            className="max-h-64 w-full object-contain object-left"
            data-testid="face-etch"
          />
        </figure>
      )}
      <Sheet open={round} onClose={() => setRound(false)} title={say("face.title")} wide>
        {round && solid.data && (
          <Suspense fallback={<p className="text-quiet">{say("ui.loading")}</p>}>
            <FaceRound solid={solid.data} front={f.front} back={f.back} lengthMm={doc.request.design.lengthMm} />
          </Suspense>
        )}
      </Sheet>
      {f.core && (
        <p className={f.core.edgeIn ? "" : "border-l-2 border-ember pl-3"} data-testid="core" data-in={f.core.edgeIn}>
          {say(f.core.edgeIn ? "face.coreIn" : "face.coreOut", {
            up: print.length(Math.round((f.core.upMm[Math.floor(f.core.upMm.length / 2)] ?? 0) * 10) / 10, units),
            off: print.thickness(Math.round(Math.abs(f.core.offMm) * 100) / 100, units),
          })}
        </p>
      )}
      {f.seam && (
        <p data-testid="seam">
          {say("face.seam", {
            up: print.length(Math.round(f.seam.upMm * 10) / 10, units),
            at: print.length(Math.round(f.seam.atMm), units),
          })}
        </p>
      )}
      {(f.eatenLayers ?? 0) >= 0.05 && (
        <p className="text-quiet" data-testid="eaten">
          {say("face.eaten", { n: Math.round((f.eatenLayers ?? 0) * 10) / 10 })}
        </p>
      )}
      <p className="mt-1 text-sm text-quiet">{say("face.note")}</p>
    </section>
  );
}
