import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, ask } from "../../api/client";
import { useUnits } from "../../api/hooks";
import type { components } from "../../api/schema";
import { useDraftState } from "../../draft/context";
import { say } from "../../text/say";
import { Pick } from "../../ui/Pick";
import { print } from "../../units/print";

import { Wishes } from "./Wishes";

type Etched = components["schemas"]["BilletEtched"];
const stepMm = 0.05;
/** While the slider is dragged a coarse face is enough; once it rests, a fine one. */
const coarse: [number, number] = [300, 50];
const fine: [number, number] = [1200, 200];
const restMs = 150;

/** Both faces of a blade of a patterned bar as they etch, as deep as they will be ground. */
export function FaceDrawn() {
  const { piece, doc } = useDraftState();
  const units = useUnits();
  const [steps, setSteps] = useState(0);
  const [ground, setGround] = useState(false);
  const [rests, setRests] = useState(true);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it rests anew after each change
  useEffect(() => {
    setRests(false);
    const t = setTimeout(() => setRests(true), restMs);
    return () => clearTimeout(t);
  }, [steps, ground]);
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
          value={ground ? "ground" : "forged"}
          options={[
            { value: "forged", label: say("face.forged") },
            { value: "ground", label: say("face.groundIn") },
          ]}
          onPick={(v) => setGround(v === "ground")}
        />
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
      <Wishes />
      <One name="front" e={f.front} lengthMm={doc.request.design.lengthMm} />
      <One name="back" e={f.back} lengthMm={doc.request.design.lengthMm} />
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

function One({ name, e, lengthMm }: { name: "front" | "back"; e: Etched; lengthMm: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [zoom, setZoom] = useState(1);
  useEffect(() => {
    const c = canvas.current?.getContext("2d");
    if (!c) return;
    const raw = atob(e.pixels);
    const img = c.createImageData(e.nx, e.ny);
    for (let i = 0; i < raw.length; i++) {
      const v = raw.charCodeAt(i);
      img.data[4 * i] = img.data[4 * i + 1] = img.data[4 * i + 2] = v;
      img.data[4 * i + 3] = v > 0 ? 255 : 0;
    }
    c.putImageData(img, 0, 0);
  }, [e]);
  return (
    <figure className="mb-2">
      <figcaption className="flex items-center gap-2 text-quiet">
        {say(name === "front" ? "face.front" : "face.back")}
        <button
          type="button"
          className="press press-plain min-h-9 !px-2"
          onClick={() => setZoom(zoom >= 8 ? 1 : zoom * 2)}
        >
          × {zoom}
        </button>
      </figcaption>
      <div className="overflow-auto" style={{ maxHeight: "70vh" }}>
        <canvas
          ref={canvas}
          width={e.nx}
          height={e.ny}
          data-testid={`face-${name}`}
          style={{
            width: `${zoom * 100}%`,
            aspectRatio: lengthMm / Math.max(1, e.toY - e.fromY),
            imageRendering: zoom > 2 ? "pixelated" : "auto",
          }}
          role="img"
          aria-label={say(name === "front" ? "face.front" : "face.back")}
        />
      </div>
    </figure>
  );
}
