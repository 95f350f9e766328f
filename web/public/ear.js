// Gathers what the microphone hears and hands it on to the page; nothing is kept.
class Ear extends AudioWorkletProcessor {
  constructor() {
    super();
    this.kept = new Float32Array(2048);
    this.n = 0;
  }

  process(inputs) {
    const heard = inputs[0]?.[0];
    if (!heard) return true;
    for (const x of heard) {
      this.kept[this.n++] = x;
      if (this.n === this.kept.length) {
        this.port.postMessage(this.kept, [this.kept.buffer]);
        this.kept = new Float32Array(2048);
        this.n = 0;
      }
    }
    return true;
  }
}

registerProcessor("ear", Ear);
