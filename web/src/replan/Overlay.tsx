import type { Station } from "../api/client";
import { say } from "../text/say";

/** The piece from the side and from above: as it was planned, as it is, and as it would be forged, all from their points. */
export function Overlay({ planned, is, becomes }: { planned: Station[]; is?: Station[]; becomes?: Station[] }) {
  const all = [planned, is ?? [], becomes ?? []].flat();
  const long = Math.max(...all.map((s) => s.x), 1);
  const side = (list: Station[]) => {
    const middle = (list.reduce((sum, s) => sum + s.s + s.e, 0) / Math.max(1, list.length)) * 0.5;
    const top = list.map((s) => `${s.x.toFixed(2)},${(middle - s.s).toFixed(2)}`);
    const below = list.map((s) => `${s.x.toFixed(2)},${(middle - s.e).toFixed(2)}`).reverse();
    return `M${[...top, ...below].join("L")}Z`;
  };
  const above = (list: Station[]) => {
    const top = list.map((s) => `${s.x.toFixed(2)},${(-s.t / 2).toFixed(2)}`);
    const below = list.map((s) => `${s.x.toFixed(2)},${(s.t / 2).toFixed(2)}`).reverse();
    return `M${[...top, ...below].join("L")}Z`;
  };
  const high = Math.max(...all.map((s) => s.s - s.e), 8);
  const thick = Math.max(...all.map((s) => s.t), 3);
  return (
    <figure data-testid="replan-drawn">
      <svg
        viewBox={`-2 ${-high * 0.7} ${long + 4} ${high * 1.4 + thick * 3}`}
        className="max-h-[44vh] w-full"
        role="img"
        aria-label={say("replan.title")}
      >
        {[
          { path: side, y: 0 },
          { path: above, y: high * 0.7 + thick * 1.5 },
        ].map(({ path, y }) => (
          <g key={y} transform={`translate(0 ${y})`} strokeWidth={long / 300}>
            {is && <path d={path(is)} className="fill-line" />}
            <path
              d={path(planned)}
              className="fill-none stroke-quiet"
              strokeDasharray={`${long / 100} ${long / 130}`}
            />
            {is && <path d={path(is)} className="fill-none stroke-chalk" />}
            {becomes && <path d={path(becomes)} className="fill-none stroke-act" />}
          </g>
        ))}
      </svg>
      <figcaption className="flex flex-wrap gap-x-4 text-sm text-quiet">
        <span>– – {say("replan.asPlanned")}</span>
        {is && <span className="text-chalk">— {say("replan.asIs")}</span>}
        {becomes && <span className="text-act">— {say("replan.becomes")}</span>}
      </figcaption>
    </figure>
  );
}
