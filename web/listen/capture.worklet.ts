// Runs on the browser's audio thread: gathers what sounds into pieces and sends them to the listening worker.

/** The part of the audio thread's surroundings that is used here. */
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void

/** Samples that the browser gives at a time. */
const QUANTUM = 128
/** So many go on their way together: 5 ms at 48 kHz. */
const PIECE = 256

class Capture extends AudioWorkletProcessor {
  #to: MessagePort | undefined
  #piece = new Float32Array(PIECE)
  #filled = 0

  constructor() {
    super()
    this.port.onmessage = ({ data }: MessageEvent<MessagePort>) => (this.#to = data)
  }

  process([channels]: Float32Array[][]): boolean {
    if (!channels || !this.#to) return true
    // A sound that is over has no channels: it is silence.
    for (let i = 0; i < (channels[0]?.length ?? QUANTUM); i++) {
      let sum = 0
      for (const channel of channels) sum += channel[i]!
      this.#piece[this.#filled++] = sum / Math.max(1, channels.length)
      if (this.#filled < PIECE) continue
      this.#to.postMessage(this.#piece, [this.#piece.buffer])
      this.#piece = new Float32Array(PIECE)
      this.#filled = 0
    }
    return true
  }
}

registerProcessor('capture', Capture)

// A module, for whoever imports it to try it.
export {}
