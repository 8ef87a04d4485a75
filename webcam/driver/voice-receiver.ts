// Tracks that carry the studio's sound. They are filled on a thread of their own where the page's policy allows one, else on the page's.
import { CHUNK_MS } from '../../core/sound/voice-chunk.ts'
import { VoiceDesk } from './voice-desk.ts'
import type { FromVoiceDesk, ToVoiceDesk } from './voice.worker.ts'

const LATENCY_EVERY_MS = 250
const LATENCIES_KEPT = 12
/** From 1 January 1900, where the network's clock begins, to 1970. */
const NTP_TO_UNIX_MS = 2_208_988_800_000
/** A chunk is as old as it is long when it leaves; what plays it holds half of one back (measured by npm run bench -- --only sync). */
const OWN_DELAY_MS = 1.5 * CHUNK_MS
/** Before the picture's latency is known: the median of a quiet machine. */
const FIRST_HOLD_MS = 30

/** Makes a worker that runs voice.worker.ts; throws, or says `error`, where the page's policy forbids it. */
export type MakeVoiceWorker = () => Worker

export class VoiceReceiver {
  readonly #desk = new VoiceDesk((id) => this.#forget(id))
  readonly #tracks = new Map<string, MediaStreamTrack>()
  readonly #onEmpty: () => void
  readonly #makeWorker: MakeVoiceWorker | null
  /** Null until it has said that it runs, and for good where it may not. */
  #worker: Worker | null = null
  #starting: Worker | null = null
  #isMoved = false
  #latencies: number[] = []
  #lastLatencyMs = -Infinity
  #picture: RTCRtpReceiver | null = null

  /** `onEmpty` hears once the last track and every copy of it have been stopped. */
  constructor(onEmpty: () => void, makeWorker: MakeVoiceWorker | null) {
    this.#onEmpty = onEmpty
    this.#makeWorker = makeWorker
    this.#follow(FIRST_HOLD_MS)
  }

  /** How many tracks there are. */
  get size(): number {
    return this.#tracks.size
  }

  /** A new track of one channel or two. */
  open(channels: 1 | 2): MediaStreamTrack {
    this.#start()
    const generator = new MediaStreamTrackGenerator({ kind: 'audio' }) as MediaStreamTrackGenerator<AudioData>
    const outlet = { id: generator.id, writable: generator.writable, channels }
    this.#tracks.set(generator.id, generator)
    if (this.#isMoved) this.#post({ type: 'add', outlet }, [outlet.writable])
    else this.#desk.add(outlet)
    return generator
  }

  change(id: string, channels: 1 | 2): void {
    if (this.#isMoved) this.#post({ type: 'change', id, channels })
    else this.#desk.change(id, channels)
  }

  /** Hears a channel from now on. */
  connect(channel: RTCDataChannel): void {
    if (this.#move(channel)) return
    this.#desk.connect(channel)
  }

  /** What the sound belongs to. */
  follow(picture: RTCRtpReceiver): void {
    this.#picture = picture
    this.#latencies = []
  }

  disconnect(): void {
    if (this.#isMoved) this.#post({ type: 'disconnect' })
    else this.#desk.disconnect()
  }

  /** Called now and then. */
  watch(): void {
    if (this.#tracks.size === 0) return
    if (!this.#isMoved) this.#desk.watch()
    const nowMs = performance.now()
    if (nowMs - this.#lastLatencyMs > LATENCY_EVERY_MS) this.#measure(nowMs)
  }

  /** Ends every track. */
  close(): void {
    for (const track of this.#tracks.values()) track.stop()
    this.#tracks.clear()
    this.#desk.close()
    this.#worker?.terminate()
    this.#starting?.terminate()
    this.#worker = null
    this.#starting = null
    this.#isMoved = false
  }

  #start(): void {
    if (this.#makeWorker === null || this.#worker !== null || this.#starting !== null) return
    try {
      const worker = this.#makeWorker()
      this.#starting = worker
      worker.onmessage = ({ data }: MessageEvent<FromVoiceDesk>) => {
        if (data.type === 'ready' && this.#starting === worker) this.#worker = worker
        else if (data.type === 'ended') this.#forget(data.id)
      }
      // Not allowed here: the page's own thread does it.
      worker.onerror = () => worker.terminate()
    } catch {
      // The page's policy forbids workers: the page's own thread does it.
    }
  }

  /** Moves the work to the thread of its own. A channel can be handed over only when it has just come about. */
  #move(channel: RTCDataChannel): boolean {
    if (this.#worker === null) return false
    try {
      this.#worker.postMessage({ type: 'connect', channel } satisfies ToVoiceDesk, [channel as unknown as Transferable])
    } catch {
      // This browser cannot hand channels over.
      return false
    }
    if (!this.#isMoved) {
      this.#isMoved = true
      for (const outlet of this.#desk.release()) this.#post({ type: 'add', outlet }, [outlet.writable])
    }
    return true
  }

  #post(message: ToVoiceDesk, transfer: readonly object[] = []): void {
    this.#worker?.postMessage(message, transfer as Transferable[])
  }

  #forget(id: string): void {
    if (this.#tracks.delete(id) && this.#tracks.size === 0) this.#onEmpty()
  }

  #follow(holdMs: number): void {
    this.#desk.follow(holdMs)
    this.#post({ type: 'follow', holdMs })
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
    this.#follow(sorted[Math.floor(sorted.length / 2)]! - OWN_DELAY_MS)
  }
}
