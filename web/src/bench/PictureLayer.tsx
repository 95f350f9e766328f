import { type PointerEvent, useRef } from "react";
import { useDraft } from "../draft/context";
import { say } from "../text/say";
import { typedMm } from "../units/print";
import type { Layout } from "./layout";
import { type Picture, type PictureMode, pictureMatrix } from "./picture";

/** The photograph of a template or a knife, behind the outline that is traced over it. */
export const PictureBehind = ({ picture: p, layout }: { picture: Picture; layout: Layout }) => (
  <image
    href={`/api/v1/pictures/${p.id}`}
    width={p.widthPx}
    height={p.heightPx}
    preserveAspectRatio="none"
    transform={pictureMatrix(p, layout)}
    opacity={p.strengthShare}
    pointerEvents="none"
    data-testid="picture"
  />
);

interface Props {
  picture: Picture;
  layout: Layout;
  mode: PictureMode;
  points: [number, number][];
  onPoint: (px: [number, number]) => void;
}

/** Takes hold of the picture: to move it, or to set a point of its scale. */
export function PictureGrip({ picture: p, layout: l, mode, points, onPoint }: Props) {
  const draft = useDraft();
  const drag = useRef<{ x: number; y: number; from: Picture } | null>(null);
  const along = l.x(1) - l.x(0);
  const down = (e: PointerEvent<SVGRectElement>) => {
    if (mode === "move") {
      e.currentTarget.setPointerCapture(e.pointerId);
      drag.current = { x: e.clientX, y: e.clientY, from: p };
      return;
    }
    const ctm = e.currentTarget.getScreenCTM();
    if (!ctm) return;
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(ctm.inverse());
    onPoint([at.x, at.y]);
  };
  const move = (e: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    draft.type("picture.xMm", typedMm(d.from.xMm + (e.clientX - d.x) / along, 3));
    draft.type("picture.yMm", typedMm(d.from.yMm - (e.clientY - d.y) / l.scale, 3));
  };
  const up = () => {
    if (!drag.current) return;
    drag.current = null;
    void draft.flush();
  };
  return (
    <g transform={pictureMatrix(p, l)}>
      {mode !== "none" && (
        <rect
          width={p.widthPx}
          height={p.heightPx}
          className="handle"
          style={{ fill: "transparent", stroke: "var(--act)", cursor: mode === "move" ? "move" : "crosshair" }}
          strokeWidth="1.5"
          vectorEffect="non-scaling-stroke"
          data-testid="picture-grip"
          onPointerDown={down}
          onPointerMove={move}
          onPointerUp={up}
          onPointerCancel={up}
        >
          <title>{say(mode === "move" ? "picture.move" : `picture.${mode}`)}</title>
        </rect>
      )}
      {points.map(([x, y]) => (
        <path
          key={`${x} ${y}`}
          d={`M${x},${y}m-1,0h2m-1,-1v2`}
          stroke="var(--act)"
          strokeWidth="16"
          strokeLinecap="round"
          vectorEffect="non-scaling-stroke"
          data-testid="picture-point"
          opacity="0.85"
        />
      ))}
    </g>
  );
}
