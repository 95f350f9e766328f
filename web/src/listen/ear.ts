import { core, read } from "../anvil/core";

/** What was struck, and what it means. */
export interface Heard {
  count: { blows: number; paused: boolean };
  signs: ("firstBlow" | "lastBlow")[] | null;
  hits: { kind: "heard" | "blow" | "tap" | "far" }[] | null;
  learned: number;
  wanted: number;
  /** It knows this anvil, and counts. */
  known: boolean;
  /** Sounds since the piece came out that may have been blows. */
  unsure: number;
  anvil?: unknown;
}

/** Why a screen cannot listen. */
export type Deaf = "insecure" | "refused" | "none";

const anvilKey = "coldember.ear.anvil";

/** Whether this page may listen at all: browsers let only a secure page. */
const canListen = (): boolean => globalThis.isSecureContext === true && Boolean(navigator.mediaDevices);

export interface Ear {
  fresh(out: boolean): void;
  /** Learns from the step, which had so many blows; false where too little was heard. */
  teach(blows: number): boolean;
  forget(): void;
  close(): void;
}

/**
 * Opens the microphone and lets the core hear it. The sound goes from the microphone to the core and nowhere else; what
 * is kept is how loud blows on this anvil are.
 */
export async function openEar(told: (h: Heard) => void): Promise<Ear | Deaf> {
  if (!canListen()) return "insecure";
  let stream: MediaStream;
  try {
    // what a browser does for voices would take the blows away
    stream = await navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    });
  } catch (e) {
    return e instanceof DOMException && e.name === "NotFoundError" ? "none" : "refused";
  }
  const context = new AudioContext();
  const f = await core();
  const begin = (anvil: string) => read<boolean>(f.earOpen(context.sampleRate, anvil));
  begin(localStorage.getItem(anvilKey) ?? "{}");
  await context.audioWorklet.addModule("/ear.js");
  const source = context.createMediaStreamSource(stream);
  const node = new AudioWorkletNode(context, "ear", { numberOfOutputs: 0 });
  node.port.onmessage = (m: MessageEvent<Float32Array>) => {
    const h = read<Heard>(f.hear(new Uint8Array(m.data.buffer)));
    if (h.anvil) localStorage.setItem(anvilKey, JSON.stringify(h.anvil));
    told(h);
  };
  source.connect(node);
  const wake = () => void context.resume();
  addEventListener("pointerdown", wake);
  addEventListener("keydown", wake);
  wake();
  return {
    fresh: (out) => void read<boolean>(f.earFresh(out)),
    teach: (blows) => {
      const t = read<{ taught: boolean; anvil: unknown }>(f.earTeach(blows));
      if (t.taught) localStorage.setItem(anvilKey, JSON.stringify(t.anvil));
      return t.taught;
    },
    forget: () => {
      localStorage.removeItem(anvilKey);
      begin("{}");
    },
    close: () => {
      removeEventListener("pointerdown", wake);
      removeEventListener("keydown", wake);
      node.port.onmessage = null;
      for (const t of stream.getTracks()) t.stop();
      void context.close();
    },
  };
}
