import type { Plan, Span, Station, Zone } from "../api/client";

/** How the bench is looked at. */
export interface View {
  widthPx: number;
  heightPx: number;
  zoom: number;
  /** Point to the right instead of the left. */
  flip: boolean;
  /** Scale held still while something is dragged, px a mm. */
  heldScale?: number;
  /** How many times its thickness the finished blade is drawn with, seen from the spine; 1 is true. */
  thickTimes?: number;
}

/** One drawing of the bench: its flat view and, below it, its spine view. */
export interface Row {
  titleY: number;
  /** y of the spine of the heel (flat view). */
  baseY: number;
  topY: number;
  bottomY: number;
  /** Centre line and half height of the spine view. */
  edgeOnY: number;
  edgeOnHalf: number;
  /** px a mm of thickness. */
  thickScale: number;
}

export interface Layout {
  scale: number;
  widthPx: number;
  heightPx: number;
  x: (mm: number) => number;
  barX: (mm: number) => number;
  /** Where a long bar is broken off, mm along the bar; empty if it is shown whole. */
  breaks: { fromMm: number; toMm: number }[];
  bar: Row;
  /** How far to the side of its flat view the bar is drawn from its narrow side, px; 0: below it. */
  barBesidePx: number;
  forged: Row;
  finished: Row;
}

const padPx = 72;
/** In a window narrower than this the drawing takes the whole width and scrolls down. */
const narrowPx = 560;
/** Room for chalk labels above the bar, and for a title above each drawing. */
const headPx = 54;
const titlePx = 24;
const edgeGapPx = 12;
/** Room under the forged shape for its readings. */
const readingPx = 40;
/** Ribbons are at least this long, and grow into what room is left. */
const ribbonPx = 26;
const ribbonMaxPx = 80;
const footPx = 66;
/** A bar longer than this many times everything else is broken off. */
const breakOver = 1.5;

export function extent(stations: Station[]): { top: number; bottom: number; thick: number; length: number } {
  let top = 0;
  let bottom = 0;
  let thick = 0;
  let length = 0;
  for (const s of stations) {
    top = Math.max(top, s.s, s.e);
    bottom = Math.min(bottom, s.e, s.s);
    thick = Math.max(thick, s.t);
    length = Math.max(length, s.x, s.sx ?? 0, s.ex ?? 0);
  }
  return { top, bottom, thick, length };
}

/** What the finished blade takes up with its handle on. */
function withHandle(plan: Plan, e: ReturnType<typeof extent>, times: number): ReturnType<typeof extent> {
  for (const part of plan.drawing.handle ?? []) {
    e.length = Math.max(e.length, part.toMm);
    e.thick = Math.max(e.thick, part.widthMm / times);
    for (const n of part.outline) {
      e.top = Math.max(e.top, n[1] ?? 0);
      e.bottom = Math.min(e.bottom, n[1] ?? 0);
    }
  }
  return e;
}

/** y of the blade's thickest face in the spine view of the finished blade: a handle may be thicker. */
export function spineFace(plan: Plan, l: Layout): number {
  return l.finished.edgeOnY - (extent(plan.drawing.finished).thick / 2) * l.finished.thickScale;
}

/** What the middle drawing takes up after any of the heats, so that nothing moves as they are gone through. */
function everyHeat(plan: Plan): ReturnType<typeof extent> {
  const e = extent(plan.drawing.forged);
  const all = plan.states;
  return {
    top: Math.max(e.top, all.topMm),
    bottom: Math.min(e.bottom, all.bottomMm),
    thick: Math.max(e.thick, all.thicknessMm),
    length: Math.max(e.length, all.toMm),
  };
}

/** Lays the three drawings out on one millimetre scale. */
export function layOut(plan: Plan, view: View): Layout {
  const forged = everyHeat(plan);
  const times = view.thickTimes ?? 1;
  const finished = withHandle(plan, extent(plan.drawing.finished), times);
  const b = plan.bar;
  const others = Math.max(forged.length, finished.length, 1);
  const broken = b.cutLengthMm > breakOver * others;
  const barShown = broken ? others * 1.2 : b.cutLengthMm;
  const longest = Math.max(barShown, others);
  // a short bar has its second view beside the first, and leaves the height to the others
  const beside = barShown * 2 < longest * 0.8;
  const tall =
    b.widthMm +
    (beside ? 0 : b.thicknessMm) +
    forged.top -
    forged.bottom +
    forged.thick +
    finished.top -
    finished.bottom +
    finished.thick * times;
  const fixed = headPx + 2 * titlePx + 3 * edgeGapPx + readingPx + 2 * ribbonPx + footPx;
  const across = (view.widthPx - 2 * padPx) / longest;
  const fit = view.widthPx < narrowPx ? across : Math.min(across, (view.heightPx - fixed) / tall);
  const scale = view.heldScale ?? Math.max(0.2, fit) * view.zoom;
  const widthPx = Math.max(view.widthPx, longest * scale + 2 * padPx);
  const x = (mm: number) => (view.flip ? widthPx - padPx - mm * scale : padPx + mm * scale);
  const breaks = broken ? breaksOf(b.marks, b.cutLengthMm - barShown) : [];
  const barX = (mm: number) => {
    let hidden = 0;
    for (const g of breaks) hidden += Math.min(Math.max(0, mm - g.fromMm), g.toMm - g.fromMm);
    return x(mm - hidden);
  };

  const spare = view.heightPx - fixed - tall * scale;
  const ribbon = Math.min(ribbonMaxPx, ribbonPx + Math.max(0, spare) / 2.5);
  let y = 0;
  const row = (head: number, top: number, bottom: number, thick: number, after: number, times = 1): Row => {
    const topY = y + head;
    const titleY = topY - head + (head === headPx ? 16 : 15);
    const baseY = topY + top * scale;
    const bottomY = baseY - bottom * scale;
    const edgeOnHalf = Math.max(1.5, (thick * scale * times) / 2);
    const edgeOnY = bottomY + edgeGapPx + edgeOnHalf;
    y = edgeOnY + edgeOnHalf + after;
    return { titleY, topY, baseY, bottomY, edgeOnY, edgeOnHalf, thickScale: scale * times };
  };
  const bar = row(headPx, b.widthMm, 0, beside ? 0 : b.thicknessMm, ribbon);
  if (beside) {
    bar.edgeOnY = (bar.topY + bar.bottomY) / 2;
    bar.edgeOnHalf = Math.max(1.5, (b.thicknessMm * scale) / 2);
    y = Math.max(bar.bottomY, bar.edgeOnY + bar.edgeOnHalf) + ribbon;
  }
  const forgedRow = row(titlePx, forged.top, forged.bottom, forged.thick, readingPx + ribbon);
  const finishedRow = row(titlePx, finished.top, finished.bottom, finished.thick, footPx, times);
  return {
    scale,
    widthPx,
    heightPx: Math.max(view.heightPx, y),
    x,
    barX,
    breaks,
    bar,
    barBesidePx: beside ? (view.flip ? -1 : 1) * (barShown * scale + 44) : 0,
    forged: forgedRow,
    finished: finishedRow,
  };
}

/** Takes the hidden length out of the middle of every stretch, each by its share. */
function breaksOf(marks: Span[], hideMm: number): { fromMm: number; toMm: number }[] {
  const end = marks[marks.length - 1]?.toMm ?? 1;
  return marks.map((m) => {
    const mid = (m.fromMm + m.toMm) / 2;
    const half = ((m.toMm - m.fromMm) * hideMm) / end / 2;
    return { fromMm: mid - half, toMm: mid + half };
  });
}

/** No step between two stations; where the piece is bent they are compared by their height. */
function near(a: Station, b: Station): boolean {
  const high = (s: Station) => Math.hypot((s.sx ?? s.x) - (s.ex ?? s.x), s.s - s.e);
  if (a.sx !== undefined || b.sx !== undefined) return Math.abs(high(a) - high(b)) < 1.5;
  return Math.abs(a.s - b.s) < 0.75 && Math.abs(a.e - b.e) < 0.75;
}

/** Round a stretch: along its spine and back along its edge. */
export function outline(stations: Station[], at: (x: number, y: number) => string): string {
  const up = stations.map((s) => at(s.sx ?? s.x, s.s));
  const down = [...stations].reverse().map((s) => at(s.ex ?? s.x, s.e));
  return `M${up.join("L")}L${down.join("L")}Z`;
}

/** A line across every quarter turn of a twisted stretch, leaning the way it is twisted. */
export function twistPath(stations: Station[], at: (x: number, y: number) => string): string {
  let d = "";
  for (let i = 1; i < stations.length; i++) {
    const a = stations[i - 1];
    const b = stations[i];
    if (!a || !b) continue;
    const from = a.w ?? 0;
    const turned = (b.w ?? 0) - from;
    for (let quarter = Math.floor(from / 90) + 1; turned > 0 && quarter * 90 <= from + turned; quarter++) {
      const f = (quarter * 90 - from) / turned;
      const mix = (p: number, q: number) => p + (q - p) * f;
      const lean = Math.abs(mix(a.s, b.s) - mix(a.e, b.e)) / 3;
      const edge = at(mix(a.ex ?? a.x, b.ex ?? b.x) - lean, mix(a.e, b.e));
      d += `M${edge}L${at(mix(a.sx ?? a.x, b.sx ?? b.x) + lean, mix(a.s, b.s))}`;
    }
  }
  return d;
}

/** Runs of stations of one zone, from the point back. */
export function runs(stations: Station[]): { zone: Zone; stations: Station[]; fromMm: number; toMm: number }[] {
  const out: { zone: Zone; stations: Station[]; fromMm: number; toMm: number }[] = [];
  for (const s of stations) {
    const last = out[out.length - 1];
    if (last && last.zone === s.z) {
      last.stations.push(s);
      last.toMm = Math.max(last.toMm, s.x);
      continue;
    }
    // The first station of a zone closes the one before where they share it (no step between).
    const prev = last?.stations[last.stations.length - 1];
    if (last && prev && near(prev, s)) {
      last.stations.push(s);
      last.toMm = s.x;
    }
    out.push({ zone: s.z, stations: [s], fromMm: s.x, toMm: s.x });
  }
  return out;
}

/** Hundredths of a px; several times as fast as toFixed, and paths are drawn anew each frame. */
const p = (n: number) => Math.round(n * 100) / 100;

/** Where a point of a piece lies in its flat view. */
export const onRow = (row: Row, l: Layout) => (x: number, y: number) => `${p(l.x(x))},${p(row.baseY - y * l.scale)}`;

/** Outline of stations in the flat view. */
export function flatPath(stations: Station[], row: Row, l: Layout): string {
  return outline(stations, onRow(row, l));
}

/** Outline of stations seen from the spine. */
export function edgeOnPath(stations: Station[], row: Row, l: Layout): string {
  let seen = Number.NEGATIVE_INFINITY; // an eye comes back over itself: seen once
  const out = stations.filter((s) => {
    if (s.x < seen) return false;
    seen = s.x;
    return true;
  });
  const up = out.map((s) => `${p(l.x(s.x))},${p(row.edgeOnY - (s.t * row.thickScale) / 2)}`);
  const down = out.reverse().map((s) => `${p(l.x(s.x))},${p(row.edgeOnY + (s.t * row.thickScale) / 2)}`);
  return `M${up.join("L")}L${down.join("L")}Z`;
}

/** A ribbon of matter between a stretch above and one below. */
export function ribbonPath(x0: number, x1: number, y0: number, x2: number, x3: number, y1: number): string {
  const m = (y0 + y1) / 2;
  return `M${p(x0)},${p(y0)}C${p(x0)},${p(m)} ${p(x2)},${p(m)} ${p(x2)},${p(y1)}L${p(x3)},${p(y1)}C${p(x3)},${p(m)} ${p(x1)},${p(m)} ${p(x1)},${p(y0)}Z`;
}
