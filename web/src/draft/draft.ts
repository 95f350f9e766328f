import {
  api,
  ask,
  type Doc,
  type Edit,
  type FieldMessage,
  type Piece,
  type PieceAnswer,
  type Plan,
  Refused,
} from "../api/client";
import type { System } from "../units/print";
import { putUp, type Typed, takeDown } from "./shelf";

/** Where the work stands with the server. */
type SaveState = "saved" | "waiting" | "saving" | "wrong" | "offline" | "refused" | "stale";

export interface DraftState {
  /** The piece as it was last saved, with the version that the next save builds on. */
  piece: Piece;
  /** The document with everything typed that can be, as the newest preview answered. */
  doc: Doc;
  /** The plan of that document. */
  plan: Plan;
  /** What was typed and is not saved yet, by field; text that cannot be stays here. */
  typed: Typed;
  /** What is wrong with what was typed, by field; cleared when the field is typed into. */
  errors: Record<string, FieldMessage>;
  /** Where the work stands with the server. */
  save: SaveState;
  /** Why the server refuses to save, in its words, while it does: a full disk, a file that can only be read. */
  refusal?: string;
  /** What another window saved first, while it is asked whose is to be kept. */
  theirs?: Piece;
}

/** What the draft asks of the server; replaced in tests. */
export interface Calls {
  preview(doc: Doc, edits: Edit[]): Promise<{ doc: Doc; plan: Plan }>;
  save(id: string, version: number, edits: Edit[]): Promise<PieceAnswer>;
  step(id: string, version: number, way: "undo" | "redo"): Promise<PieceAnswer>;
  load(id: string): Promise<PieceAnswer>;
}

export const calls: Calls = {
  preview: (doc, edits) => ask(api.POST("/api/v1/plan/preview", { body: { doc, edits } })),
  save: (id, version, edits) =>
    ask(api.PATCH("/api/v1/pieces/{id}", { params: { path: { id } }, body: { version, edits } })),
  step: (id, version, way) =>
    way === "undo"
      ? ask(api.POST("/api/v1/pieces/{id}/undo", { params: { path: { id } }, body: { version } }))
      : ask(api.POST("/api/v1/pieces/{id}/redo", { params: { path: { id } }, body: { version } })),
  load: (id) => ask(api.GET("/api/v1/pieces/{id}", { params: { path: { id } } })),
};

const saveAfterMs = 500;
/** How long until a save that failed is tried again; twice as long every time, up to a minute. */
const retryAfterMs = 2000;
const retryAtMostMs = 60_000;

/**
 * The piece being edited. Everything typed is previewed at once (one preview in
 * flight, only the newest queued) and saved within a second; what cannot be is
 * kept as typed, with what is wrong beside it, and survives a reload.
 */
export class Draft {
  private state: DraftState;
  private listeners = new Set<() => void>();
  private previewing = false;
  private previewQueued = false;
  private saving: Promise<void> | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private retryMs = retryAfterMs;
  private generation = 0;

  constructor(
    answer: PieceAnswer,
    private units: System,
    private readonly ask: Calls = calls,
    private readonly store: Pick<Storage, "getItem" | "setItem" | "removeItem"> = localStorage,
  ) {
    this.state = {
      piece: answer.piece,
      doc: answer.piece.doc,
      plan: answer.plan,
      typed: {},
      errors: {},
      save: "saved",
    };
    for (const [f, t] of Object.entries(takeDown(this.store, answer.piece.id))) this.type(f, t);
  }

  readonly get = (): DraftState => this.state;

  readonly subscribe = (f: () => void): (() => void) => {
    this.listeners.add(f);
    return () => this.listeners.delete(f);
  };

  setUnits(u: System): void {
    this.units = u;
  }

  /** Takes what is being typed into a field. */
  readonly type = (field: string, text: string): void => {
    const { [field]: _, ...errors } = this.state.errors;
    this.set({ typed: { ...this.state.typed, [field]: text }, errors, save: "waiting" });
    this.preview();
    this.saveSoon(saveAfterMs);
  };

  /** Sets a choice: typed and saved at once. */
  readonly choose = (field: string, text: string): void => {
    this.type(field, text);
    void this.flush();
  };

  /** Forgets what was typed into a field. */
  readonly revert = (field: string): void => {
    if (!(field in this.state.typed)) return;
    this.drop([field]);
    this.preview();
  };

  readonly flush = async (): Promise<void> => {
    clearTimeout(this.timer);
    // several may be waiting: each looks again, so that two never save upon the same version
    while (this.saving) await this.saving;
    this.saving = this.saveNow().finally(() => {
      this.saving = undefined;
    });
    return this.saving;
  };

  readonly undo = (): Promise<void> => this.step("undo");
  readonly redo = (): Promise<void> => this.step("redo");

  /** Takes a piece that was changed elsewhere, such as by a file. */
  readonly replace = (a: PieceAnswer): void => this.take(a, this.state.typed);

  /** Another window saved a version of this piece: it is taken, where nothing is typed here that it would lose. */
  readonly heard = async (version: number): Promise<void> => {
    await this.saving;
    const { piece, typed, save } = this.state;
    if (version <= piece.version || save !== "saved" || Object.keys(typed).length > 0) return;
    const generation = this.generation;
    const now = await this.ask.load(piece.id);
    if (generation === this.generation && Object.keys(this.state.typed).length === 0) this.take(now, {});
  };

  /** After another window saved first: theirs, or ours over it. */
  readonly settle = async (whose: "theirs" | "mine"): Promise<void> => {
    const mine = this.state.typed;
    const now = await this.ask.load(this.state.piece.id);
    this.take(now, whose === "theirs" ? {} : mine);
    if (whose === "mine") await this.flush();
  };

  private set(patch: Partial<DraftState>): void {
    this.state = { ...this.state, ...patch };
    if (patch.typed) putUp(this.store, this.state.piece.id, patch.typed);
    for (const f of this.listeners) f();
  }

  private take(a: PieceAnswer, typed: Typed): void {
    this.generation++;
    const errors = Object.fromEntries(Object.entries(this.state.errors).filter(([f]) => f in typed));
    const save = Object.keys(typed).length === 0 ? "saved" : Object.keys(errors).length ? "wrong" : "waiting";
    this.set({ piece: a.piece, doc: a.piece.doc, plan: a.plan, typed, errors, save, theirs: undefined });
  }

  private drop(fields: string[]): void {
    const typed = { ...this.state.typed };
    const errors = { ...this.state.errors };
    for (const f of fields) {
      delete typed[f];
      delete errors[f];
    }
    this.set({ typed, errors, save: Object.keys(typed).length ? this.state.save : "saved" });
  }

  /** What can be sent: everything typed but what is known to be wrong. */
  private edits(): Edit[] {
    return Object.entries(this.state.typed)
      .filter(([field]) => !(field in this.state.errors))
      .map(([field, text]) => ({ field, text, units: this.units }));
  }

  private async preview(): Promise<void> {
    if (this.previewing) {
      this.previewQueued = true;
      return;
    }
    this.previewing = true;
    const generation = this.generation;
    const sent = this.edits();
    try {
      const { doc, plan } = await this.ask.preview(this.state.piece.doc, sent);
      if (generation === this.generation) this.set({ doc, plan });
    } catch (e) {
      if (generation === this.generation && this.wrong(e, sent)) this.previewQueued = true;
    } finally {
      this.previewing = false;
      if (this.previewQueued) {
        this.previewQueued = false;
        void this.preview();
      }
    }
  }

  /** Marks fields that the server refused; false if none was typed here or they have changed since. */
  private wrong(e: unknown, sent: Edit[]): boolean {
    if (!(e instanceof Refused) || e.problem.status !== 422) return false;
    const asSent = new Map(sent.map((s) => [s.field, s.text]));
    const errors = { ...this.state.errors };
    let found = false;
    for (const f of e.problem.fields ?? []) {
      const field = asSent.has(f.field) ? f.field : sent.length === 1 ? sent[0]?.field : undefined;
      if (field && this.state.typed[field] === asSent.get(field)) {
        errors[field] = f;
        found = true;
      }
    }
    if (!found && sent.length > 0) {
      // A field that the edit made impossible: the newest edit is the one to mend.
      const last = sent[sent.length - 1];
      const f = e.problem.fields?.[0];
      if (last && f && this.state.typed[last.field] === last.text) {
        errors[last.field] = f;
        found = true;
      }
    }
    if (found) this.set({ errors, save: "wrong" });
    return found;
  }

  /** Saves what waits at once, whatever was tried before. */
  readonly tryNow = (): void => {
    this.retryMs = retryAfterMs;
    void this.flush();
  };

  private saveSoon(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), ms);
  }

  private async saveNow(): Promise<void> {
    const sent = this.edits();
    if (sent.length === 0 || this.state.save === "stale") return;
    this.set({ save: "saving" });
    try {
      const a = await this.ask.save(this.state.piece.id, this.state.piece.version, sent);
      this.retryMs = retryAfterMs;
      const typed = { ...this.state.typed };
      for (const s of sent) if (typed[s.field] === s.text) delete typed[s.field];
      this.take(a, typed);
      if (this.edits().length > 0) {
        this.preview();
        this.saveSoon(saveAfterMs);
      }
    } catch (e) {
      if (e instanceof Refused && e.problem.status === 409) {
        this.set({ save: "stale", theirs: e.problem.current as Piece });
      } else if (this.wrong(e, sent)) {
        return this.saveNow();
      } else {
        this.set(e instanceof Refused ? { save: "refused", refusal: e.problem.detail } : { save: "offline" });
        this.saveSoon(this.retryMs);
        this.retryMs = Math.min(2 * this.retryMs, retryAtMostMs);
      }
    }
  }

  private async step(way: "undo" | "redo"): Promise<void> {
    await this.flush();
    try {
      this.take(await this.ask.step(this.state.piece.id, this.state.piece.version, way), {});
    } catch (e) {
      if (!(e instanceof Refused)) this.set({ save: "offline" });
      else if (e.problem.code === "problem.stale") this.set({ save: "stale", theirs: e.problem.current as Piece });
      else this.set({ save: "refused", refusal: e.problem.detail });
    }
  }
}
