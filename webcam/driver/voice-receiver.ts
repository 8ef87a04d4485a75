// Takes the studio's sound from a data channel and lets it out together with the picture.
import { CHUNK_MS, unpackChunk } from '../../core/sound/voice-chunk.ts'
import { VoicePacer } from '../../core/sound/voice-pacer.ts'
import type { SoundOutlets } from './sound-outlets.ts'

const SILENCE_AFTER_MS = 60
const LATENCY_EVERY_MS = 250
const LATENCIES_KEPT = 12
/** From 1 January 1900, where the network's clock begins, to 1970. */
const NTP_TO_UNIX_MS = 2_208_988_800_000
/** A chunk is as old as it is long when it leaves; what plays it holds half of one back (measured by npm run bench -- --only sync). */
const OWN_DELAY_MS = 1.5 * CHUNK_MS
/** Before the picture's latency is known: the median of a quiet machine. */
const FIRST_HOLD_MS = 30

export class VoiceReceiver {
  readonly #outlets: SoundOutlets
  readonly #pacer = new VoicePacer()
  #latencies: number[] = []
  #lastLatencyMs = -Infinity
  #lastOutMs = -Infinity
  #channel: RTCDataChannel | null = null
  #picture: RTCRtpReceiver | null = null

  constructor(outlets: SoundOutlets) {
    this.#outlets = outlets
    this.#pacer.follow(FIRST_HOLD_MS)
  }

  /** Hears a channel from now on; `picture` is what its sound belongs to. */
  connect(channel: RTCDataChannel): void {
    this.disconnect()
    this.#channel = channel
    channel.binaryType = 'arraybuffer'
    channel.onmessage = ({ data }) => this.#hear(data)
  }

  follow(picture: RTCRtpReceiver): void {
    this.#picture = picture
    this.#latencies = []
  }

  disconnect(): void {
    if (this.#channel !== null) this.#channel.onmessage = null
    this.#channel = null
    this.#pacer.reset()
  }

  /** Called now and then: keeps the tracks silent, not stalled, while nothing arrives. */
  watch(): void {
    this.#release()
    if (performance.now() - this.#lastOutMs > SILENCE_AFTER_MS) this.#outlets.writeSilence()
  }

  #hear(data: unknown): void {
    const chunk = unpackChunk(data)
    if (chunk === null) return
    const nowMs = performance.now()
    if (nowMs - this.#lastLatencyMs > LATENCY_EVERY_MS) this.#measure(nowMs)
    this.#pacer.offer(chunk, nowMs)
    // Arrivals, not timers, wake us: a hidden page's timers run once a second.
    this.#release()
  }

  #release(): void {
    const nowMs = performance.now()
    for (let chunk = this.#pacer.take(nowMs); chunk !== null; chunk = this.#pacer.take(nowMs)) {
      this.#outlets.write(chunk.samples)
      this.#lastOutMs = nowMs
    }
  }

  /** How long the newest picture took, by the capture time that its sender stamped (abs-capture-time). */
  #measure(nowMs: number): void {
    this.#lastLatencyMs = nowMs
    const source = this.#picture?.getSynchronizationSources()[0] as (RTCRtpSynchronizationSource & { captureTimestamp?: number }) | undefined
    if (source?.captureTimestamp === undefined) return
    const latencyMs = source.timestamp - (source.captureTimestamp - NTP_TO_UNIX_MS)
    if (latencyMs < 0 || latencyMs > 2000) return
    this.#latencies.push(latencyMs)
    if (this.#latencies.length > LATENCIES_KEPT) this.#latencies.shift()
    const sorted = [...this.#latencies].sort((first, second) => first - second)
    this.#pacer.follow(sorted[Math.floor(sorted.length / 2)]! - OWN_DELAY_MS)
  }
}
