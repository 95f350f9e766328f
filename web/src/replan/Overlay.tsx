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
      {[
        { path: side, tall: high * 1.5 },
        { path: above, tall: thick * 2 },
      ].map(({ path, tall }) => (
        <svg
          key={tall}
          viewBox={`-2 ${-tall / 2} ${long + 4} ${tall}`}
          className="mb-2 w-full"
          role="img"
          aria-label={say("replan.title")}
        >
          {is && <path d={path(is)} className="fill-line" />}
          <path d={path(planned)} className="fill-none stroke-quiet" strokeWidth="0.4" strokeDasharray="2 1.5" />
          {is && <path d={path(is)} className="fill-none stroke-chalk" strokeWidth="0.5" />}
          {becomes && <path d={path(becomes)} className="fill-none stroke-act" strokeWidth="0.6" />}
        </svg>
      ))}
      <figcaption className="flex flex-wrap gap-x-4 text-sm text-quiet">
        <span>– – {say("replan.asPlanned")}</span>
        {is && <span className="text-chalk">— {say("replan.asIs")}</span>}
        {becomes && <span className="text-act">— {say("replan.becomes")}</span>}
      </figcaption>
    </figure>
  );
}
