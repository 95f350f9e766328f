import type { Event } from "./core";

/** What waits to be sent, kept in the browser so that it outlives a reload. */
export interface Kept {
  seq: number;
  queue: Event[];
  refused: Refused[];
}

/** An event that the server would not take, with what it said. */
export interface Refused {
  event: Event;
  messages: string[];
}

const prefix = "coldember.fire.";
const keyOf = (session: string, device: string) => `${prefix}${session}.${device}`;

/** The name of this screen: it stays over a reload, and no other window has it. */
export function deviceName(): string {
  const key = "coldember.screen";
  let name = sessionStorage.getItem(key);
  if (!name) {
    name = Array.from(crypto.getRandomValues(new Uint8Array(6)), (b) => b.toString(16).padStart(2, "0")).join("");
    sessionStorage.setItem(key, name);
  }
  return name;
}

export function loadKept(session: string, device: string): Kept {
  try {
    const k = JSON.parse(localStorage.getItem(keyOf(session, device)) ?? "") as Kept;
    if (Number.isInteger(k.seq) && Array.isArray(k.queue) && Array.isArray(k.refused)) return k;
  } catch {
    // nothing is kept, or nothing that can be read
  }
  return { seq: 0, queue: [], refused: [] };
}

/** Keeps what waits; false where the browser has no room for it. */
export function keep(session: string, device: string, k: Kept): boolean {
  try {
    localStorage.setItem(keyOf(session, device), JSON.stringify(k));
    return true;
  } catch {
    return false;
  }
}

/** What other windows of this browser left behind unsent. */
export function leftBehind(session: string, device: string): { device: string; kept: Kept }[] {
  const out = [];
  for (let i = 0; i < localStorage.length; i++) {
    const key = localStorage.key(i);
    const start = `${prefix}${session}.`;
    if (!key?.startsWith(start)) continue;
    const other = key.slice(start.length);
    if (other === device) continue;
    const kept = loadKept(session, other);
    if (kept.queue.length > 0) out.push({ device: other, kept });
  }
  return out;
}

/** Takes what was sent out of what waits. */
export function without(k: Kept, ids: Set<string>, refused: Refused[]): Kept {
  return { seq: k.seq, queue: k.queue.filter((e) => !ids.has(e.id)), refused: [...k.refused, ...refused] };
}
