import type { MouseEvent } from "react";
import type { Plan } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { say } from "../../text/say";
import { print } from "../../units/print";
import type { Finished } from "./useFinish";
import { bandOf } from "./words";

type FaceName = "front" | "back";
const width = 760;
const pad = 14;

/** One face of the finished blade with what is to be ground off it, in steps of a tenth of a millimetre. */
export function MapDrawn({
  map,
  face,
  flip,
  readings,
  finished,
  onPlace,
}: {
  map: Finished["map"];
  face: FaceName;
  flip: boolean;
  readings: { xMm: number; yMm: number }[];
  finished: Plan["drawing"]["finished"];
  onPlace: (face: FaceName, xMm: number, yMm: number) => void;
}) {
  const units = useUnits();
  const n = map.x.length;
  const half = (map.x[0] ?? 0) * 1;
  const length = (map.x.at(-1) ?? 1) + half;
  const k = Math.min(6, (width - 2 * pad) / length);
  const top = Math.max(...map.x.map((_, i) => (map.edgeY[i] ?? 0) + (map.heightMm[i] ?? 0)));
  const low = Math.min(...map.edgeY);
  const height = (top - low) * k + 2 * pad;
  const X = (mm: number) => (flip ? width - pad - mm * k : pad + mm * k);
  const Y = (mm: number) => pad + (top - mm) * k;
  const values = face === "front" ? map.frontMm : map.backMm;
  const bands = new Map<number, string>();
  for (let i = 0; i < n; i++) {
    const x0 = (map.x[i] ?? 0) - half;
    const x1 = (map.x[i] ?? 0) + half;
    const column = values[i] ?? [];
    const steps = column.length - 1;
    for (let j = 0; j < steps; j++) {
      const band = bandOf(((column[j] ?? 0) + (column[j + 1] ?? 0)) / 2);
      const y0 = (map.edgeY[i] ?? 0) + ((map.heightMm[i] ?? 0) * j) / steps;
      const y1 = (map.edgeY[i] ?? 0) + ((map.heightMm[i] ?? 0) * (j + 1)) / steps;
      const cell = `M${X(x0).toFixed(1)},${Y(y0).toFixed(1)}H${X(x1).toFixed(1)}V${Y(y1).toFixed(1)}H${X(x0).toFixed(1)}Z`;
      bands.set(band, (bands.get(band) ?? "") + cell);
    }
  }
  const most = Math.max(1, ...bands.keys());
  const least = Math.max(0, Math.min(...bands.keys()));
  const shade = (band: number) => 0.12 + (0.83 * (band - least)) / Math.max(1, most - least);
  const clip = `map-${face}`;
  const edgeAt = (x: number) => {
    const i = Math.max(0, Math.min(n - 1, Math.floor(x / (2 * half))));
    return map.edgeY[i] ?? 0;
  };
  const place = (e: MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const px = ((e.clientX - box.left) / box.width) * width;
    const py = ((e.clientY - box.top) / box.height) * height;
    const x = (flip ? width - pad - px : px - pad) / k;
    if (x < 0 || x > length) return;
    const y = top - (py - pad) / k - edgeAt(x);
    onPlace(face, Math.max(0, x), Math.max(0, y));
  };
  const blade = finished.filter((p) => p.x <= length + 0.01);
  const around = `M${[...blade.map((p) => `${X(p.x).toFixed(1)},${Y(p.s).toFixed(1)}`), ...[...blade].reverse().map((p) => `${X(p.x).toFixed(1)},${Y(p.e).toFixed(1)}`)].join("L")}Z`;
  const sorted = [...bands.entries()].sort((a, b) => a[0] - b[0]);
  return (
    <figure>
      <figcaption className="mb-0.5 text-quiet">{say(face === "front" ? "finish.front" : "finish.back")}</figcaption>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: a short way to the fields below, which keys reach */}
      <svg
        viewBox={`0 0 ${width} ${height.toFixed(0)}`}
        className="w-full cursor-crosshair"
        role="img"
        aria-label={say(face === "front" ? "finish.front" : "finish.back")}
        data-testid={`map-${face}`}
        onClick={place}
      >
        <clipPath id={clip}>
          <path d={around} />
        </clipPath>
        <g clipPath={`url(#${clip})`}>
          {sorted.map(([band, d]) => (
            <path
              key={band}
              d={d}
              data-band={band}
              fill={band < 0 ? "var(--ember)" : "var(--zone-blade)"}
              fillOpacity={band < 0 ? 1 : shade(band)}
              shapeRendering="crispEdges"
            />
          ))}
        </g>
        <path d={around} fill="none" stroke="var(--chalk)" strokeWidth="1.2" className="pointer-events-none" />
        {readings.map((r) => (
          <g key={`${r.xMm} ${r.yMm}`} className="pointer-events-none">
            <path
              d={`M${X(r.xMm) - 5},${Y(edgeAt(r.xMm) + r.yMm)}h10M${X(r.xMm)},${Y(edgeAt(r.xMm) + r.yMm) - 5}v10`}
              stroke="var(--chalk)"
              strokeWidth="1.6"
            />
          </g>
        ))}
        {map.pits
          .filter((p) => p.face === face && !p.outside)
          .map((p) => (
            <circle
              key={`${p.xMm} ${p.yMm}`}
              cx={X(p.xMm)}
              cy={Y(edgeAt(p.xMm) + p.yMm)}
              r="6"
              fill={p.leftMm < 0 ? "var(--ember)" : "none"}
              stroke="var(--chalk)"
              strokeWidth="1.6"
              data-pit={p.leftMm < 0 ? "stays" : "out"}
              className="pointer-events-none"
            />
          ))}
      </svg>
      {face === "back" && (
        <ul className="mt-1 flex flex-wrap gap-x-3 text-sm text-quiet" data-testid="map-key">
          {sorted.map(([band]) => (
            <li key={band} className="flex items-center gap-1">
              <span
                className="inline-block size-3 border border-line"
                style={{
                  background: band < 0 ? "var(--ember)" : "var(--zone-blade)",
                  opacity: band < 0 ? 1 : shade(band),
                }}
                aria-hidden
              />
              {band < 0 ? say("finish.missing") : print.thickness(band / 10, units)}
            </li>
          ))}
        </ul>
      )}
    </figure>
  );
}
