// Takes the studio's sound from a data channel, lets it out together with the picture, and fills the tracks that carry it: with
// silence while there is none. Runs on whichever thread it is put.
import { CHUNK_CHANNELS, CHUNK_FRAMES, SOUND_RATE, unpackChunk } from '../../core/sound/voice-chunk.ts'
import { VoicePacer } from '../../core/sound/voice-pacer.ts'

const SILENCE_AFTER_MS = 60
/** A page that was busy for a while gives all that came meanwhile at once. */
const MOST_PENDING_WRITES = 60

/** Where one track's sound goes. */
export interface SoundOutlet {
  readonly id: string
  readonly writable: WritableStream<AudioData>
  readonly channels: 1 | 2
}

/** The parts of a data channel that are used. */
export type VoiceChannel = Pick<RTCDataChannel, 'binaryType' | 'onmessage'>

interface Outlet {
  readonly writable: WritableStream<AudioData>
  readonly writer: WritableStreamDefaultWriter<AudioData>
  channels: 1 | 2
  pending: number
}

export class VoiceDesk {
  readonly #pacer = new VoicePacer()
  readonly #outlets = new Map<string, Outlet>()
  readonly #silence = new Int16Array(CHUNK_FRAMES * CHUNK_CHANNELS)
  readonly #mono = new Int16Array(CHUNK_FRAMES)
  readonly #onEnded: (id: string) => void
  #channel: VoiceChannel | null = null
  #frames = 0
  #lastOutMs = -Infinity

  /** `onEnded` hears of a track that was stopped, with every copy of it. */
  constructor(onEnded: (id: string) => void) {
    this.#onEnded = onEnded
  }

  add({ id, writable, channels }: SoundOutlet): void {
    const writer = writable.getWriter()
    // How a track ends is seen by the write that fails.
    writer.closed.catch(() => undefined)
    this.#outlets.set(id, { writable, writer, channels, pending: 0 })
    this.#write(this.#silence)
  }

  change(id: string, channels: 1 | 2): void {
    const outlet = this.#outlets.get(id)
    if (outlet !== undefined) outlet.channels = channels
  }

  /** Gives its outlets up, for a desk on another thread. */
  release(): SoundOutlet[] {
    const released = [...this.#outlets].map(([id, { writable, writer, channels }]) => {
      writer.releaseLock()
      return { id, writable, channels }
    })
    this.#outlets.clear()
    return released
  }

  /** Hears a channel from now on. */
  connect(channel: VoiceChannel): void {
    this.disconnect()
    this.#channel = channel
    channel.binaryType = 'arraybuffer'
    channel.onmessage = ({ data }) => this.#hear(data)
  }

  disconnect(): void {
    if (this.#channel !== null) this.#channel.onmessage = null
    this.#channel = null
    this.#pacer.reset()
  }

  /** How long sound has to wait for its picture, in ms. */
  follow(holdMs: number): void {
    this.#pacer.follow(holdMs)
  }

  /** Called now and then: lets out what is due, and keeps the tracks silent, not stalled, while nothing arrives. */
  watch(): void {
    if (this.#outlets.size === 0) return
    this.#letOut()
    if (performance.now() - this.#lastOutMs > SILENCE_AFTER_MS) this.#write(this.#silence)
  }

  /** Ends every track. */
  close(): void {
    this.disconnect()
    for (const { writer } of this.#outlets.values()) {
      // A track that was stopped before has closed it already.
      writer.close().catch(() => undefined)
    }
    this.#outlets.clear()
  }

  #hear(data: unknown): void {
    const chunk = unpackChunk(data)
    if (chunk === null) return
    this.#pacer.offer(chunk, performance.now())
    // Arrivals, not timers, wake us: a hidden page's timers run once a second.
    this.#letOut()
  }

  #letOut(): void {
    const nowMs = performance.now()
    for (let chunk = this.#pacer.take(nowMs); chunk !== null; chunk = this.#pacer.take(nowMs)) {
      this.#write(chunk.samples)
      this.#lastOutMs = nowMs
    }
  }

  /** A chunk of two channels for every track. */
  #write(samples: Int16Array<ArrayBuffer>): void {
    const timestamp = Math.round((this.#frames * 1_000_000) / SOUND_RATE)
    this.#frames += CHUNK_FRAMES
    for (const [id, outlet] of this.#outlets) {
      if (outlet.pending >= MOST_PENDING_WRITES) continue
      const { channels } = outlet
      const data = new AudioData({
        format: 's16',
        sampleRate: SOUND_RATE,
        numberOfFrames: CHUNK_FRAMES,
        numberOfChannels: channels,
        timestamp,
        data: channels === 1 ? this.#mixed(samples) : samples,
      })
      this.#send(id, outlet, data)
    }
  }

  /** Both channels on one, at half each, so that it cannot clip. */
  #mixed(samples: Int16Array): Int16Array<ArrayBuffer> {
    for (let i = 0; i < CHUNK_FRAMES; i += 1) this.#mono[i] = (samples[2 * i]! + samples[2 * i + 1]!) >> 1
    return this.#mono
  }

  #send(id: string, outlet: Outlet, data: AudioData): void {
    outlet.pending += 1
    outlet.writer.write(data).then(
      () => (outlet.pending -= 1),
      () => {
        outlet.pending -= 1
        data.close()
        if (this.#outlets.get(id) === outlet && this.#outlets.delete(id)) this.#onEnded(id)
      },
    )
  }
}
