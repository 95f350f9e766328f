import { RotateCcw, RotateCw } from "lucide-react";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, ask } from "../api/client";
import { useUnits } from "../api/hooks";
import type { components } from "../api/schema";
import { say } from "../text/say";
import { print } from "../units/print";

type Silhouette = components["schemas"]["Silhouette"];
type Laid = components["schemas"]["Inside"];
type Lie = components["schemas"]["Lie"];
type Asked = { lie: Lie; seek: boolean };

const nudge: Record<string, Lie> = {
  ArrowLeft: { slideMm: -0.5, liftMm: 0, turnDeg: 0 },
  ArrowRight: { slideMm: 0.5, liftMm: 0, turnDeg: 0 },
  ArrowUp: { slideMm: 0, liftMm: 0.25, turnDeg: 0 },
  ArrowDown: { slideMm: 0, liftMm: -0.25, turnDeg: 0 },
  PageUp: { slideMm: 0, liftMm: 0, turnDeg: 0.25 },
  PageDown: { slideMm: 0, liftMm: 0, turnDeg: -0.25 },
};

/** The finished blade slid and turned inside the blank of a photograph; one question on its way, only the newest waits. */
export function Inside({
  id,
  silhouette,
  design,
}: {
  id: string;
  silhouette: Silhouette;
  design?: components["schemas"]["Design"];
}) {
  const units = useUnits();
  const [laid, setLaid] = useState<Laid>();
  const wanted = useRef<Asked>({ lie: { slideMm: 0, liftMm: 0, turnDeg: 0 }, seek: true });
  const waiting = useRef<Asked | undefined>(undefined);
  const busy = useRef(false);
  const drag = useRef<{ x: number; y: number; lie: Lie } | undefined>(undefined);
  const svg = useRef<SVGSVGElement>(null);

  const send = useCallback(
    async (a: Asked) => {
      wanted.current = a;
      if (busy.current) {
        waiting.current = a;
        return;
      }
      busy.current = true;
      try {
        const body = { silhouette, lie: a.lie, seek: a.seek, design };
        const o = await ask(api.POST("/api/v1/sessions/{id}/inside", { params: { path: { id } }, body }));
        setLaid(o);
        if (a.seek && wanted.current === a)
          wanted.current = { lie: { slideMm: o.slideMm, liftMm: o.liftMm, turnDeg: o.turnDeg }, seek: false };
      } catch {
        setLaid(undefined);
      }
      busy.current = false;
      const next = waiting.current;
      waiting.current = undefined;
      if (next) void send(next);
    },
    [id, silhouette, design],
  );
  useEffect(() => void send({ lie: { slideMm: 0, liftMm: 0, turnDeg: 0 }, seek: true }), [send]);

  const by = (d: Lie) => {
    const l = wanted.current.lie;
    void send({
      lie: { slideMm: l.slideMm + d.slideMm, liftMm: l.liftMm + d.liftMm, turnDeg: l.turnDeg + d.turnDeg },
      seek: false,
    });
  };
  const seen = silhouette.along.filter((a) => a.seen);
  const low = Math.max(...seen.map((a) => a.bottomMm), 1) + 4;
  const high = Math.min(...seen.map((a) => a.topMm)) - 4;
  const shape = [
    ...seen.map((a) => `${a.xMm.toFixed(1)},${a.topMm.toFixed(2)}`),
    ...seen.map((a) => `${a.xMm.toFixed(1)},${a.bottomMm.toFixed(2)}`).reverse(),
  ].join(" ");
  const mmPerPx = () => 1 / (svg.current?.getScreenCTM()?.a ?? 1);
  return (
    <section data-testid="inside" data-least={laid?.leastMm.toFixed(2)}>
      <h2 className="text-2xl">{say("inside.title")}</h2>
      <svg
        ref={svg}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it is moved with the keys
        tabIndex={0}
        viewBox={`-6 ${high} ${silhouette.lengthMm + 12} ${low - high}`}
        className="w-full cursor-grab touch-none outline-offset-2 focus-visible:outline-2 focus-visible:outline-act"
        role="application"
        aria-label={`${say("inside.title")}. ${say("inside.hint")}`}
        onKeyDown={(e) => {
          const d = nudge[e.key];
          if (!d) return;
          e.preventDefault();
          by(d);
        }}
        onWheel={(e) => by({ slideMm: 0, liftMm: 0, turnDeg: e.deltaY < 0 ? 0.25 : -0.25 })}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          drag.current = { x: e.clientX, y: e.clientY, lie: wanted.current.lie };
        }}
        onPointerMove={(e) => {
          const d = drag.current;
          if (!d) return;
          const dx = (e.clientX - d.x) * mmPerPx();
          const dy = (e.clientY - d.y) * mmPerPx();
          const lie = e.shiftKey
            ? { ...d.lie, turnDeg: d.lie.turnDeg - dy * 0.5 }
            : { ...d.lie, slideMm: d.lie.slideMm + dx, liftMm: d.lie.liftMm - dy };
          void send({ lie, seek: false });
        }}
        onPointerUp={() => {
          drag.current = undefined;
        }}
        onPointerCancel={() => {
          drag.current = undefined;
        }}
      >
        <polygon points={shape} className="fill-line stroke-chalk" strokeWidth="0.4" />
        {laid && (
          <polygon
            points={laid.outline.map((p) => `${p[0]?.toFixed(2)},${p[1]?.toFixed(2)}`).join(" ")}
            className={`fill-none ${laid.leastMm < 0 ? "stroke-ember" : "stroke-act"}`}
            strokeWidth="0.7"
          />
        )}
      </svg>
      {laid && (
        <p data-testid="inside-said" className={laid.leastMm < 0 ? "border-l-2 border-ember pl-3" : ""}>
          {say(laid.leastMm < 0 ? "inside.sticks" : "inside.holds", {
            least: print.thickness(Math.round(Math.abs(laid.leastMm) * 10) / 10, units),
            at: print.length(Math.round(laid.xMm), units),
          })}{" "}
          {laid.hiddenMm > 0.5 && say("inside.hidden", { mm: print.length(Math.round(laid.hiddenMm), units) })}
        </p>
      )}
      <p className="mt-1 flex flex-wrap items-center gap-2 text-sm text-quiet">
        <button
          type="button"
          className="press"
          data-testid="inside-seek"
          onClick={() => void send({ lie: wanted.current.lie, seek: true })}
        >
          {say("inside.seek")}
        </button>
        <button
          type="button"
          className="press"
          aria-label={say("inside.left")}
          title={say("inside.left")}
          onClick={() => by({ slideMm: 0, liftMm: 0, turnDeg: 0.5 })}
        >
          <RotateCcw size={16} aria-hidden />
        </button>
        <button
          type="button"
          className="press"
          aria-label={say("inside.right")}
          title={say("inside.right")}
          onClick={() => by({ slideMm: 0, liftMm: 0, turnDeg: -0.5 })}
        >
          <RotateCw size={16} aria-hidden />
        </button>
        <span className="min-w-60 flex-1">{say("inside.hint")}</span>
      </p>
    </section>
  );
}
