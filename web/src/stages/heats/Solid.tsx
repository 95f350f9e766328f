import { useEffect, useRef, useState } from "react";
import {
  AmbientLight,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  Mesh,
  MeshStandardMaterial,
  PerspectiveCamera,
  Scene,
  WebGLRenderer,
} from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import { glow } from "../../bench/glow";
import { say } from "../../text/say";

interface Props {
  solid: { vertices: number[]; triangles: number[]; tempC: number[] };
  heat: number;
}

/** Turned a little from the flat view, rad, so that its thickness is seen. */
const startTurn = 0.45;
const startTilt = 0.5;

/** A still drawing where there is no WebGL; else the piece to be turned with mouse, touch or keys. */
export default function Solid({ solid, heat }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [none, setNone] = useState(false);
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    let renderer: WebGLRenderer;
    try {
      renderer = new WebGLRenderer({ antialias: true, alpha: true });
    } catch {
      setNone(true);
      return;
    }
    const scene = new Scene();
    const geometry = shapeOf(solid);
    const mesh = new Mesh(
      geometry,
      new MeshStandardMaterial({ vertexColors: true, flatShading: true, metalness: 0.35, roughness: 0.6 }),
    );
    scene.add(mesh, new AmbientLight(0xffffff, 1.1));
    const sun = new DirectionalLight(0xffffff, 2.2);
    sun.position.set(-0.6, 1, 0.8);
    scene.add(sun);
    const size = geometry.boundingSphere?.radius ?? 100;
    const camera = new PerspectiveCamera(32, 1, size / 50, size * 20);
    camera.position.set(0, size * 0.3, size * 2.7);
    mesh.rotation.set(startTilt, startTurn, 0);
    const controls = new OrbitControls(camera, renderer.domElement);
    const draw = () => renderer.render(scene, camera);
    controls.addEventListener("change", draw);
    const resize = () => {
      const { clientWidth: w, clientHeight: h } = el;
      renderer.setPixelRatio(window.devicePixelRatio);
      renderer.setSize(w, h);
      camera.aspect = w / Math.max(1, h);
      camera.updateProjectionMatrix();
      draw();
    };
    el.appendChild(renderer.domElement);
    const seen = new ResizeObserver(resize);
    seen.observe(el);
    resize();
    const turn = (e: KeyboardEvent) => {
      const by: Record<string, [number, number, number]> = {
        ArrowLeft: [-0.15, 0, 1],
        ArrowRight: [0.15, 0, 1],
        ArrowUp: [0, -0.15, 1],
        ArrowDown: [0, 0.15, 1],
        "+": [0, 0, 0.88],
        "=": [0, 0, 0.88],
        "-": [0, 0, 1.14],
      };
      const go = by[e.key];
      if (!go) return;
      e.preventDefault();
      e.stopPropagation();
      mesh.rotation.y += go[0];
      mesh.rotation.x += go[1];
      camera.position.multiplyScalar(go[2]);
      el.dataset.turned = `${(mesh.rotation.y - startTurn).toFixed(2)} ${(mesh.rotation.x - startTilt).toFixed(2)}`;
      draw();
    };
    el.addEventListener("keydown", turn);
    el.dataset.drawn = String((geometry.index?.count ?? 0) / 3);
    return () => {
      el.removeEventListener("keydown", turn);
      seen.disconnect();
      controls.dispose();
      geometry.dispose();
      renderer.dispose();
      renderer.domElement.remove();
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
