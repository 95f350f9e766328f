import { api, ask, Refused } from "../api/client";
import { sent } from "./album";
import type { Event, Fold, Session, Shown, Wrong } from "./core";
import { type Kept, keep, leftBehind, loadKept, type NotTaken, without } from "./queue";

/** What a screen knows beside what happened. */
export interface LinkState {
  shown: Shown;
  waiting: number;
  refused: NotTaken[];
  /** Whether the server was reached last. */
  there: boolean;
  /** What the server said when it would not take what was sent: a full disk, for one. */
  trouble?: string;
  /** The clock of this device is off by a minute or more. */
  wrongClock: boolean;
  /** The browser has no room to keep what waits. */
  noRoom: boolean;
  /** A later plan of the piece was taken to the fire: this goes into the book of the earlier one. */
  replaced: boolean;
}

/** What is told: the rest of an event is the screen's own. */
export type Said = Pick<Event, "kind"> & Partial<Event>;

const most = 500;
const againMs = [500, 1000, 2000, 4000];
/** However it stands, the server is asked after this for what was missed. */
const lookMs = 5000;

/**
 * One screen's hold on a session. What is told here is shown at once and kept in the browser; it is sent when the
 * server can be reached, as often as it takes: an event that is sent twice counts once.
 */
export class Link {
  readonly session: Session;
  readonly device: string;
  private fold: Fold | undefined;
  private kept: Kept;
  private state: LinkState;
  private known = 0;
  private sending = false;
  private pulling: Promise<void> | undefined;
  private tries = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly looking: ReturnType<typeof setInterval>;
  private readonly listeners = new Set<() => void>();
  private closed = false;
  private ready = false;

  /**
   * Shows what the server says of the session at once; the fold comes when it is loaded and has read all that
   * happened, and from then on the screen goes on by itself.
   */
  constructor(session: Session, shown: Shown, fold: Promise<Fold>, device: string) {
    this.session = session;
    this.device = device;
    this.kept = loadKept(session.id, this.device);
    this.state = {
      shown,
      waiting: this.kept.queue.length,
      refused: this.kept.refused,
      there: true,
      wrongClock: false,
      noRoom: false,
      replaced: session.replaced,
    };
    this.looking = setInterval(() => void this.pull(), lookMs);
    addEventListener("online", this.hurry);
    fold.then(
      (f) => this.begin(f),
      (e: Error) => this.set({ trouble: e.message }),
    );
  }

  /** The fold is there: it shows nothing by itself before it knows all that happened. */
  private begin(fold: Fold): void {
    if (this.closed) return;
    fold.open(this.session.course);
    fold.add(this.session.events ?? []);
    fold.add(this.kept.queue);
    for (const other of leftBehind(this.session.id, this.device)) fold.add(other.kept.queue);
    this.fold = fold;
    this.known = this.session.events?.length ?? 0;
    this.countOwn(this.session.events ?? []);
    this.ready = this.session.events !== undefined || this.session.count === 0;
    this.tick();
    void this.pull().then(() => this.flush());
  }

  /** Goes on counting where this screen was, though the browser forgot. */
  private countOwn(events: Event[]): void {
    for (const e of events)
      if (e.device === this.device && e.seq > this.kept.seq) this.kept = { ...this.kept, seq: e.seq };
  }

  close(): void {
    this.closed = true;
    clearInterval(this.looking);
    clearTimeout(this.timer);
    removeEventListener("online", this.hurry);
  }

  subscribe = (f: () => void): (() => void) => {
    this.listeners.add(f);
    return () => {
      this.listeners.delete(f);
    };
  };

  get = (): LinkState => this.state;

  /** Works out what is shown at this moment. */
  tick = (): void => {
    if (this.ready && this.fold) this.set({ shown: this.fold.show(this.device, Date.now()) });
  };

  private set(s: Partial<LinkState>): void {
    this.state = { ...this.state, ...s };
    for (const f of this.listeners) f();
  }

  /** Tells what happened. What cannot be is answered, and nothing is told then. */
  tell(said: Said): Wrong[] {
    const fold = this.ready ? this.fold : undefined;
    // before all is known it follows what the server showed, or what was told since
    const saw = fold
      ? fold.show(this.device, Date.now()).state.lastId
      : (this.kept.queue.at(-1)?.id ?? this.state.shown.state.lastId);
    const seq = this.kept.seq + 1;
    const event: Event = {
      ...said,
      id: `${this.device}-${seq}-${Math.random().toString(36).slice(2, 8)}`,
      device: this.device,
      seq,
      atMs: Date.now(),
    };
    if (saw) event.saw = saw;
    const wrong = this.fold?.check(event) ?? [];
    if (wrong.length > 0) return wrong;
    this.hold({ ...this.kept, seq, queue: [...this.kept.queue, event] });
    this.fold?.add([event]);
    this.tick();
    void this.flush();
    return [];
  }

  /** Takes the last thing back. */
  takeBack(): void {
    const undo = this.ready && this.fold?.show(this.device, Date.now()).state.undoId;
    if (undo) this.tell({ kind: "undo", undoes: undo });
  }

  /** What was typed as a reading, in the smith's units. */
  reading = (...args: Parameters<Fold["reading"]>): ReturnType<Fold["reading"]> =>
    this.fold?.reading(...args) ?? { problems: [] };

  /** What was typed as seen of a step of the treatment. */
  seen = (...args: Parameters<Fold["seen"]>): ReturnType<Fold["seen"]> => this.fold?.seen(...args) ?? { problems: [] };

  /** Lets go of an event that was refused. */
  letGo(id: string): void {
    this.hold({ ...this.kept, refused: this.kept.refused.filter((r) => r.event.id !== id) });
  }

  private hold(k: Kept): void {
    this.kept = k;
    const noRoom = !keep(this.session.id, this.device, k);
    this.set({ waiting: k.queue.length, refused: k.refused, noRoom });
  }

  /** Tries again at once: there is news, or the line is back. */
  hurry = (): void => {
    this.tries = 0;
    clearTimeout(this.timer);
    void this.pull().then(() => this.flush());
  };

  private async flush(): Promise<void> {
    if (this.sending || this.closed) return;
    this.sending = true;
    try {
      while (this.kept.queue.length > 0) {
        await this.sendPictures();
        const batch = this.kept.queue.slice(0, most);
        const refused = await this.send(batch);
        for (const r of refused) this.fold?.drop(r.event.id);
        this.hold(without(this.kept, new Set(batch.map((e) => e.id)), refused));
      }
      for (const other of leftBehind(this.session.id, this.device)) {
        await this.send(other.kept.queue);
        keep(this.session.id, other.device, without(other.kept, new Set(other.kept.queue.map((e) => e.id)), []));
      }
      this.tries = 0;
      this.set({ there: true, trouble: undefined });
    } catch (e) {
      this.set({ there: false, trouble: e instanceof Refused ? e.problem.detail : undefined });
      if (!this.closed) {
        this.timer = setTimeout(() => void this.flush(), againMs[Math.min(this.tries++, againMs.length - 1)]);
      }
      return;
    } finally {
      this.sending = false;
    }
    await this.pull();
  }

  /** Pictures that waited here go first: what is told of them names them as the server does. */
  private async sendPictures(): Promise<void> {
    for (const e of this.kept.queue) {
      if (!e.picture) continue;
      const picture = await sent(e.picture);
      if (picture === e.picture) continue;
      const now = { ...e, picture };
      this.hold({ ...this.kept, queue: this.kept.queue.map((x) => (x.id === e.id ? now : x)) });
      this.fold?.add([now]);
    }
  }

  private async send(events: Event[]): Promise<NotTaken[]> {
    const heard = await ask(
      api.POST("/api/v1/sessions/{id}/events", {
        params: { path: { id: this.session.id } },
        body: { nowMs: Date.now(), events },
      }),
    );
    if (heard.wrongClock !== this.state.wrongClock || heard.replaced !== this.state.replaced)
      this.set({ wrongClock: heard.wrongClock, replaced: heard.replaced });
    const byId = new Map(events.map((e) => [e.id, e]));
    return heard.refused.flatMap((r) => {
      const event = byId.get(r.id);
      return event ? [{ event, messages: r.fields.map((f) => f.message) }] : [];
    });
  }

  /** Takes in what happened elsewhere. */
  pull(): Promise<void> {
    this.pulling ??= this.take().finally(() => {
      this.pulling = undefined;
    });
    return this.pulling;
  }

  private async take(): Promise<void> {
    if (this.closed || !this.fold) return;
    try {
      const news = await ask(
        api.GET("/api/v1/sessions/{id}/events", {
          params: { path: { id: this.session.id }, query: { after: this.known } },
        }),
      );
      const first = !this.ready;
      this.ready = true;
      if (news.events.length > 0 || first) {
        this.fold.add(news.events);
        this.known = news.count;
        this.countOwn(news.events);
        this.tick();
      }
      if (!this.state.there && this.kept.queue.length === 0) this.set({ there: true });
      else if (this.kept.queue.length > 0 && !this.sending) void this.flush();
    } catch (e) {
      this.set({ there: false, trouble: e instanceof Refused ? e.problem.detail : undefined });
    }
  }
}
