// Measures a camera track as a meeting receives it: size, rate, and from the frame mark delay, loss and order.
import { MARK_COLUMNS, MARK_LIMIT, MARK_RATE, MARK_ROWS, markGeometry, readMark } from '../../core/marks/frame-mark.ts'

export interface Figures {
  readonly widthPx: number
  readonly heightPx: number
  readonly fps: number
  readonly frames: number
  readonly hasMarks: boolean
  readonly lost: number
  readonly repeated: number
  readonly latencyMedianMs: number | null
  readonly latencyP95Ms: number | null
  readonly seconds: number
}

const NUMBERS_KEPT = 4000
/** Measuring must not be what loses a frame. */
const FRAMES_BUFFERED = 8

export class FrameFigures {
  readonly #track: MediaStreamVideoTrack
  #widthPx = 0
  #heightPx = 0
  #times: number[] = []
  #latencies: number[] = []
  #numbers: number[] = []
  #lastNumber: number | null = null
  /** Hears every frame whose number can be read; null: nobody does. */
  onNumber: ((frameNumber: number, atMs: number) => void) | null = null
  #frames = 0
  #lost = 0
  #repeated = 0
  #since = performance.now()

  constructor(track: MediaStreamVideoTrack) {
    this.#track = track
    void this.#readAll()
  }

  /** The frame numbers read so far, in order of arrival. */
  get numbers(): readonly number[] {
    return this.#numbers
  }

  /** Starts the figures anew. */
  reset(): void {
    this.#times = []
    this.#latencies = []
    this.#numbers = []
    this.#lastNumber = null
    this.#frames = 0
    this.#lost = 0
    this.#repeated = 0
    this.#since = performance.now()
  }

  read(): Figures {
    const now = performance.now()
    const seconds = (now - this.#since) / 1000
    const recent = this.#times.filter((time) => time > now - 2000)
    const span = (recent.at(-1) ?? 0) - (recent[0] ?? 0)
    const sorted = [...this.#latencies].sort((first, second) => first - second)
    const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? null
    return {
      widthPx: this.#widthPx,
      heightPx: this.#heightPx,
      fps: span > 0 ? ((recent.length - 1) * 1000) / span : 0,
      frames: this.#frames,
      hasMarks: this.#lastNumber !== null,
      lost: this.#lost,
      repeated: this.#repeated,
      latencyMedianMs: at(0.5),
      latencyP95Ms: at(0.95),
      seconds,
    }
  }

  stop(): void {
    this.#track.stop()
  }

  async #readAll(): Promise<void> {
    const reader = new MediaStreamTrackProcessor({ track: this.#track, maxBufferSize: FRAMES_BUFFERED }).readable.getReader()
    for (;;) {
      const { done, value: frame } = await reader.read()
      if (done || frame === undefined) return
      const arrivedMs = Date.now()
      this.#widthPx = frame.displayWidth
      this.#heightPx = frame.displayHeight
      this.#frames += 1
      this.#times.push(performance.now())
      if (this.#times.length > 200) this.#times.splice(0, 100)
      try {
        this.#note(await markOf(frame), arrivedMs)
      } finally {
        frame.close()
      }
    }
  }

  #note(frameNumber: number | null, arrivedMs: number): void {
    if (frameNumber === null) return
    this.onNumber?.(frameNumber, arrivedMs)
    const dueMs = (frameNumber * 1000) / MARK_RATE
    const lapMs = (MARK_LIMIT * 1000) / MARK_RATE
    this.#latencies.push((arrivedMs % lapMs) - dueMs)
    this.#numbers.push(frameNumber)
    if (this.#numbers.length > NUMBERS_KEPT) {
      this.#numbers.splice(0, NUMBERS_KEPT / 2)
      this.#latencies.splice(0, NUMBERS_KEPT / 2)
    }
    if (this.#lastNumber !== null) {
      const step = frameNumber - this.#lastNumber
      if (step === 0) this.#repeated += 1
      else if (step > 1) this.#lost += step - 1
    }
    this.#lastNumber = frameNumber
  }
}

/** Reads the mark from the luma of the corner; null when there is none. */
async function markOf(frame: VideoFrame): Promise<number | null> {
  const { displayWidth, displayHeight, format } = frame
  const { cellPx, x, y } = markGeometry(displayWidth, displayHeight)
  const rect = { x, y, width: MARK_COLUMNS * cellPx, height: MARK_ROWS * cellPx }
  if (format !== 'I420' && format !== 'NV12') return markOfRgb(frame, rect)
  const bytes = new Uint8Array(frame.allocationSize({ rect }))
  const [luma] = await frame.copyTo(bytes, { rect })
  return readMark(displayWidth, displayHeight, (column, row) => bytes[luma!.offset + (row - y) * luma!.stride + column - x]!)
}

async function markOfRgb(frame: VideoFrame, rect: { x: number; y: number; width: number; height: number }): Promise<number | null> {
  const bytes = new Uint8Array(frame.allocationSize({ rect }))
  const [plane] = await frame.copyTo(bytes, { rect })
  return readMark(frame.displayWidth, frame.displayHeight, (column, row) => bytes[plane!.offset + (row - rect.y) * plane!.stride + (column - rect.x) * 4 + 1]!)
}
