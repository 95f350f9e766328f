import { useEffect, useRef, useState } from "react";
import { BufferAttribute, BufferGeometry, Color, Mesh, MeshStandardMaterial } from "three";
import { glow } from "../../bench/glow";
import { round } from "../../bench/round";
import { say } from "../../text/say";

interface Props {
  solid: { vertices: number[]; triangles: number[]; tempC: number[] };
  heat: number;
}

/** A still drawing where there is no WebGL; else the piece to be turned with mouse, touch or keys. */
export default function Solid({ solid, heat }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [none, setNone] = useState(false);
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    const geometry = shapeOf(solid);
    const mesh = new Mesh(
      geometry,
      new MeshStandardMaterial({ vertexColors: true, flatShading: true, metalness: 0.35, roughness: 0.6 }),
    );
    const away = round(el, mesh, geometry.boundingSphere?.radius ?? 100);
    if (!away) {
      setNone(true);
      return;
    }
    el.dataset.drawn = String((geometry.index?.count ?? 0) / 3);
    return () => {
      away();
      geometry.dispose();
    };
  }, [solid]);
  return (
    <div className="grid gap-2">
      {none ? (
        <Still solid={solid} />
      ) : (
        <div
          ref={box}
          className="h-[52vh] border border-line bg-plate"
          role="application"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: it is turned with the keys
          tabIndex={0}
          aria-label={say("solid.describe", { n: heat })}
          data-testid="solid"
        />
      )}
      <p className="text-sm text-quiet">{say(none ? "solid.none" : "solid.help")}</p>
    </div>
  );
}

/** CSS writes rgb(1 2 3), the drawing in the round reads rgb(1, 2, 3). */
const commas = (css: string) => css.replace(/(\d)\s+(?=\d)/g, "$1, ");

function shapeOf(solid: Props["solid"]): BufferGeometry {
  const g = new BufferGeometry();
  g.setAttribute("position", new BufferAttribute(new Float32Array(solid.vertices), 3));
  const colours = new Float32Array(solid.tempC.length * 3);
  solid.tempC.forEach((c, i) => {
    const cold = c < 500;
    new Color(cold ? "#8b9196" : commas(glow(c))).toArray(colours, i * 3);
  });
  g.setAttribute("color", new BufferAttribute(colours, 3));
  g.setIndex(solid.triangles);
  g.center();
  g.computeVertexNormals();
  g.computeBoundingSphere();
  return g;
}

/** The same piece from a corner, drawn once: for devices without WebGL. */
function Still({ solid }: { solid: Props["solid"] }) {
  const at = (i: number): [number, number, number] => {
    const [x = 0, y = 0, z = 0] = solid.vertices.slice(i * 3, i * 3 + 3);
    return [x * 0.94 + z * 0.9, -y * 0.92 + z * 0.35 + x * 0.08, z];
  };
  const faces: { d: string; depth: number; c: number }[] = [];
  for (let k = 0; k < solid.triangles.length; k += 3) {
    const ids = solid.triangles.slice(k, k + 3);
    const p = ids.map(at);
    faces.push({
      d: `M${p.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join("L")}Z`,
      depth: p.reduce((s, q) => s + q[2], 0),
      c: solid.tempC[ids[0] ?? 0] ?? 20,
    });
  }
  faces.sort((a, b) => a.depth - b.depth);
  const points = Array.from({ length: solid.vertices.length / 3 }, (_, i) => at(i));
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return (
    <svg
      viewBox={`${x0 - 2} ${y0 - 2} ${x1 - x0 + 4} ${y1 - y0 + 4}`}
      className="max-h-[52vh] w-full border border-line"
      role="img"
      aria-label={say("solid.title")}
      data-testid="solid-still"
    >
      {faces.map((f) => (
        <path key={f.d} d={f.d} fill={f.c < 500 ? "#8b9196" : glow(f.c)} stroke="#15181a" strokeWidth="0.1" />
      ))}
    </svg>
  );
}
