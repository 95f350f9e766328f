import type { StockItem } from "../api/client";
import { say } from "../text/say";

interface Props {
  piece: StockItem;
  /** Box that the drawing fits, px. */
  width: number;
  height: number;
  /** Share of a bar's length that is spoken for, drawn dashed from its end. */
  takenShare?: number;
  /** px a mm; found from the box if not given. */
  scale?: number;
}

const v = (n: number | undefined) => n ?? 0;

/** A piece of stock drawn from its own dimensions: along, and its section or end beside it. */
export function Drawn({ piece: p, width, height, takenShare = 0, scale }: Props) {
  const [w, h] = extent(p);
  const k = scale ?? Math.min((width - 4) / Math.max(w, 1), (height - 4) / Math.max(h, 1));
  const wide = Math.min(width, w * k + 4);
  const high = Math.max(10, Math.min(height, h * k + 4));
  return (
    <svg
      className="h-auto max-w-full"
      // on a narrow screen those of a list shrink alike, so that they stay on one scale
      style={{ width: scale ? `min(${wide}px, ${(wide / width) * 100}%)` : wide }}
      viewBox={`-2 -2 ${wide} ${high}`}
      role="img"
      aria-label={say(`form.${p.form}`)}
      fill="var(--line)"
      stroke="var(--chalk)"
      strokeWidth="1.2"
      strokeLinejoin="round"
    >
      <Body p={p} k={k} takenShare={takenShare} />
    </svg>
  );
}

/** What the drawing takes up, mm. */
export function extent(p: StockItem): [number, number] {
  switch (p.form) {
    case "ball":
      return [v(p.diameterMm), v(p.diameterMm)];
    case "disc":
      return [v(p.diameterMm), v(p.diameterMm) * (v(p.shareFraction) <= 0.5 ? 0.5 : 1)];
    case "race":
      return [v(p.outerDiameterMm) + 12 + v(p.widthMm), v(p.outerDiameterMm)];
    case "coil":
      return [Math.max(1, v(p.turns)) * v(p.pitchMm) + v(p.wireDiameterMm), v(p.meanDiameterMm) + v(p.wireDiameterMm)];
    case "leaf":
      return [v(p.chordMm), v(p.riseMm) + v(p.thicknessMm)];
    case "chain":
      return [
        v(p.linkLengthMm) + (Math.max(1, v(p.links)) - 1) * (v(p.linkLengthMm) - 2 * v(p.wireDiameterMm)),
        v(p.linkWidthMm),
      ];
    case "taperedRound":
      return [v(p.lengthMm), Math.max(v(p.startDiameterMm), v(p.endDiameterMm))];
    case "taperedFlat":
      return [v(p.lengthMm), Math.max(v(p.startWidthMm), v(p.endWidthMm))];
    case "layers":
      return [v(p.lengthMm), (p.layers ?? []).reduce((t, l) => t + l.count * l.thicknessMm, 0)];
    default:
      return [v(p.lengthMm), v(p.widthMm) || v(p.sideMm) || v(p.diameterMm) || v(p.acrossFlatsMm)];
  }
}

function Body({ p, k, takenShare }: { p: StockItem; k: number; takenShare: number }) {
  const [w, h] = extent(p);
  switch (p.form) {
    case "ball":
      return <circle cx={(w * k) / 2} cy={(h * k) / 2} r={(w * k) / 2} />;
    case "disc": {
      const r = (w * k) / 2;
      const hole = (v(p.innerDiameterMm) * k) / 2;
      return v(p.shareFraction) <= 0.5 ? (
        <path
          d={`M0,${r}A${r},${r} 0 0 1 ${2 * r},${r}H${r + hole}A${hole},${hole} 0 0 0 ${r - hole},${r}Z`}
          fillRule="evenodd"
        />
      ) : (
        <g>
          <circle cx={r} cy={r} r={r} />
          {hole > 0 && <circle cx={r} cy={r} r={hole} fill="var(--plate)" />}
        </g>
      );
    }
    case "race": {
      const r = (v(p.outerDiameterMm) * k) / 2;
      return (
        <g>
          <circle cx={r} cy={r} r={r} />
          <circle cx={r} cy={r} r={(v(p.innerDiameterMm) * k) / 2} fill="var(--plate)" />
          <rect x={2 * r + 12 * k} y={0} width={v(p.widthMm) * k} height={2 * r} />
        </g>
      );
    }
    case "coil": {
      const d = v(p.wireDiameterMm) * k;
      const half = (v(p.pitchMm) * k) / 2;
      const halves = Math.max(1, Math.round(v(p.turns) * 2));
      const points = Array.from(
        { length: halves + 1 },
        (_, i) => `${(d / 2 + i * half).toFixed(1)},${(i % 2 ? h * k - d / 2 : d / 2).toFixed(1)}`,
      );
      return (
        <path
          d={`M${points.join("L")}`}
          fill="none"
          strokeWidth={Math.max(1.2, d * 0.7)}
          strokeLinecap="round"
          opacity="0.8"
        />
      );
    }
    case "leaf": {
      const c = v(p.chordMm) * k;
      const rise = v(p.riseMm) * k;
      const t = v(p.thicknessMm) * k;
      return <path d={`M0,${rise}Q${c / 2},${-rise} ${c},${rise}v${t}Q${c / 2},${t - rise} 0,${rise + t}Z`} />;
    }
    case "chain": {
      const l = v(p.linkLengthMm) * k;
      const wide = v(p.linkWidthMm) * k;
      const d = v(p.wireDiameterMm) * k;
      return (
        <g fill="none" strokeWidth={Math.max(1.2, d * 0.8)} opacity="0.8">
          {Array.from({ length: Math.min(12, Math.max(1, Math.round(v(p.links)))) }, (_, i) => (
            <rect
              // biome-ignore lint/suspicious/noArrayIndexKey: links have no names
              key={i}
              x={i * (l - 2 * d) + d / 2}
              y={d / 2}
              width={l - d}
              height={wide - d}
              rx={(wide - d) / 2}
            />
          ))}
        </g>
      );
    }
    case "taperedRound":
    case "taperedFlat": {
      const a = (p.form === "taperedFlat" ? v(p.startWidthMm) : v(p.startDiameterMm)) * k;
      const b = (p.form === "taperedFlat" ? v(p.endWidthMm) : v(p.endDiameterMm)) * k;
      const m = (h * k) / 2;
      return (
        <g>
          <path d={`M0,${m - a / 2}L${w * k},${m - b / 2}V${m + b / 2}L0,${m + a / 2}Z`} />
          <DeadMarks p={p} k={k} w={w} h={h} />
        </g>
      );
    }
    case "layers": {
      let y = 0;
      return (
        <g>
          {(p.layers ?? []).flatMap((l, n) =>
            Array.from({ length: Math.min(60, l.count) }, (_, i) => {
              const at = y;
              y += l.thicknessMm * k;
              return (
                <rect
                  // biome-ignore lint/suspicious/noArrayIndexKey: layers have no names
                  key={`${n}-${i}`}
                  x="0"
                  y={at}
                  width={w * k}
                  height={l.thicknessMm * k}
                  fillOpacity={n % 2 ? 0.4 : 1}
                />
              );
            }),
          )}
        </g>
      );
    }
    default:
      return <Straight p={p} k={k} w={w} h={Math.max(h, 6 / k)} takenShare={takenShare} />;
  }
}

/** A bar with its dead stretches hatched, and what is spoken for dashed. */
function Straight({ p, k, w, h, takenShare }: { p: StockItem; k: number; w: number; h: number; takenShare: number }) {
  const free = w * k * (1 - Math.max(0, Math.min(1, takenShare)));
  return (
    <g>
      <rect x="0" y="0" width={w * k} height={h * k} fill="none" stroke="var(--quiet)" strokeDasharray="4 3" />
      <rect x="0" y="0" width={free} height={h * k} />
      <DeadMarks p={p} k={k} w={w} h={h} />
      {p.form === "tube" && (
        <path
          d={`M0,${v(p.wallMm) * k}H${w * k}M0,${(h - v(p.wallMm)) * k}H${w * k}`}
          stroke="var(--quiet)"
          strokeDasharray="3 3"
        />
      )}
    </g>
  );
}

/** Stretches that do not go into a blade. */
function DeadMarks({ p, k, w, h }: { p: StockItem; k: number; w: number; h: number }) {
  return (
    <>
      {(p.dead ?? []).map((d) => (
        <path
          key={`${d.fromMm}-${d.toMm}`}
          d={`M${d.fromMm * k},0H${Math.min(d.toMm, w) * k}V${h * k}H${d.fromMm * k}ZM${d.fromMm * k},${h * k}L${Math.min(d.toMm, w) * k},0`}
          fill="var(--plate)"
          stroke="var(--quiet)"
        >
          <title>{say(`why.dead.${d.why}`)}</title>
        </path>
      ))}
    </>
  );
}
