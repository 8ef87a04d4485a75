// The engine's side of the worker that draws: what the audience waits for goes first, and a worker that died is replaced.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { CoverRequest } from '../covers/covers.ts'
import type { StrokesAnswer, StrokesRequest } from '../raster/stroke-painter.ts'
import type { Raster, RasterMaker, Urgency } from '../raster/raster.ts'
import type { FromRaster, RasterFiles, ToRaster } from './protocol.ts'

/** Given to the worker at a time: one that it draws, and one so that it need not wait. */
const MOST_IN_FLIGHT = 2

/** A worker that has not answered for so long will not: it may be gone without a word. */
const ANSWER_MS = 15_000

interface Asked {
  readonly requestId: number
  readonly raster: Raster
  readonly urgency: Urgency
  readonly resolve: (picture: RgbaPicture) => void
  readonly reject: (error: Error) => void
  /** Workers that died while they had it. */
  deaths: number
}

/** What becomes of strokes that are painted. */
export interface StrokeEvents {
  readonly onPainted: (answer: StrokesAnswer) => void
  /** The worker died, with all that it had painted. */
  readonly onLost: () => void
}

/** What is used of a worker. */
export type DrawingWorker = Pick<Worker, 'postMessage' | 'terminate' | 'onmessage' | 'onerror'>

export class RasterClient implements RasterMaker {
  readonly #files: RasterFiles
  readonly #open: () => DrawingWorker
  readonly #onCover: (requestId: number, picture: RgbaPicture | null) => void
  readonly #strokes: StrokeEvents
  #worker: DrawingWorker | null = null
  #waiting: Asked[] = []
  readonly #inFlight = new Map<number, Asked>()
  readonly #covers = new Map<number, CoverRequest>()
  #nextId = 1
  #watch: ReturnType<typeof setTimeout> | undefined

  /** `onCover` is called once for each cover that is asked for and not dropped. */
  constructor(
    files: RasterFiles,
    open: () => DrawingWorker,
    onCover: (requestId: number, picture: RgbaPicture | null) => void,
    strokes: StrokeEvents = { onPainted: () => undefined, onLost: () => undefined },
  ) {
    this.#files = files
    this.#open = open
    this.#onCover = onCover
    this.#strokes = strokes
  }

  make(raster: Raster, urgency: Urgency): Promise<RgbaPicture> {
    return new Promise((resolve, reject) => {
      const asked: Asked = { requestId: this.#nextId++, raster, urgency, resolve, reject, deaths: 0 }
      const behind = this.#waiting.findIndex((other) => other.urgency > urgency)
      this.#waiting.splice(behind < 0 ? this.#waiting.length : behind, 0, asked)
      this.#send()
    })
  }

  cover(request: CoverRequest): void {
    this.#covers.set(request.requestId, request)
    this.#post(request)
  }

  /** Has strokes painted; answers come in the order of the requests. */
  paintStrokes(request: StrokesRequest): void {
    this.#post({ type: 'strokes', ...request })
  }

  dropCover(requestId: number): void {
    if (this.#covers.delete(requestId)) this.#post({ type: 'dropCover', requestId })
  }

  /** Waits for the next answer anew, while any is waited for. */
  #keepWatch(): void {
    clearTimeout(this.#watch)
    if (this.#inFlight.size > 0) this.#watch = setTimeout(() => this.#died('it did not answer'), ANSWER_MS)
  }

  #send(): void {
    while (this.#inFlight.size < MOST_IN_FLIGHT) {
      const next = this.#waiting.shift()
      if (next === undefined) break
      this.#inFlight.set(next.requestId, next)
      this.#post({ type: 'draw', requestId: next.requestId, raster: next.raster })
    }
    this.#keepWatch()
  }

  #post(message: ToRaster): void {
    this.#worker ??= this.#start()
    this.#worker.postMessage(message)
  }

  #start(): DrawingWorker {
    const worker = this.#open()
    worker.onmessage = ({ data }: MessageEvent<FromRaster>) => this.#receive(data)
    worker.onerror = (event) => this.#died(event.message)
    worker.postMessage({ type: 'start', ...this.#files } satisfies ToRaster)
    return worker
  }

  #receive(message: FromRaster): void {
    if (message.type === 'covered') {
      if (this.#covers.delete(message.requestId)) this.#onCover(message.requestId, message.picture)
      return
    }
    if (message.type === 'painted') return this.#strokes.onPainted(message)
    const asked = this.#inFlight.get(message.requestId)
    if (asked === undefined) return
    this.#inFlight.delete(message.requestId)
    if (message.type === 'drawn') asked.resolve(message.picture)
    else asked.reject(new Error(message.reason))
    this.#send()
  }

  /** What it had is asked of the next one; what two have died of is given up. */
  #died(reason: string): void {
    this.#worker?.terminate()
    this.#worker = null
    const had = [...this.#inFlight.values()]
    this.#inFlight.clear()
    for (const asked of had.toReversed()) {
      asked.deaths += 1
      if (asked.deaths > 1) asked.reject(new Error(reason || 'this picture cannot be drawn here'))
      else this.#waiting.unshift(asked)
    }
    for (const requestId of this.#covers.keys()) this.#onCover(requestId, null)
    this.#covers.clear()
    this.#strokes.onLost()
    this.#send()
  }
}
