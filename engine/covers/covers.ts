// Stills of scenes for lists of shows: planned like everything else, small, one after the other. Nothing is opened for a list: where a
// camera will be, a person is drawn, and a window where a screen will be. Of a clip the first picture is seen, or a film where only a
// decoder could tell.
import { inputIdOf } from '../../core/layers/index.ts'
import { inputKindOf } from '../../core/inputs/index.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { planFrame } from '../../core/stage/plan-frame.ts'
import { mapLayers } from '../../core/layers/tree.ts'
import type { Input, Show } from '../../core/show/show.ts'
import { CpuExecutor } from '../cpu/cpu-executor.ts'
import type { Heap } from '../cpu/heap.ts'
import { Treatments } from '../cpu/treatments.ts'
import type { Executor } from '../executor.ts'
import type { ToEngine } from '../protocol.ts'
import type { LoadedStill } from '../still/still-protocol.ts'
import { coverPicture } from './cover-pictures.ts'
import { URGENCY, type RasterMaker } from '../raster/raster.ts'
import { SourceBook, type SourceBookEvents } from '../sources/source-book.ts'
import { wallAt } from '../sources/wall-clock.ts'

export type CoverRequest = Extract<ToEngine, { type: 'cover' }>

/** How long a still waits for its pictures and letters, in ms. What has not come by then is left out. */
const PATIENCE_MS = 6000
/** Something that draws a cover, given back after it. */
export interface CoverPen {
  readonly executor: Executor
  readonly dispose: () => void
}

export class Covers {
  readonly #openBook: (events: SourceBookEvents) => SourceBook
  readonly #openPen: () => CoverPen
  readonly #answer: (requestId: number, picture: RgbaPicture | null) => void
  readonly #setTimer: (run: () => void, delayMs: number) => () => void
  #waiting: CoverRequest[] = []
  #isRunning = false

  /** `answer` is called once for each request that is not given up: with null when the scene cannot be drawn. `setTimer` gives back how to clear it. */
  constructor(
    openBook: (events: SourceBookEvents) => SourceBook,
    openPen: () => CoverPen,
    answer: (requestId: number, picture: RgbaPicture | null) => void,
    setTimer: (run: () => void, delayMs: number) => () => void,
  ) {
    this.#openBook = openBook
    this.#openPen = openPen
    this.#answer = answer
    this.#setTimer = setTimer
  }

  ask(request: CoverRequest): void {
    this.#waiting.push(request)
    if (!this.#isRunning) void this.#run()
  }

  /** Nobody waits for it any more. */
  giveUp(requestId: number): void {
    this.#waiting = this.#waiting.filter((request) => request.requestId !== requestId)
  }

  async #run(): Promise<void> {
    this.#isRunning = true
    try {
      for (let request = this.#waiting.shift(); request !== undefined; request = this.#waiting.shift()) {
        this.#answer(request.requestId, await this.#draw(request).catch(() => null))
      }
    } finally {
      // An answer that cannot be given must not silence all later ones.
      this.#isRunning = false
    }
  }

  async #draw({ show, sceneId, widthPx }: CoverRequest): Promise<RgbaPicture | null> {
    const seen = atRest(show)
    const scene = seen.scenes.find(({ id }) => id === sceneId)
    if (scene === undefined) return null
    const inputs = show.inputs.map(inCover)
    const failed = new Set<string>()
    let wake: () => void = () => undefined
    const onAssetFailed = (asset: string) => {
      failed.add(asset)
      for (const each of inputs) if (each.asset === asset) holdPlace(each)
      wake()
    }
    const book = this.#openBook({ onChange: () => wake(), onRaster: () => wake(), onAssetFailed })
    const holdPlace = ({ sourceId, placeholder }: (typeof inputs)[number]) => {
      if (placeholder !== null) book.setStill(sourceId, { picture: coverPicture(placeholder), isOpaque: placeholder !== 'person' })
    }
    for (const each of inputs) if (each.asset === null) holdPlace(each)
    book.follow(seen)
    const nowMs = performance.now()
    const assetOf = new Map(inputs.map(({ sourceId, asset }) => [sourceId, asset]))
    let isLate = false
    const stopTimer = this.#setTimer(() => {
      isLate = true
      wake()
    }, PATIENCE_MS)
    try {
      for (;;) {
        const changed = new Promise<void>((resolve) => (wake = resolve))
        const plan = planFrame(seen, { scene }, nowMs, book.infos, { scale: widthPx / seen.canvas.widthPx, wall: wallAt(nowMs) })
        book.rasters.ask(plan, URGENCY.small)
        const isWhole = plan.missing.every(({ sourceId }) => failed.has(assetOf.get(sourceId) ?? '')) && book.rasters.hasAll(plan)
        if (isWhole || isLate) {
          return this.#rendered(plan, book)
        }
        await changed
      }
    } finally {
      stopTimer()
    }
  }

  /** A pen of its own for each: the same names are other pictures in another show. */
  #rendered(plan: FramePlan, book: SourceBook): RgbaPicture {
    const pen = this.#openPen()
    try {
      const picture = pen.executor.render(plan, book.frames)
      return { ...picture, data: new Uint8ClampedArray(picture.data) }
    } finally {
      pen.dispose()
    }
  }
}

/** Covers on the processor, apart from everything else: pictures of another show may have the names of those of the open one. */
export function coversOf(
  heap: Heap,
  loadAsset: (asset: string) => Promise<LoadedStill>,
  maker: RasterMaker,
  answer: (requestId: number, picture: RgbaPicture | null) => void,
): Covers {
  const openPen = (): CoverPen => {
    const treatments = new Treatments(heap)
    const executor = new CpuExecutor(treatments)
    return {
      executor,
      dispose: () => {
        executor.dispose()
        treatments.dispose()
      },
    }
  }
  const setTimer = (run: () => void, delayMs: number) => {
    const timer = setTimeout(run, delayMs)
    return () => clearTimeout(timer)
  }
  return new Covers((events) => new SourceBook(loadAsset, maker, events), openPen, answer, setTimer)
}

/** What a cover shows of an input: its file, or the drawing that stands for it. */
function inCover(input: Input) {
  const shown = inputKindOf(input).inCover(input)
  const still = inputKindOf(shown).still(shown)
  return { sourceId: inputKindOf(shown).sourceId(shown), asset: still?.type === 'asset' ? still.asset : null, placeholder: inputKindOf(input).placeholder }
}

/** A show whose inputs are as covers show them. What cleans a live picture makes no sense of a drawing. */
function atRest(show: Show): Show {
  const people = new Set(show.inputs.flatMap((input) => (inputKindOf(input).placeholder === 'person' ? [input.id] : [])))
  return {
    ...show,
    inputs: show.inputs.map((input) => inputKindOf(input).inCover(input)),
    scenes: show.scenes.map((scene) => ({
      ...scene,
      layers: mapLayers(scene.layers, (layer) => (people.has(inputIdOf(layer) ?? '') ? { ...layer, treatment: [] } : layer)),
    })),
  }
}
