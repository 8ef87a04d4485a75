// Stills of scenes for lists of shows: planned like everything else, small, one after the other. Nothing is opened for a list: where a
// camera will be, a person is drawn, and a window where a screen will be. Of a clip the first picture is seen, or a film where only a
// decoder could tell.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { inputSourceId, planFrame } from '../../core/plan/plan-frame.ts'
import { mapLayers } from '../../core/show/layer-tree.ts'
import type { Input, Show } from '../../core/show/show.ts'
import { CpuExecutor } from '../cpu/cpu-executor.ts'
import type { Heap } from '../cpu/heap.ts'
import { Treatments } from '../cpu/treatments.ts'
import type { Executor } from '../executor.ts'
import type { ToEngine } from '../protocol.ts'
import type { LoadedStill } from '../still/still-protocol.ts'
import { coverPicture } from './cover-pictures.ts'
import { SourceBook, type SourceBookEvents, type TextFonts } from './source-book.ts'
import { wallAt } from './wall.ts'

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
    const clips = new Map(show.inputs.flatMap((input) => (input.kind === 'clip' ? [[inputSourceId(input.id), input.asset] as const] : [])))
    const scene = seen.scenes.find(({ id }) => id === sceneId)
    if (scene === undefined) return null
    const failed = new Set<string>()
    let wake: () => void = () => undefined
    const onAssetFailed = (asset: string) => {
      failed.add(asset)
      for (const [id, one] of clips) if (one === asset) book.setStill(id, { picture: coverPicture('film'), isOpaque: true })
      wake()
    }
    const book = this.#openBook({ onChange: () => wake(), onAssetFailed })
    for (const { id, kind } of seen.inputs) {
      if (kind === 'camera') book.setStill(inputSourceId(id), { picture: coverPicture('person'), isOpaque: false })
      if (kind === 'screen') book.setStill(inputSourceId(id), { picture: coverPicture('window'), isOpaque: true })
    }
    book.follow(seen)
    const nowMs = performance.now()
    const assetOf = new Map(seen.inputs.flatMap((input) => (input.kind === 'picture' ? [[inputSourceId(input.id), input.asset] as const] : [])))
    let isLate = false
    const stopTimer = this.#setTimer(() => {
      isLate = true
      wake()
    }, PATIENCE_MS)
    try {
      for (;;) {
        const changed = new Promise<void>((resolve) => (wake = resolve))
        const plan = planFrame(seen, { scene }, nowMs, book.infos, { scale: widthPx / seen.canvas.widthPx, wall: wallAt(nowMs) })
        book.layOut(plan)
        const isWhole =
          plan.missing.every(({ sourceId }) => failed.has(assetOf.get(sourceId) ?? '')) && plan.texts.every(({ sourceId }) => book.isSet(sourceId))
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
  fonts: TextFonts,
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
  return new Covers((events) => new SourceBook(loadAsset, fonts, events), openPen, answer, setTimer)
}

/** A show whose clips are pictures. What is done to a camera's picture makes no sense of a drawn person. */
function atRest(show: Show): Show {
  const cameras = new Set(show.inputs.flatMap(({ id, kind }) => (kind === 'camera' ? [id] : [])))
  return {
    ...show,
    inputs: show.inputs.map((input): Input => {
      if (input.kind === 'clip') return { id: input.id, kind: 'picture', name: input.name, asset: input.asset, treatment: input.treatment }
      return input.kind === 'camera' ? { ...input, treatment: [] } : input
    }),
    scenes: show.scenes.map((scene) => ({
      ...scene,
      layers: mapLayers(scene.layers, (layer) => (layer.kind === 'input' && cameras.has(layer.inputId) ? { ...layer, treatment: [] } : layer)),
    })),
  }
}
