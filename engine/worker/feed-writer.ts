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
  #last: VideoFrame | null = null

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
    if (!this.#hasRoom()) return
    const frame = new VideoFrame(picture.data as Uint8ClampedArray<ArrayBuffer>, {
      format: 'RGBX',
      codedWidth: picture.widthPx,
      codedHeight: picture.heightPx,
      timestamp: Math.round(nowMs * 1000),
    })
    this.#keep(frame)
    this.#write(frame, nowMs)
  }

  /** Sends the last picture once more; false when none was sent yet. */
  repeat(nowMs: number): boolean {
    if (this.#last === null) return false
    if (this.#hasRoom()) this.#write(new VideoFrame(this.#last, { timestamp: Math.round(nowMs * 1000) }), nowMs)
    return true
  }

  #hasRoom(): boolean {
    if (this.#isClosed) return false
    if (this.#pending < MOST_PENDING) return true
    this.#dropped += 1
    return false
  }

  /** Holds on to the picture of a frame without copying it. */
  #keep(frame: VideoFrame): void {
    if (this.#last !== null) this.#ledger.close(this.#last)
    this.#last = this.#ledger.take(frame.clone())
  }

  #write(made: VideoFrame, nowMs: number): void {
    this.#pending += 1
    const frame = this.#ledger.take(made)
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
    if (this.#last !== null) this.#ledger.close(this.#last)
    this.#last = null
    this.#writer.close().catch(() => undefined)
  }
}
