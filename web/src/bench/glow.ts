import paint from "../../../core/colour/paint.json";

/** Cold steel, and steel that does not glow yet; from its first glow on it is painted as the core says it is seen. */
const stops: [number, [number, number, number]][] = [
  [20, [86, 94, 98]],
  [480, [74, 74, 76]],
  ...paint.map(([c = 0, r = 0, g = 0, b = 0]): [number, [number, number, number]] => [c, [r, g, b]]),
];

/** The colour of steel at a temperature in dim light, for drawing only. */
export function glow(c: number): string {
  let i = 1;
  while (i < stops.length - 1 && c > (stops[i]?.[0] ?? 0)) i++;
  const [t0, a] = stops[i - 1] ?? [0, [0, 0, 0]];
  const [t1, b] = stops[i] ?? [1, [0, 0, 0]];
  const f = Math.min(1, Math.max(0, (c - t0) / (t1 - t0)));
  return `rgb(${a.map((v, k) => Math.round(v + ((b[k] ?? v) - v) * f)).join(" ")})`;
}
