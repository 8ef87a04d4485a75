// Writes the on-air picture into the track that meetings get.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { FrameLedger } from './frame-ledger.ts'
import { RateMeter } from './rate-meter.ts'

/** Frames on their way into the track: a short burst is let through, a stall is not queued up. */
const MOST_PENDING = 3

export class FeedWriter {
  readonly meter = new RateMeter()
  readonly #writer: WritableStreamDefaultWriter<VideoFrame>
  readonly #ledger: FrameLedger
  #dropped = 0
  #pending = 0
  #isClosed = false

  constructor(writable: WritableStream<VideoFrame>, ledger: FrameLedger) {
    this.#writer = writable.getWriter()
    this.#ledger = ledger
    this.#writer.closed.catch(() => undefined)
  }

  /** Frames that the track could not take in time. */
  get dropped(): number {
    return this.#dropped
  }

  /** Sends a copy of a picture; drops it when the track is behind. */
  send(picture: RgbaPicture, nowMs: number): void {
    if (this.#isClosed) return
    if (this.#pending >= MOST_PENDING) {
      this.#dropped += 1
      return
    }
    this.#pending += 1
    const frame = this.#ledger.take(
      new VideoFrame(picture.data as Uint8ClampedArray<ArrayBuffer>, {
        format: 'RGBX',
        codedWidth: picture.widthPx,
        codedHeight: picture.heightPx,
        timestamp: Math.round(nowMs * 1000),
      }),
    )
    this.meter.note(nowMs)
    this.#writer.write(frame).then(
      () => {
        this.#pending -= 1
        this.#ledger.handOver()
      },
      () => {
        this.#pending -= 1
        this.#ledger.close(frame)
        this.#dropped += 1
      },
    )
  }

  /** Ends the track. Safe to call twice. */
  close(): void {
    if (this.#isClosed) return
    this.#isClosed = true
    this.#writer.close().catch(() => undefined)
  }
}
