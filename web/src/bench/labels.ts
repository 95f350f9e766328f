/** A box on the drawing: its middle, and how wide and high it is, px. */
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** A label that wants a place: the places it may have, the best first. */
export interface Wish {
  id: string;
  w: number;
  h: number;
  at: [number, number][];
}

/** Room that labels keep from each other, px. */
const apart = 2;

/** How much of their area two boxes share, px². */
export function shared(a: Box, b: Box): number {
  const across = (a.w + b.w) / 2 + apart - Math.abs(a.x - b.x);
  const up = (a.h + b.h) / 2 + apart - Math.abs(a.y - b.y);
  return across > 0 && up > 0 ? across * up : 0;
}

/**
 * Gives every label a place of its own: each has the first of its places that is free of all that
 * were placed before it, and of what stands there already. One that finds none has the place where it is in
 * the way least.
 */
export function place(wishes: Wish[], taken: Box[] = []): Map<string, Box> {
  const placed: Box[] = [...taken];
  const out = new Map<string, Box>();
  for (const wish of wishes) {
    let best: Box | undefined;
    let least = Number.POSITIVE_INFINITY;
    for (const [x, y] of wish.at) {
      const box = { x, y, w: wish.w, h: wish.h };
      const in_the_way = placed.reduce((sum, p) => sum + shared(box, p), 0);
      if (in_the_way < least) {
        best = box;
        least = in_the_way;
      }
      if (in_the_way === 0) break;
    }
    if (!best) continue;
    placed.push(best);
    out.set(wish.id, best);
  }
  return out;
}

/**
 * Places around a spot, the nearest first: so many steps to either side on each of so many lines, which go on
 * from the first by so many px (up where that is less than nought).
 */
export function around(
  x: number,
  y: number,
  { side, sides, line, lines }: { side: number; sides: number; line: number; lines: number },
): [number, number][] {
  const out: { at: [number, number]; far: number }[] = [];
  for (let l = 0; l < lines; l++)
    for (let s = -sides; s <= sides; s++)
      out.push({ at: [x + s * side, y + l * line], far: Math.abs(s) * side + l * Math.abs(line) * 1.6 });
  return out.sort((a, b) => a.far - b.far).map((o) => o.at);
}

/** How wide a text is in the narrow face, px: a little more than it is. */
export const textPx = (text: string, size: number): number => text.length * size * 0.5 + 4;
