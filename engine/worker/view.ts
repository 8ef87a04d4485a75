// One picture on the page: a plan of its own, drawn into a canvas that the page handed over.
import type { Drawings } from '../../core/drawing/surface.ts'
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { PICTURE, planFrame, planInput, planOutputs } from '../../core/stage/plan-frame.ts'
import { layerParts, planParts } from '../../core/stage/plan-parts.ts'
import { isTransition, type SceneStage, type Stage } from '../../core/stage/stage.ts'
import type { WallClock } from '../../core/text/fields.ts'
import { addContents } from '../../core/show/contents.ts'
import { findLayer, layersOf } from '../../core/layers/tree.ts'
import type { Scene, Show } from '../../core/show/show.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Block, Heap } from '../cpu/heap.ts'
import type { Executor } from '../executor.ts'
import type { Executors } from '../executors.ts'
import type { ViewRequest } from '../protocol.ts'
import { paintClipping } from './paint-clipping.ts'
import { URGENCY } from '../raster/raster.ts'
import type { SourceBook } from '../sources/source-book.ts'
import { straightOf } from './straight-alpha.ts'
import { DrawnStamp } from './drawn-stamp.ts'
import { KeptPlan, type Shown } from './kept-plan.ts'
import { stepsOf, treatmentOf } from './steps-of.ts'
import { wallAt } from '../sources/wall-clock.ts'

export class View {
  readonly canvas: OffscreenCanvas
  request: ViewRequest
  /** When it was last drawn, for small views that take turns. */
  lastDrawnMs = -Infinity
  readonly #pen: OffscreenCanvasRenderingContext2D
  readonly #heap: Heap
  readonly #executor: Executor
  readonly #executors: Executors
  readonly #book: SourceBook
  readonly #drawings: () => Drawings | undefined
  readonly #drawn = new DrawnStamp()
  readonly #plan: KeptPlan<ViewRequest>
  #greyBlock: Block | null = null
  /** The cue that was played last, and when. */
  #cue: { readonly number: number; readonly playedMs: number } | null = null
  #scratch = new Uint8ClampedArray(0)

  constructor(canvas: OffscreenCanvas, request: ViewRequest, executors: Executors, book: SourceBook, drawings: () => Drawings | undefined = () => undefined) {
    const pen = canvas.getContext('2d', { willReadFrequently: true })
    if (pen === null) throw new Error('this browser refused a 2-D canvas')
    this.canvas = canvas
    this.request = request
    this.#pen = pen
    this.#heap = executors.treatments.heap
    this.#executor = executors.make()
    this.#executors = executors
    this.#book = book
    this.#drawings = drawings
    this.#plan = new KeptPlan(book.rasters, this.isSmall ? URGENCY.small : URGENCY.stage)
  }

  /** Whether this view is content with a few pictures a second. */
  get isSmall(): boolean {
    const { request } = this
    return request.kind === 'layer' || request.kind === 'draft' || ((request.kind === 'scene' || request.kind === 'input') && request.isSmall)
  }

  /** Plans anew after a source changed; an edit of the show and another request are noticed. */
  invalidate(): void {
    this.#plan.invalidate()
  }

  #show(picture: RgbaPicture): void {
    if (this.canvas.width !== picture.widthPx || this.canvas.height !== picture.heightPx) {
      this.canvas.width = picture.widthPx
      this.canvas.height = picture.heightPx
    }
    this.#pen.putImageData(imageDataOf(picture), 0, 0)
  }

  /** Shows what the audience gets. */
  showAir(picture: RgbaPicture): void {
    this.#drawn.forget()
    this.#show(picture)
  }

  /** Draws what was asked for; says whether everything it needs had a picture. With `onlyWhole` nothing is drawn otherwise. */
  draw(show: Show, nowMs: number, onlyWhole: boolean): boolean {
    const { request } = this
    this.#noteCue(request, nowMs)
    // A plan for a moment to come tells that moment's time: by the clock as it is now.
    const wall = wallAt(nowMs)
    const shown = this.#plan.of(
      show,
      { subject: request, partsOf: () => this.#partsOf(show, request), make: (timeMs) => this.#makePlan(show, request, timeMs, wall) },
      nowMs,
    )
    if (shown === null) {
      this.#drawn.forget()
      if (this.#lacksSubject(show, request)) this.#pen.clearRect(0, 0, this.canvas.width, this.canvas.height)
      return false
    }
    const isWhole = shown.plan.missing.length === 0
    if (onlyWhole && !isWhole) return false
    if (!this.#drawn.isNew(shown.plan, this.#book.frames, this.#executors.treatmentVersion)) return isWhole
    try {
      this.#paint(shown)
    } catch (error) {
      // It is not on the canvas, so it must be drawn again.
      this.#drawn.forget()
      throw error
    }
    return isWhole
  }

  /** A view that is cued anew plays from that moment on; the first cue that it has is where it begins. */
  #noteCue(request: ViewRequest, nowMs: number): void {
    const number = request.kind === 'scene' ? request.cue?.number : undefined
    if (number === undefined) this.#cue = null
    else if (this.#cue?.number !== number) this.#cue = { number, playedMs: nowMs }
  }

  #paint({ subject, plan }: Shown<ViewRequest>): void {
    const picture = this.#executor.render(plan, this.#book.frames)
    if (subject.kind === 'input' && subject.stage === 'matte') this.#show(this.#greyOf(picture))
    else if (isClear(subject)) this.#show(this.#straight(picture, subject))
    else this.#show(picture)
  }

  dispose(): void {
    this.#executor.dispose()
    this.#freeGrey()
  }

  /** Whether what is asked for is not there at all, and not just on its way. */
  #lacksSubject(show: Show, request: ViewRequest): boolean {
    if (request.kind === 'input') return !this.#book.infos.has(inputSourceId(request.inputId))
    return (request.kind === 'scene' || request.kind === 'layer') && !show.scenes.some(({ id }) => id === request.sceneId)
  }

  /** What of the show the plan reads. */
  #partsOf(show: Show, request: ViewRequest): readonly unknown[] {
    if (request.kind === 'air') return []
    if (request.kind === 'draft') return [...planParts(show, request.scene), show.contents]
    if (request.kind === 'input') {
      const input = show.inputs.find(({ id }) => id === request.inputId)
      return [input, ...(input === undefined ? [] : treatmentOf(show, input, request.layer ?? null))]
    }
    const scene = show.scenes.find(({ id }) => id === request.sceneId)
    if (scene === undefined) return []
    if (request.kind === 'layer') return layerParts(show, findLayer(scene, request.layerId))
    const others = [underOf(show, request), show.scenes.find(({ id }) => id === request.cue?.from?.sceneId)]
    return [...others.flatMap((other) => (other == null ? [] : planParts(show, other))), ...planParts(show, scene)]
  }

  #makePlan(show: Show, request: ViewRequest, timeMs: number, wall: WallClock): FramePlan | null {
    const { canvas } = this
    if (request.kind === 'input') return this.#inputPlan(show, request)
    if (request.kind === 'air') return null
    if (request.kind === 'draft') return this.#draftPlan(show, request, timeMs, wall)
    const scene = show.scenes.find((candidate) => candidate.id === request.sceneId)
    if (scene === undefined) return null
    const scale = this.isSmall ? canvas.width / show.canvas.widthPx : 1
    const alone = (layerId: string) => ({
      scene: {
        ...scene,
        layers: layersOf(scene)
          .filter((layer) => layer.id === layerId)
          .map((layer) => ({ ...layer, visible: true })),
      },
      ground: 'clear' as const,
    })
    const under = request.kind === 'scene' ? underOf(show, request) : null
    if (request.kind === 'layer') return planFrame(show, alone(request.layerId), timeMs, this.#book.infos, { scale, wall })
    const stage = this.#stageOf(show, { scene, ...this.#withDrawings }, request, timeMs)
    if (under === null || isTransition(stage)) return planFrame(show, stage, timeMs, this.#book.infos, { scale, wall })
    return planOutputs(show, { [PICTURE]: { stage: { scene: under }, over: [stage], scale } }, timeMs, this.#book.infos, { wall })
  }

  /** A scene as its cue has it at a moment; at rest without one. */
  #stageOf(show: Show, still: SceneStage, { cue }: Extract<ViewRequest, { kind: 'scene' }>, timeMs: number): Stage {
    if (cue === undefined || this.#cue === null) return still
    const beganMs = cue.atMs === undefined ? this.#cue.playedMs : timeMs - cue.atMs
    if (cue.way === 'leave') return { ...still, leavesMs: beganMs }
    const from = show.scenes.find(({ id }) => id === cue.from?.sceneId)
    if (cue.from === undefined || from === undefined) return { ...still, enteredMs: beganMs }
    const to = { ...still, enteredMs: beganMs }
    return { from: { scene: from, ...this.#withDrawings, leavesMs: beganMs }, to, transition: cue.from.transition, beganMs }
  }

  /** What is drawn, as stages have it. */
  get #withDrawings(): Pick<SceneStage, 'drawings'> {
    const drawings = this.#drawings()
    return drawings === undefined ? {} : { drawings }
  }

  #draftPlan(show: Show, { scene, contents }: Extract<ViewRequest, { kind: 'draft' }>, timeMs: number, wall: WallClock): FramePlan {
    const scale = this.canvas.width / show.canvas.widthPx
    return planFrame(addContents(show, contents), { scene }, timeMs, this.#book.infos, { scale, wall })
  }

  #inputPlan(show: Show, request: Extract<ViewRequest, { kind: 'input' }>): FramePlan | null {
    const id: SourceId = inputSourceId(request.inputId)
    const input = show.inputs.find((candidate) => candidate.id === request.inputId)
    const info = this.#book.infos.get(id)
    if (input === undefined || info === undefined) return null
    const steps = request.stage === 'before' ? [] : stepsOf(show, input, request.layer ?? null)
    const isSmall = this.isSmall
    const widthPx = isSmall ? this.canvas.width : info.widthPx
    const heightPx = isSmall ? Math.round((this.canvas.width * info.heightPx) / info.widthPx) : info.heightPx
    return planInput(request.inputId, info, steps, widthPx, heightPx)
  }

  /** The executor's picture is its own and stays as it is, so that still parts need not be made anew. */
  #greyOf(picture: RgbaPicture): RgbaPicture {
    const heap = this.#heap
    if (this.#greyBlock !== null && this.#greyBlock.byteLength < picture.data.length) this.#freeGrey()
    this.#greyBlock ??= heap.allocate(picture.data.length)
    const { at } = this.#greyBlock
    let from = picture.data.byteOffset
    if (picture.data.buffer !== heap.bytes.buffer) {
      heap.bytes.set(picture.data, at)
      from = at
    }
    heap.kernels.alphaToGrey(from, at, picture.widthPx * picture.heightPx)
    return { ...picture, data: new Uint8ClampedArray(heap.bytes.buffer, at, picture.data.length) }
  }

  #freeGrey(): void {
    if (this.#greyBlock !== null) this.#heap.free(this.#greyBlock)
    this.#greyBlock = null
  }

  #straight(picture: RgbaPicture, request: ViewRequest): RgbaPicture {
    const straight = straightOf(picture, this.#scratchFor(picture.data.length))
    if (request.kind === 'input' && request.showsClipping === true) paintClipping(straight.data)
    return straight
  }

  #scratchFor(byteLength: number): Uint8ClampedArray<ArrayBuffer> {
    if (this.#scratch.length !== byteLength) this.#scratch = new Uint8ClampedArray(byteLength)
    return this.#scratch
  }
}

function imageDataOf(picture: RgbaPicture): ImageData {
  return new ImageData(picture.data as Uint8ClampedArray<ArrayBuffer>, picture.widthPx, picture.heightPx)
}

/** The scene that another is laid over; null when it stands by itself, or that one is gone. */
function underOf(show: Show, request: ViewRequest): Scene | null {
  if (request.kind !== 'scene' || request.under === undefined || request.under === request.sceneId) return null
  return show.scenes.find(({ id }) => id === request.under) ?? null
}

/** Whether nothing lies under what is shown. */
function isClear(request: ViewRequest): boolean {
  return request.kind === 'layer' || request.kind === 'input'
}
