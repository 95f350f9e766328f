import { useEffect, useRef, useState } from "react";
import type { components } from "../api/schema";
import { say } from "../text/say";

type Etched = components["schemas"]["BilletEtched"];

/** A face as it etches, dark and bright; zoomed to single layers at a touch. */
export function Etching({ name, label, e, lengthMm }: { name: string; label?: string; e: Etched; lengthMm: number }) {
  const title = label ?? say(name === "back" ? "face.back" : "face.front");
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
        {title}
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
          aria-label={title}
        />
      </div>
    </figure>
  );
}
