// One track's worth of the feed: what arrives, scaled and thinned as the page asked for this track.
import type { PictureFormat, PictureWish } from './constraints.ts'
import { formatFor } from './fitness.ts'

const MOST_PENDING_WRITES = 4
/** A frame that comes a little early is not dropped for it. */
const EARLY_SHARE = 0.35

/** Makes a frame of another size; `close` it as any other. */
export type Scale = (frame: VideoFrame, widthPx: number, heightPx: number) => VideoFrame

export class PictureOutlet {
  readonly track: MediaStreamTrack
  #wish: PictureWish
  /** What the wish comes to, and of which source: worked out when one of them changes, not for every frame. */
  #form: { readonly source: PictureFormat; readonly format: PictureFormat } | null = null
  readonly #writer: WritableStreamDefaultWriter<VideoFrame>
  readonly #onOver: (outlet: PictureOutlet) => void
  #pending = 0
  #dueMs = -Infinity
  #isOver = false

  /** `onOver` hears once the track and every copy of it have been stopped. */
  constructor(wish: PictureWish, onOver: (outlet: PictureOutlet) => void) {
    const generator = new MediaStreamTrackGenerator({ kind: 'video' })
    this.track = generator
    this.#wish = wish
    this.#writer = generator.writable.getWriter()
    this.#writer.closed.catch(() => undefined)
    this.#onOver = onOver
  }

  set wish(next: PictureWish) {
    this.#wish = next
    this.#form = null
  }

  /** Sends a copy of `frame` on, or leaves it out by the track's rate. The frame stays the caller's. */
  offer(frame: VideoFrame, source: PictureFormat, nowMs: number, scale: Scale): void {
    if (this.#isOver || this.#pending >= MOST_PENDING_WRITES) return
    if (this.#form?.source !== source) this.#form = { source, format: formatFor(this.#wish, source) }
    const { widthPx, heightPx, frameRate } = this.#form.format
    if (frameRate < source.frameRate && !this.#isDue(nowMs, 1000 / frameRate)) return
    const isWhole = widthPx === frame.displayWidth && heightPx === frame.displayHeight
    this.#write(isWhole ? frame.clone() : scale(frame, widthPx, heightPx))
  }

  /** Ends the track. Safe to call twice. */
  close(): void {
    if (this.#isOver) return
    this.#isOver = true
    this.#writer.close().catch(() => undefined)
    this.track.stop()
  }

  #isDue(nowMs: number, intervalMs: number): boolean {
    if (nowMs < this.#dueMs - intervalMs * EARLY_SHARE) return false
    this.#dueMs = Math.max(this.#dueMs + intervalMs, nowMs)
    return true
  }

  /** Hands a frame to the track, which closes it. */
  #write(frame: VideoFrame): void {
    this.#pending += 1
    this.#writer.write(frame).then(
      () => (this.#pending -= 1),
      () => {
        this.#pending -= 1
        frame.close()
        if (this.#isOver) return
        this.#isOver = true
        this.#onOver(this)
      },
    )
  }
}
