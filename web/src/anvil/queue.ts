import type { Event } from "./core";

/** What waits to be sent, kept in the browser so that it outlives a reload. */
export interface Kept {
  seq: number;
  queue: Event[];
  refused: NotTaken[];
}

/** An event that the server would not take, with what it said. */
export interface NotTaken {
  event: Event;
  messages: string[];
}

const prefix = "coldember.fire.";
const keyOf = (session: string, device: string) => `${prefix}${session}.${device}`;

const key = "coldember.screen";
let claimed: Promise<string> | undefined;

/** The name of this screen, held for as long as its window is open: a window that was doubled takes another. */
export function claimName(): Promise<string> {
  claimed ??= hold(deviceName()).then((mine) => {
    if (mine) return deviceName();
    sessionStorage.removeItem(key);
    return hold(deviceName()).then(deviceName);
  });
  return claimed;
}

/** Holds a name, if no other window does. */
function hold(name: string): Promise<boolean> {
  if (!navigator.locks) return Promise.resolve(true);
  return new Promise((done) => {
    void navigator.locks.request(`${key}.${name}`, { ifAvailable: true }, (lock) => {
      done(!!lock);
      return lock ? new Promise(() => {}) : undefined;
    });
  });
}

/** The name of this screen: it stays over a reload. */
export function deviceName(): string {
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
export function without(k: Kept, ids: Set<string>, refused: NotTaken[]): Kept {
  return { seq: k.seq, queue: k.queue.filter((e) => !ids.has(e.id)), refused: [...k.refused, ...refused] };
}
