/** A list with one of it a place earlier or later. */
export function moved(list: string[], id: string, by: number): string[] {
  const at = list.indexOf(id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= list.length) return list;
  const out = [...list];
  out.splice(at, 1);
  out.splice(to, 0, id);
  return out;
}

/** The time of the day so many minutes after it began: "14:05". */
export function clockAt(begin: Date, minutes: number): string {
  const t = new Date(begin.getTime() + Math.round(minutes) * 60_000);
  return `${String(t.getHours()).padStart(2, "0")}:${String(t.getMinutes()).padStart(2, "0")}`;
}
