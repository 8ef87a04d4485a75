// Tracks that carry the studio's sound, and silence while there is none. They never end by themselves.
import { CHUNK_CHANNELS, CHUNK_FRAMES, SOUND_RATE } from '../../core/sound/voice-chunk.ts'

const MOST_PENDING_WRITES = 10
const silence = new Int16Array(CHUNK_FRAMES * CHUNK_CHANNELS)

interface Outlet {
  readonly generator: MediaStreamTrackGenerator<AudioData>
  readonly writer: WritableStreamDefaultWriter<AudioData>
  pending: number
}

export class SoundOutlets {
  readonly #outlets = new Set<Outlet>()
  readonly #onEmpty: () => void
  #frames = 0

  /** `onEmpty` hears once the last track and every copy of it have been stopped. */
  constructor(onEmpty: () => void) {
    this.#onEmpty = onEmpty
  }

  get size(): number {
    return this.#outlets.size
  }

  open(): MediaStreamTrack {
    const generator = new MediaStreamTrackGenerator({ kind: 'audio' }) as MediaStreamTrackGenerator<AudioData>
    const writer = generator.writable.getWriter()
    writer.closed.catch(() => undefined)
    this.#outlets.add({ generator, writer, pending: 0 })
    this.write(silence)
    return generator
  }

  /** A chunk for every track. */
  write(samples: Int16Array<ArrayBuffer>): void {
    const timestamp = Math.round((this.#frames * 1_000_000) / SOUND_RATE)
    this.#frames += CHUNK_FRAMES
    for (const outlet of this.#outlets) {
      if (outlet.pending >= MOST_PENDING_WRITES) continue
      const data = new AudioData({
        format: 's16',
        sampleRate: SOUND_RATE,
        numberOfFrames: CHUNK_FRAMES,
        numberOfChannels: CHUNK_CHANNELS,
        timestamp,
        data: samples,
      })
      this.#send(outlet, data)
    }
  }

  writeSilence(): void {
    this.write(silence)
  }

  /** Ends every track. */
  close(): void {
    for (const { generator, writer } of this.#outlets) {
      writer.close().catch(() => undefined)
      generator.stop()
    }
    this.#outlets.clear()
  }

  #send(outlet: Outlet, data: AudioData): void {
    outlet.pending += 1
    outlet.writer.write(data).then(
      () => (outlet.pending -= 1),
      () => {
        outlet.pending -= 1
        data.close()
        if (this.#outlets.delete(outlet) && this.#outlets.size === 0) this.#onEmpty()
      },
    )
  }
}
