import type { Doc } from "../api/client";
import type { Layout } from "./layout";

export type Picture = NonNullable<Doc["picture"]>;

/** What a press on the picture means. */
export type PictureMode = "none" | "move" | "first" | "second";

/** The SVG matrix that lays a picture, a unit a pixel, behind the finished blade. */
export function pictureMatrix(p: Picture, l: Layout): string {
  const along = l.x(1) - l.x(0);
  const up = l.scale;
  const turn = (p.turnDeg * Math.PI) / 180;
  const s = Math.sin(turn) * p.mmPerPx;
  const c = Math.cos(turn) * p.mmPerPx;
  const m = [along * c, up * s, -along * s, up * c, l.x(p.xMm), l.finished.baseY - p.yMm * up];
  return `matrix(${m.map((v) => v.toFixed(5)).join(" ")})`;
}
