import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api, ask } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraftPart } from "../../draft/context";
import { say } from "../../text/say";
import { print } from "../../units/print";

const widthPx = 336;
const heightPx = 150;
const leftPx = 4;
const footPx = 18;

/** An edge quench leaves heat in the spine, which runs back and tempers the edge: when to cool it off. */
export function SpineDraw() {
  const piece = useDraftPart((s) => s.piece);
  const units = useUnits();
  const id = useId();
  const [hotC, setHotC] = useState(450);
  const { data: d } = useQuery({
    queryKey: ["spine", piece.id, piece.version, hotC],
    queryFn: () => ask(api.POST("/api/v1/plan/spine", { body: { doc: piece.doc, hotC } })),
    placeholderData: (last) => last,
    retry: false,
  });
  if (!d) return null;
  const most = Math.max(d.hotC, ...d.edgeC) * 1.05;
  const long = (d.edgeC.length - 1) * d.stepS;
  const x = (s: number) => leftPx + (s / long) * (widthPx - 2 * leftPx);
  const y = (c: number) => heightPx - footPx - (c / most) * (heightPx - footPx - 8);
  const line = (t: number[]) => `M${t.map((c, i) => `${x(i * d.stepS).toFixed(1)},${y(c).toFixed(1)}`).join("L")}`;
  return (
    <section data-testid="spine-draw" data-cool-at={d.coolAtS}>
      <h2 className="mb-1 text-lg">{say("spine.title")}</h2>
      <label htmlFor={id} className="flex items-center justify-between gap-3">
        <span className="text-quiet">{say("spine.hot")}</span>
        <span className="narrow text-lg">{print.temperature(hotC, units)}</span>
      </label>
      <input
        id={id}
        type="range"
        className="min-h-11 w-full accent-act"
        min={200}
        max={700}
        step={10}
        value={hotC}
        onChange={(e) => setHotC(Number(e.target.value))}
      />
      <svg viewBox={`0 0 ${widthPx} ${heightPx}`} className="w-full" role="img" aria-label={say("spine.chart")}>
        <path d={line(d.spineC)} fill="none" stroke="var(--zone-tang)" strokeWidth="1.6" strokeDasharray="6 3" />
        <path d={line(d.middleC)} fill="none" stroke="var(--quiet)" strokeWidth="1.4" strokeDasharray="2 3" />
        <path d={line(d.edgeC)} fill="none" stroke="var(--zone-point)" strokeWidth="2.2" />
        {d.wantC > 0 && (
          <path
            d={`M${leftPx},${y(d.wantC)}H${widthPx - leftPx}`}
            stroke="var(--act)"
            strokeWidth="1.2"
            strokeDasharray="4 4"
          />
        )}
        {d.coolAtS > 0 && <path d={`M${x(d.coolAtS)},4V${heightPx - footPx}`} stroke="var(--ember)" strokeWidth="2" />}
        {[30, 60, 120, 180].map((s) => (
          <text
            key={s}
            x={Math.min(x(s), widthPx - 16)}
            y={heightPx - 4}
            textAnchor="middle"
            fontSize="13"
            className="narrow"
            fill="var(--quiet)"
          >
            {s} s
          </text>
        ))}
        <text
          x={widthPx - 6}
          y={y(d.spineC.at(-1) ?? 0) - 5}
          textAnchor="end"
          fontSize="13"
          className="narrow"
          fill="var(--chalk)"
        >
          {say("spine.spine")}
        </text>
        <text x={x(6)} y={y(d.edgeC[12] ?? 0) + 16} fontSize="13" className="narrow" fill="var(--chalk)">
          {say("spine.edge")}
        </text>
      </svg>
      <p>
        {d.wantC === 0
          ? say("spine.noTable")
          : d.coolAtS > 0
            ? say("spine.coolAt", {
                s: Math.round(d.coolAtS),
                c: print.temperature(d.wantC, units),
                hour: print.temperature(d.hourC, units),
              })
            : say("spine.notEnough", {
                most: print.temperature(d.mostEdgeC, units),
                c: print.temperature(d.wantC, units),
              })}{" "}
        {d.softMm > 0.5 && say("spine.soft", { mm: print.length(d.softMm, units) })}
      </p>
      <p className="mt-1 text-sm text-quiet">{say("spine.note")}</p>
    </section>
  );
}
