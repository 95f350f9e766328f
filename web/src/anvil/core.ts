import type { components } from "../api/schema";

type Schemas = components["schemas"];
export type Course = Schemas["FireCourse"];
export type Step = Schemas["FireStep"];
export type Heat = Schemas["FireHeat"];
export type Event = Schemas["FireEvent"];
export type Shown = Schemas["FireShown"];
type Seen = Schemas["FireSeen"];
type Reading = Schemas["FireReading"];
export type Session = Schemas["Session"];
export type Quantity = Reading["quantity"];

/** What of an event cannot be, by field. */
export interface Wrong {
  field: string;
  code: string;
  figures?: Record<string, number>;
  found?: string;
}

/** The core's own fold of a session, the same code as on the server: a screen goes on alone with it. */
export interface Fold {
  open(course: Course): void;
  add(events: Event[]): void;
  drop(id: string): void;
  show(device: string, nowMs: number): Shown;
  check(event: Event): Wrong[];
  seen(typed: Record<string, string | undefined>, quick: boolean, units: string): { seen?: Seen; problems: Wrong[] };
  reading(q: Quantity, text: string, at: string, units: string): { reading?: Reading; problems: Wrong[] };
}

type Raw = Record<
  "open" | "add" | "drop" | "show" | "check" | "reading" | "seen" | "earOpen" | "earFresh" | "earTeach" | "hear",
  (...args: unknown[]) => string
>;

interface GoRuntime {
  importObject: WebAssembly.Imports;
  run(i: WebAssembly.Instance): Promise<void>;
}

declare global {
  var Go: (new () => GoRuntime) | undefined;
  var firescreen: Raw | undefined;
}

/** What a function of the core answered. */
export function read<T>(text: string): T {
  const v = JSON.parse(text) as T & { error?: string };
  if (v && typeof v === "object" && "error" in v && v.error) throw new Error(v.error);
  return v;
}

function runtime(): Promise<void> {
  if (globalThis.Go) return Promise.resolve();
  return new Promise((done, failed) => {
    const tag = document.createElement("script");
    tag.src = "/wasm_exec.js";
    tag.onload = () => done();
    tag.onerror = () => failed(new Error("wasm_exec.js"));
    document.head.append(tag);
  });
}

let loading: Promise<Raw> | undefined;

async function load(): Promise<Raw> {
  await runtime();
  if (!globalThis.Go) throw new Error("Go");
  const go = new globalThis.Go();
  const bytes = await fetch("/firescreen.wasm").then((r) => r.arrayBuffer());
  const { instance } = await WebAssembly.instantiate(bytes, go.importObject);
  void go.run(instance);
  if (!globalThis.firescreen) throw new Error("firescreen");
  return globalThis.firescreen;
}

/** The core itself, loaded once. */
export function core(): Promise<Raw> {
  loading ??= load();
  loading.catch(() => {
    loading = undefined;
  });
  return loading;
}

/** Loads the fold once; it answers for the course that was opened last. */
export async function fold(): Promise<Fold> {
  const f = await core();
  return {
    open: (c) => read<boolean>(f.open(JSON.stringify(c))) as unknown as undefined,
    add: (e) => read<boolean>(f.add(JSON.stringify(e))) as unknown as undefined,
    drop: (id) => read<boolean>(f.drop(id)) as unknown as undefined,
    show: (device, ms) => read<Shown>(f.show(device, ms)),
    check: (e) => read<Wrong[]>(f.check(JSON.stringify(e))),
    seen: (typed, quick, units) => read(f.seen(JSON.stringify(typed), quick, units)),
    reading: (q, text, at, units) => read(f.reading(q, text, at, units)),
  };
}
