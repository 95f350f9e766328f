/** What was typed and is not saved yet, kept in this browser so that it survives a reload. */
export type Typed = Record<string, string>;

/** The form in which it is kept; a newer one, of a newer version of the page, is left alone. */
const shelfVersion = 2;

interface Kept {
  v: number;
  typed: Typed;
}

type Shelf = Pick<Storage, "getItem" | "setItem" | "removeItem">;

const key = (id: string) => `coldember.typed.${id}`;

const isTyped = (v: unknown): v is Typed =>
  typeof v === "object" && v !== null && !Array.isArray(v) && Object.values(v).every((t) => typeof t === "string");

/** Brings what was kept by an older page up to the present form; undefined where it cannot be read. */
function upcast(v: unknown): Kept | undefined {
  if (typeof v !== "object" || v === null) return undefined;
  if (!("v" in v)) return isTyped(v) ? { v: shelfVersion, typed: v } : undefined; // the first form had no version
  const { v: version, typed } = v as Kept;
  return version === shelfVersion && isTyped(typed) ? { v: shelfVersion, typed } : undefined;
}

/** What is kept of a piece. Storage that is broken, or that is not allowed, never gets in the way. */
export function takeDown(shelf: Shelf, id: string): Typed {
  try {
    const text = shelf.getItem(key(id));
    return (text && upcast(JSON.parse(text))?.typed) || {};
  } catch {
    return {};
  }
}

/** Keeps what is typed into a piece, or forgets it where nothing is. */
export function putUp(shelf: Shelf, id: string, typed: Typed): void {
  try {
    if (Object.keys(typed).length) shelf.setItem(key(id), JSON.stringify({ v: shelfVersion, typed } satisfies Kept));
    else shelf.removeItem(key(id));
  } catch {
    // full or not allowed: it is still on the page, and saved within a second
  }
}
