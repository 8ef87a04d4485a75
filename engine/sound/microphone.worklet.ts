// In the audio thread: gathers a microphone's blocks into chunks and posts them to the voice's worker.
import { CHUNK_FRAMES } from '../../core/sound/voice-chunk.ts'
import type { SourceChunk } from './voice-protocol.ts'

/** What this scope has beside the language; its own library of types clashes with the page's. */
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void

class MicrophoneProcessor extends AudioWorkletProcessor {
  #out: MessagePort | null = null
  #left = new Float32Array(CHUNK_FRAMES)
  #right = new Float32Array(CHUNK_FRAMES)
  #filled = 0

  constructor() {
    super()
    this.port.onmessage = ({ data }: MessageEvent<{ readonly out: MessagePort }>) => (this.#out = data.out)
  }

  process(inputs: Float32Array[][]): boolean {
    const [left, right = left] = inputs[0] ?? []
    if (left === undefined || right === undefined) return true
    for (let i = 0; i < left.length; i += 1) {
      this.#left[this.#filled] = left[i]!
      this.#right[this.#filled] = right[i]!
      this.#filled += 1
      if (this.#filled === CHUNK_FRAMES) this.#post()
    }
    return true
  }

  #post(): void {
    const chunk: SourceChunk = { left: this.#left, right: this.#right }
    this.#out?.postMessage(chunk, [this.#left.buffer, this.#right.buffer])
    this.#left = new Float32Array(CHUNK_FRAMES)
    this.#right = new Float32Array(CHUNK_FRAMES)
    this.#filled = 0
  }
}

registerProcessor('green-room-microphone', MicrophoneProcessor)
