// Fills every meeting's sound channel with what the source gives. Without page or clock: tests run it as it is.
import { PeakMeter, peakOf } from '../../core/sound/loudness.ts'
import { SideWatch } from '../../core/sound/side-watch.ts'
import { VoiceChain, type VoiceSettings } from '../../core/sound/voice-chain.ts'
import { CHUNK_BYTES, CHUNK_CHANNELS, CHUNK_FRAMES, packChunk, SOUND_RATE } from '../../core/sound/voice-chunk.ts'
import type { SourceChunk, VoiceLevel } from './voice-protocol.ts'

/** What a channel may hold back: sound that waits longer is old. */
const MOST_BUFFERED_BYTES = CHUNK_BYTES * 10
const LEVEL_EVERY_MS = 40

/** The parts of a data channel that are used. */
export type SoundChannel = Pick<RTCDataChannel, 'readyState' | 'bufferedAmount' | 'send'>

export class VoiceSender {
  readonly #chain = new VoiceChain()
  readonly #meters = [new PeakMeter(), new PeakMeter()] as const
  readonly #channels = new Set<SoundChannel>()
  readonly #samples = new Int16Array(CHUNK_FRAMES * CHUNK_CHANNELS)
  readonly #onLevel: (level: VoiceLevel) => void
  #sides = new SideWatch()
  #onlySide: 'left' | 'right' | null = null
  #nextFrame = 0
  #isNew = true
  #lastLevelMs = -Infinity

  constructor(onLevel: (level: VoiceLevel) => void) {
    this.#onLevel = onLevel
  }

  set(settings: VoiceSettings): void {
    this.#chain.set(settings)
  }

  add(channel: SoundChannel): void {
    this.#channels.add(channel)
  }

  clearClipping(): void {
    for (const meter of this.#meters) meter.clear()
  }

  /** Another source, or none: what is known of the old one is forgotten. */
  renew(): void {
    this.#sides = new SideWatch()
    this.#onlySide = null
    this.#isNew = true
    this.clearClipping()
  }

  /** Takes a chunk of the source that came at `nowMs`. */
  take({ left, right }: SourceChunk, nowMs: number): void {
    // A pause is a gap in the count too, so that receivers do not take what follows for late.
    if (this.#isNew) this.#nextFrame = Math.max(this.#nextFrame, Math.round((nowMs * SOUND_RATE) / 1000))
    this.#isNew = false
    this.#onlySide = this.#sides.note(peakOf(left), peakOf(right))
    this.#chain.process(left, right, this.#samples)
    const bytes = packChunk({ firstFrame: this.#nextFrame, samples: this.#samples })
    this.#nextFrame += CHUNK_FRAMES
    for (const channel of this.#channels) {
      if (channel.readyState === 'open' && channel.bufferedAmount < MOST_BUFFERED_BYTES) channel.send(bytes)
      else if (channel.readyState === 'closed' || channel.readyState === 'closing') this.#channels.delete(channel)
    }
    if (nowMs - this.#lastLevelMs >= LEVEL_EVERY_MS) this.#tellLevel(nowMs)
  }

  #tellLevel(nowMs: number): void {
    this.#lastLevelMs = nowMs
    const [left, right] = this.#chain.takePeaks()
    this.#onLevel({ left: this.#meters[0].note(left, nowMs), right: this.#meters[1].note(right, nowMs), onlySide: this.#onlySide })
  }
}
