import { beforeEach, describe, expect, it, vi } from "vitest";
import { type Edit, type FieldMessage, type PieceAnswer, Refused } from "../api/client";
import { answerOf } from "../test/plan";
import { type Calls, Draft } from "./draft";

const refuse = (status: number, field: string, message: string, current?: unknown) =>
  new Refused({
    title: "",
    status,
    code: status === 409 ? "problem.stale" : "problem.invalid",
    detail: message,
    current,
    fields: [{ field, code: "x", message, offset: 2 } as FieldMessage],
  });

/** A server of numbers: lengths that are numbers are taken, others refused. */
class Fake implements Calls {
  version = 1;
  length = 100;
  previews: Edit[][] = [];
  saves: Edit[][] = [];
  hold: (() => void)[] = [];
  slow = false;
  far = false;
  offline = false;
  refusal = "";

  private apply(edits: Edit[]): number {
    let length = this.length;
    for (const e of edits) {
      if (e.field !== "design.lengthMm") continue;
      const n = Number(e.text);
      if (Number.isNaN(n)) throw refuse(422, e.field, "not a figure");
      length = n;
    }
    return length;
  }
  async preview(_: unknown, edits: Edit[]) {
    this.previews.push(edits);
    if (this.slow) await new Promise<void>((go) => this.hold.push(go));
    const a = answerOf(this.apply(edits), this.version);
    return { doc: a.piece.doc, plan: a.plan };
  }
  async save(_: string, version: number, edits: Edit[]): Promise<PieceAnswer> {
    this.saves.push(edits);
    if (this.far) await new Promise((go) => setTimeout(go, 100));
    if (this.offline) throw new TypeError("failed to fetch");
    if (this.refusal) throw refuse(507, "", this.refusal);
    if (version !== this.version) throw refuse(409, "", "stale", answerOf(this.length, this.version).piece);
    this.length = this.apply(edits);
    this.version++;
    return answerOf(this.length, this.version);
  }
  async step(): Promise<PieceAnswer> {
    this.version++;
    this.length = 100;
    return answerOf(this.length, this.version);
  }
  async load(): Promise<PieceAnswer> {
    return answerOf(this.length, this.version);
  }
}

const settle = () => vi.advanceTimersByTimeAsync(0);

describe("the draft", () => {
  let server: Fake;
  let shelf: Map<string, string>;
  const store = {
    getItem: (k: string) => shelf.get(k) ?? null,
    setItem: (k: string, v: string) => void shelf.set(k, v),
    removeItem: (k: string) => void shelf.delete(k),
  };
  const open = () => new Draft(answerOf(server.length, server.version), "mm", server, store);
  beforeEach(() => {
    vi.useFakeTimers();
    server = new Fake();
    shelf = new Map();
  });

  it("previews at once and saves within a second", async () => {
    const d = open();
    d.type("design.lengthMm", "120");
    expect(d.get().save).toBe("waiting");
    await settle();
    expect(d.get().doc.request.design.lengthMm).toBe(120);
    expect(server.saves).toHaveLength(0);
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.saves).toEqual([[{ field: "design.lengthMm", text: "120", units: "mm" }]]);
    expect(d.get().save).toBe("saved");
    expect(d.get().typed).toEqual({});
    expect(shelf.size).toBe(0);
  });

  it("has one preview in flight and only the newest queued", async () => {
    server.slow = true;
    const d = open();
    for (const t of ["101", "102", "103", "104"]) d.type("design.lengthMm", t);
    expect(server.previews).toHaveLength(1);
    server.hold.shift()?.();
    await settle();
    expect(server.previews).toHaveLength(2);
    expect(server.previews[1]?.[0]?.text).toBe("104");
    expect(d.get().doc.request.design.lengthMm).toBe(101);
    server.hold.shift()?.();
    await settle();
    expect(d.get().doc.request.design.lengthMm).toBe(104);
  });

  it("keeps what cannot be, says why, and saves the rest", async () => {
    const d = open();
    d.type("design.lengthMm", "12 furlongs");
    d.type("design.heightMm", "30");
    await vi.advanceTimersByTimeAsync(1500);
    const s = d.get();
    expect(s.typed).toEqual({ "design.lengthMm": "12 furlongs" });
    expect(s.errors["design.lengthMm"]?.message).toBe("not a figure");
    expect(s.save).toBe("wrong");
    expect(server.saves.at(-1)?.map((e) => e.field)).toEqual(["design.heightMm"]);
    expect(shelf.get("coldember.typed.p1")).toContain("furlongs");
    const again = open();
    await settle();
    expect(again.get().typed["design.lengthMm"]).toBe("12 furlongs");
    expect(again.get().errors["design.lengthMm"]).toBeDefined();
    again.revert("design.lengthMm");
    await settle();
    expect(again.get().save).toBe("saved");
    expect(shelf.size).toBe(0);
  });

  it("tells of another window and lets either version stand", async () => {
    const d = open();
    server.length = 111;
    server.version = 5;
    d.type("design.lengthMm", "120");
    await vi.advanceTimersByTimeAsync(1000);
    expect(d.get().save).toBe("stale");
    expect(d.get().theirs?.doc.request.design.lengthMm).toBe(111);
    expect(d.get().typed["design.lengthMm"]).toBe("120");
    await d.settle("mine");
    expect(server.length).toBe(120);
    expect(d.get().save).toBe("saved");
    server.version = 9;
    server.length = 90;
    d.type("design.lengthMm", "121");
    await vi.advanceTimersByTimeAsync(1000);
    await d.settle("theirs");
    expect(d.get().doc.request.design.lengthMm).toBe(90);
    expect(d.get().typed).toEqual({});
  });

  it("tries again when the server was away", async () => {
    const d = open();
    server.offline = true;
    d.type("design.lengthMm", "120");
    await vi.advanceTimersByTimeAsync(600);
    expect(d.get().save).toBe("offline");
    expect(shelf.size).toBe(1);
    server.offline = false;
    await vi.advanceTimersByTimeAsync(2500);
    expect(d.get().save).toBe("saved");
    expect(server.length).toBe(120);
  });

  it("tells a server that refuses from one that is away, keeps what was typed and does not hammer", async () => {
    const d = open();
    server.refusal = "The disk is full.";
    d.type("design.lengthMm", "120");
    await vi.advanceTimersByTimeAsync(600);
    expect(d.get().save).toBe("refused");
    expect(d.get().refusal).toBe("The disk is full.");
    expect(d.get().typed["design.lengthMm"]).toBe("120");
    expect(shelf.size).toBe(1);
    await vi.advanceTimersByTimeAsync(10 * 60_000);
    expect(server.saves.length).toBeGreaterThan(8);
    expect(server.saves.length).toBeLessThan(18);
    server.refusal = "";
    d.tryNow();
    await vi.advanceTimersByTimeAsync(100);
    expect(d.get().save).toBe("saved");
    expect(server.length).toBe(120);
  });

  it("saves what is typed before it undoes", async () => {
    const d = open();
    d.type("design.lengthMm", "120");
    await d.undo();
    expect(server.saves).toHaveLength(1);
    expect(d.get().doc.request.design.lengthMm).toBe(100);
  });

  it("saves one after the other, however many ask while one is on its way", async () => {
    server.far = true;
    const d = open();
    d.type("design.lengthMm", "120");
    const first = d.flush();
    d.type("design.lengthMm", "130");
    const all = [first, d.flush(), d.flush(), d.flush()];
    await vi.advanceTimersByTimeAsync(2000);
    await Promise.all(all);
    expect(d.get().save).toBe("saved");
    expect(server.length).toBe(130);
    expect(server.saves).toHaveLength(2);
  });

  it("does not draw a preview that a save has overtaken", async () => {
    server.slow = true;
    const d = open();
    d.type("design.lengthMm", "120");
    await d.flush();
    expect(d.get().doc.request.design.lengthMm).toBe(120);
    server.length = 130;
    server.hold.shift()?.();
    await settle();
    expect(d.get().save).toBe("saved");
    expect(d.get().doc.request.design.lengthMm).toBe(120);
  });
});
