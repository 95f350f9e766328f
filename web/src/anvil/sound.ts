/** Tones and, where the browser has one, a voice: at the anvil the eyes are on the steel. */
let context: AudioContext | undefined;

/** A browser only sounds after it was touched. */
export function wakeSound(): void {
  try {
    context ??= new AudioContext();
    void context.resume();
  } catch {
    // no sound here
  }
}

export function tone(hz: number, seconds: number): void {
  if (context?.state !== "running") return;
  const note = context.createOscillator();
  const loud = context.createGain();
  const t = context.currentTime;
  note.frequency.value = hz;
  loud.gain.setValueAtTime(0.0001, t);
  loud.gain.exponentialRampToValueAtTime(0.4, t + 0.02);
  loud.gain.exponentialRampToValueAtTime(0.0001, t + seconds);
  note.connect(loud).connect(context.destination);
  note.start(t);
  note.stop(t + seconds);
}

/** Says words if there is a voice; tells whether there is one. */
export function speak(words: string): boolean {
  if (typeof speechSynthesis === "undefined" || speechSynthesis.getVoices().length === 0) return false;
  speechSynthesis.cancel();
  speechSynthesis.speak(new SpeechSynthesisUtterance(words));
  return true;
}
