/** How long a timer still runs, s: below nought it rang so long ago. */
export const leftS = (dueAt: string, nowMs: number): number => (new Date(dueAt).getTime() - nowMs) / 1000;

/** "1:23:05", "4:30", "0:09"; with a plus once it has rung. */
export function clock(s: number): string {
  const all = Math.abs(s < 0 ? Math.ceil(s) : Math.ceil(s));
  const h = Math.floor(all / 3600);
  const m = Math.floor((all % 3600) / 60);
  const two = (v: number) => String(v).padStart(2, "0");
  const text = h > 0 ? `${h}:${two(m)}:${two(all % 60)}` : `${m}:${two(all % 60)}`;
  return s < 0 ? `+${text}` : text;
}
