/** The incandescent colour of steel at a temperature, for drawing only. */
const stops: [number, [number, number, number]][] = [
  [20, [86, 94, 98]],
  [480, [74, 74, 76]],
  [550, [92, 44, 40]],
  [650, [128, 34, 24]],
  [730, [160, 40, 24]],
  [790, [188, 48, 26]],
  [850, [210, 62, 28]],
  [920, [224, 84, 30]],
  [980, [236, 108, 34]],
  [1050, [243, 138, 44]],
  [1120, [248, 172, 64]],
  [1180, [251, 202, 92]],
  [1250, [254, 230, 150]],
  [1300, [255, 246, 220]],
];

export function glow(c: number): string {
  let i = 1;
  while (i < stops.length - 1 && c > (stops[i]?.[0] ?? 0)) i++;
  const [t0, a] = stops[i - 1] ?? [0, [0, 0, 0]];
  const [t1, b] = stops[i] ?? [1, [0, 0, 0]];
  const f = Math.min(1, Math.max(0, (c - t0) / (t1 - t0)));
  return `rgb(${a.map((v, k) => Math.round(v + ((b[k] ?? v) - v) * f)).join(" ")})`;
}
