import { useEffect, useRef, useState } from "react";
import {
  BufferAttribute,
  BufferGeometry,
  CanvasTexture,
  Group,
  type Material,
  Mesh,
  MeshStandardMaterial,
  SRGBColorSpace,
} from "three";
import type { components } from "../../api/schema";
import { round } from "../../bench/round";
import { say } from "../../text/say";

type Etched = components["schemas"]["BilletEtched"];

interface Props {
  solid: { vertices: number[]; triangles: number[] };
  front: Etched;
  back: Etched;
  lengthMm: number;
}

/** The finished blade in the round, each face etched; what is behind it plain. */
export default function FaceRound({ solid, front, back, lengthMm }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [none, setNone] = useState(false);
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    const parts = split(solid, front, lengthMm);
    const steel = (map?: CanvasTexture) =>
      new MeshStandardMaterial({ map, color: map ? 0xffffff : 0x8b9196, metalness: 0.25, roughness: 0.55 });
    const materials: Material[] = [steel(texture(front)), steel(texture(back)), steel()];
    const thing = new Group();
    parts.forEach((g, i) => {
      thing.add(new Mesh(g, materials[i]));
    });
    const away = round(el, thing, lengthMm * 0.62);
    if (!away) {
      setNone(true);
      return;
    }
    el.dataset.drawn = parts.map((g) => (g.getAttribute("position")?.count ?? 0) / 3).join(" ");
    return () => {
      away();
      for (const g of parts) g.dispose();
      for (const m of materials) m.dispose();
    };
  }, [solid, front, back, lengthMm]);
  if (none) return <p className="text-quiet">{say("face.roundNone")}</p>;
  return (
    <>
      <div
        ref={box}
        className="h-[52vh] border border-line bg-plate"
        role="application"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it is turned with the keys
        tabIndex={0}
        aria-label={say("face.title")}
        data-testid="face-round"
      />
      <p className="text-sm text-quiet">{say("solid.help")}</p>
    </>
  );
}

/** A face as a picture for the surface: beyond the blade each column goes on as it ends, so that no seam shows. */
function texture(e: Etched): CanvasTexture {
  const canvas = document.createElement("canvas");
  canvas.width = e.nx;
  canvas.height = e.ny;
  const c = canvas.getContext("2d");
  if (c) {
    const raw = atob(e.pixels);
    const img = c.createImageData(e.nx, e.ny);
    for (let i = 0; i < e.nx; i++) {
      let last = 0;
      const put = (j: number) => {
        const k = j * e.nx + i;
        const v = raw.charCodeAt(k);
        if (v > 0) last = v;
        if (v > 0 || last > 0) {
          img.data[4 * k] = img.data[4 * k + 1] = img.data[4 * k + 2] = last;
          img.data[4 * k + 3] = 255;
        }
      };
      for (let j = 0; j < e.ny; j++) put(j);
      last = 0;
      for (let j = e.ny - 1; j >= 0; j--) if (raw.charCodeAt(j * e.nx + i) > 0 || last > 0) put(j);
    }
    c.putImageData(img, 0, 0);
  }
  const t = new CanvasTexture(canvas);
  t.colorSpace = SRGBColorSpace;
  t.anisotropy = 8;
  return t;
}

/** The triangles of the front, of the back, and of all that is no blade. */
function split(solid: Props["solid"], e: Etched, lengthMm: number): BufferGeometry[] {
  const at: number[][] = [[], [], []];
  const uv: number[][] = [[], [], []];
  const v = solid.vertices;
  const mid = lengthMm / 2;
  const up = (e.fromY + e.toY) / 2;
  for (let k = 0; k < solid.triangles.length; k += 3) {
    const p = [0, 1, 2].map((i) => {
      const n = 3 * (solid.triangles[k + i] ?? 0);
      return [v[n] ?? 0, v[n + 1] ?? 0, v[n + 2] ?? 0] as const;
    });
    const [a, b, c] = p as [(typeof p)[0], (typeof p)[0], (typeof p)[0]];
    const side = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]); // of the normal, out of the flat
    const ab = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
    const ac = [c[0] - a[0], c[1] - a[1], c[2] - a[2]] as const;
    const area = Math.hypot(side, ab[1] * ac[2] - ab[2] * ac[1], ab[2] * ac[0] - ab[0] * ac[2]);
    // the flats of spine and edge are not computed: they are plain
    const plain = Math.max(a[0], b[0], c[0]) > lengthMm + 1e-3 || Math.abs(side) < 0.3 * area;
    const on = plain ? 2 : side >= 0 ? 0 : 1;
    for (const q of [a, b, c]) {
      at[on]?.push(q[0] - mid, q[1] - up, q[2]);
      uv[on]?.push(q[0] / lengthMm, (q[1] - e.fromY) / Math.max(1e-6, e.toY - e.fromY));
    }
  }
  return at.map((list, i) => {
    const g = new BufferGeometry();
    g.setAttribute("position", new BufferAttribute(new Float32Array(list), 3));
    g.setAttribute("uv", new BufferAttribute(new Float32Array(uv[i] ?? []), 2));
    g.computeVertexNormals();
    return g;
  });
}
