import { memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Plan, State, Zone } from "../api/client";
import { heatName } from "../stages/heats/counted";
import { count, say } from "../text/say";
import type { System } from "../units/print";
import { Bar } from "./Bar";
import { DimFields, DimLines, dimsOf } from "./Dims";
import { Findings } from "./Findings";
import { HandleShape } from "./HandleShape";
import { Handles } from "./Handles";
import { Joined } from "./Joined";
import { Key } from "./Key";
import { layOut, runs } from "./layout";
import { Lip, Ribbons, Seam, Sweep, Ways, Within } from "./Marks";
import { type NodeRef, type NodeRules, Nodes, nodeAt } from "./Nodes";
import { PictureBehind, PictureGrip } from "./PictureLayer";
import { Patterns } from "./patterns";
import type { Picture, PictureMode } from "./picture";
import { Readings } from "./Readings";
import { Shape, Title } from "./Shape";
import { type HardLine, TemperLine } from "./TemperLine";

interface Props {
  plan: Plan;
  units: System;
  barName: string;
  flatBar: boolean;
  zoom: number;
  flip: boolean;
  /** Number of the heat being looked at; undefined for the whole plan. */
  heat?: number;
  /** The piece after that heat, once it is known. */
  state?: State;
  selected?: Zone;
  onSelect: (zone: Zone | undefined) => void;
  /** Where the blade is cut across, as a share of its length; it follows the pointer. */
  section?: { at: number; onAt: (share: number) => void };
  /** How long a bar may have to be. */
  band?: { lowMm: number; highMm: number };
  /** Its diameter, where the piece comes out of a ball. */
  ballMm?: number;
  /** Where the finished blade hardens. */
  hard?: HardLine;
  /** The outline is being moved by its nodes. */
  nodes?: {
    chosen?: NodeRef;
    onChoose: (n: NodeRef | undefined) => void;
    onAdd: (field: string, where: string) => void;
    rules: NodeRules;
    picture?: Picture;
    pictureMode: PictureMode;
    picturePoints: [number, number][];
    onPicturePoint: (px: [number, number]) => void;
  };
}

/** Whether the point has been struck by the end of a heat. */
const pointed = (plan: Plan, step: Plan["heats"][number]) =>
  plan.heats.some((h) => h.number <= step.number && h.parts.some((p) => p.operation === "point"));

/** While nodes are moved the finished blade is drawn so many times as thick, or nobody could take hold of it. */
const taperTimes = 4;

/** The bench: bar, forged shape and finished blade on one millimetre scale. */
export const Bench = memo(function Bench({
  plan,
  units,
  barName,
  flatBar,
  zoom,
  flip,
  heat,
  state,
  selected,
  onSelect,
  nodes,
  section,
  band,
  ballMm,
  hard,
}: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 880, height: 560 });
  const [heldScale, setHeld] = useState<number>();
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    const seen = new ResizeObserver(() => setSize({ width: el.clientWidth, height: el.clientHeight }));
    seen.observe(el);
    return () => seen.disconnect();
  }, []);
  const step = plan.heats.find((h) => h.number === heat);
  const middle = (step && state?.shape) || plan.drawing.forged;
  const thickTimes = nodes ? taperTimes : 1;
  const l = useMemo(
    () => layOut(plan, { widthPx: size.width, heightPx: size.height, zoom, flip, heldScale, thickTimes }),
    [plan, size, zoom, flip, heldScale, thickTimes],
  );
  const unusual = plan.findings.filter((f) => !f.usual).length;
  const bladeMm = plan.drawing.finishedZones.find((z) => z.zone === "blade")?.toMm ?? 1;
  const dims = useMemo(() => dimsOf(plan, l, flatBar), [plan, l, flatBar]);
  const pick = useCallback((zone: Zone) => onSelect(zone === selected ? undefined : zone), [onSelect, selected]);
  const hold = useCallback((h: boolean) => setHeld(h ? l.scale : undefined), [l.scale]);
  const spans = step ? runs(middle) : plan.drawing.forgedZones;
  const finishedTitle = [
    say("bench.finished"),
    ...(unusual > 0 ? [count("use.marked", unusual)] : []),
    ...(nodes ? [say("taper.exaggerated", { n: taperTimes })] : []),
  ].join(" · ");
  const title = step ? say("bench.after", { heat: heatName(plan, step.number).toLowerCase() }) : say("bench.forged");
  return (
    <div className="relative flex min-h-0 flex-1 flex-col">
      <Key />
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard */}
      <section ref={box} className="relative min-h-0 flex-1 overflow-auto" aria-label={say("bench.name")} tabIndex={0}>
        <div className="relative" style={{ width: l.widthPx, height: l.heightPx }}>
          <svg
            width={l.widthPx}
            height={l.heightPx}
            role="img"
            aria-label={say("bench.describe", { bar: barName })}
            className="select-none"
            onPointerMove={(e) => {
              if (!section || e.buttons > 0) return;
              const at = e.currentTarget.getBoundingClientRect();
              const y = e.clientY - at.top;
              const share = (e.clientX - at.left - l.x(0)) / (l.x(bladeMm) - l.x(0));
              if (y > l.finished.topY && y < l.finished.edgeOnY + l.finished.edgeOnHalf && share > 0 && share < 1)
                section.onAt(share);
            }}
            onDoubleClick={(e) => {
              const at = e.currentTarget.getBoundingClientRect();
              const y = e.clientY - at.top;
              if (!nodes || y <= l.finished.topY - 12) return;
              const add = nodeAt(plan, l, e.clientX - at.left, y);
              nodes.onAdd(add.field, add.text);
            }}
          >
            <Patterns />
            <Ribbons chalked={!ballMm} plan={plan} layout={l} middle={spans} selected={selected} />
            <Bar
              plan={plan}
              layout={l}
              units={units}
              title={`${say("bench.bar")} · ${barName}`}
              selected={selected}
              onSelect={pick}
              band={band}
              ballMm={ballMm}
            />
            <Shape
              id="middle"
              stations={middle}
              row={l.forged}
              layout={l}
              selected={selected}
              onSelect={pick}
              hot={!!step}
            />
            <Joined
              joined={step ? state?.joined : plan.drawing.joined}
              at={(mm, y) => [l.x(mm), l.forged.baseY - y * l.scale]}
              scale={l.scale}
              stroke="var(--chalk)"
              strokeWidth={1.3}
            />
            {step ? <Readings step={step} layout={l} units={units} /> : <Ways plan={plan} layout={l} />}
            {(!step || pointed(plan, step)) && <Lip plan={plan} layout={l} from={middle[0]?.x ?? 0} />}
            {!step && <Sweep plan={plan} layout={l} />}
            {!step && <Within plan={plan} layout={l} />}
            {!step && <Seam plan={plan} layout={l} />}
            {nodes?.picture && <PictureBehind picture={nodes.picture} layout={l} />}
            <Shape
              id="finished"
              stations={plan.drawing.finished}
              row={l.finished}
              layout={l}
              selected={selected}
              onSelect={pick}
            />
            <HandleShape plan={plan} layout={l} />
            {hard && <TemperLine plan={plan} layout={l} line={hard} />}
            {section && (
              <path
                d={`M${l.x(bladeMm * section.at)},${l.finished.topY - 6}V${l.finished.edgeOnY + l.finished.edgeOnHalf + 6}`}
                stroke="var(--act)"
                strokeDasharray="8 3 2 3"
                strokeWidth="1.5"
                data-testid="section-line"
              />
            )}
            <DimLines dims={dims} />
            <Title stations={middle} row={l.forged} layout={l}>
              {title}
            </Title>
            <Title stations={plan.drawing.finished} row={l.finished} layout={l}>
              {finishedTitle}
            </Title>
          </svg>
          <svg
            width={l.widthPx}
            height={l.heightPx}
            className="pointer-events-none absolute inset-0 [&_.handle]:pointer-events-auto"
            aria-label={say("bench.handles")}
            role="group"
          >
            {nodes?.picture && (
              <PictureGrip
                picture={nodes.picture}
                layout={l}
                mode={nodes.pictureMode}
                points={nodes.picturePoints}
                onPoint={nodes.onPicturePoint}
              />
            )}
            {nodes ? (
              <Nodes
                plan={plan}
                layout={l}
                units={units}
                rules={nodes.rules}
                chosen={nodes.chosen}
                onChoose={nodes.onChoose}
                onHold={hold}
              />
            ) : (
              <Handles plan={plan} layout={l} units={units} selected={selected} onHold={hold} />
            )}
          </svg>
          <DimFields dims={dims} />
          <Findings plan={plan} layout={l} units={units} />
        </div>
      </section>
    </div>
  );
});
