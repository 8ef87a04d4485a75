// One picture on the page: a plan of its own, drawn into a canvas that the page handed over.
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { planFrame, planInput } from '../../core/stage/plan-frame.ts'
import { planParts } from '../../core/stage/plan-parts.ts'
import { addContents } from '../../core/show/contents.ts'
import { layersOf } from '../../core/layers/tree.ts'
import type { Show } from '../../core/show/show.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Block, Heap } from '../cpu/heap.ts'
import type { Executor } from '../executor.ts'
import type { Executors } from '../executors.ts'
import type { ViewRequest } from '../protocol.ts'
import { paintClipping } from './paint-clipping.ts'
import type { SourceBook } from './source-book.ts'
import { straightOf } from './straight.ts'
import { KeptPlan } from './kept-plan.ts'
import { stepsOf, treatmentOf } from './steps-of.ts'
import { wallAt } from './wall.ts'

export class View {
  readonly canvas: OffscreenCanvas
  request: ViewRequest
  /** When it was last drawn, for small views that take turns. */
  lastDrawnMs = -Infinity
  readonly #pen: OffscreenCanvasRenderingContext2D
  readonly #heap: Heap
  readonly #executor: Executor
  readonly #plan = new KeptPlan()
  #greyBlock: Block | null = null
  #scratch = new Uint8ClampedArray(0)

  constructor(canvas: OffscreenCanvas, request: ViewRequest, executors: Executors) {
    const pen = canvas.getContext('2d', { willReadFrequently: true })
    if (pen === null) throw new Error('this browser refused a 2-D canvas')
    this.canvas = canvas
    this.request = request
    this.#pen = pen
    this.#heap = executors.treatments.heap
    this.#executor = executors.make()
  }

  /** Whether this view is content with a few pictures a second. */
  get isSmall(): boolean {
    const { request } = this
    return request.kind === 'layer' || request.kind === 'draft' || ((request.kind === 'scene' || request.kind === 'input') && request.isSmall)
  }

  /** Whether nothing lies under what is shown. */
  get #isClear(): boolean {
    return this.request.kind === 'layer' || this.request.kind === 'input'
  }

  /** Forgets the plan after the request or a source changed; an edit of the show is noticed. */
  invalidate(): void {
    this.#plan.drop()
  }

  /** Draws a picture that was made elsewhere at this canvas's size. */
  show(picture: RgbaPicture): void {
    if (this.canvas.width !== picture.widthPx || this.canvas.height !== picture.heightPx) {
      this.canvas.width = picture.widthPx
      this.canvas.height = picture.heightPx
    }
    this.#pen.putImageData(imageDataOf(picture), 0, 0)
  }

  /** Draws what was asked for; says whether everything it needs had a picture. With `onlyWhole` nothing is drawn otherwise. */
  draw(show: Show, book: SourceBook, nowMs: number, onlyWhole: boolean): boolean {
    const plan = this.#plan.of(
      show,
      this.request,
      nowMs,
      () => this.#partsOf(show),
      () => this.#makePlan(show, book, nowMs),
    )
    if (plan === null) {
      this.#pen.clearRect(0, 0, this.canvas.width, this.canvas.height)
      return false
    }
    const isWhole = plan.missing.length === 0
    if (onlyWhole && !isWhole) return false
    const picture = this.#executor.render(plan, book.frames)
    if (this.request.kind === 'input' && this.request.stage === 'matte') this.show(this.#greyOf(picture))
    else if (this.#isClear) this.show(this.#straight(picture))
    else this.show(picture)
    return isWhole
  }

  dispose(): void {
    this.#executor.dispose()
    this.#freeGrey()
  }

  /** What of the show the plan reads. */
  #partsOf(show: Show): readonly unknown[] {
    const { request } = this
    if (request.kind === 'air') return []
    if (request.kind === 'draft') return [...planParts(show, request.scene), show.contents]
    if (request.kind === 'input') {
      const input = show.inputs.find(({ id }) => id === request.inputId)
      return [input, ...(input === undefined ? [] : treatmentOf(show, input, request.layer ?? null))]
    }
    const scene = show.scenes.find(({ id }) => id === request.sceneId)
    return scene === undefined ? [] : planParts(show, scene)
  }

  #makePlan(show: Show, book: SourceBook, nowMs: number): FramePlan | null {
    const { request, canvas } = this
    if (request.kind === 'input') return this.#inputPlan(show, book, request)
    if (request.kind === 'air') return null
    if (request.kind === 'draft') return this.#draftPlan(show, book, request, nowMs)
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
    const plan = planFrame(show, request.kind === 'layer' ? alone(request.layerId) : { scene }, nowMs, book.infos, { scale, wall: wallAt(nowMs) })
    book.layOut(plan)
    return plan
  }

  #draftPlan(show: Show, book: SourceBook, { scene, contents }: Extract<ViewRequest, { kind: 'draft' }>, nowMs: number): FramePlan {
    const scale = this.canvas.width / show.canvas.widthPx
    const plan = planFrame(addContents(show, contents), { scene }, nowMs, book.infos, { scale, wall: wallAt(nowMs) })
    book.layOut(plan)
    return plan
  }

  #inputPlan(show: Show, book: SourceBook, request: Extract<ViewRequest, { kind: 'input' }>): FramePlan | null {
    const id: SourceId = inputSourceId(request.inputId)
    const input = show.inputs.find((candidate) => candidate.id === request.inputId)
    const info = book.infos.get(id)
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

  #straight(picture: RgbaPicture): RgbaPicture {
    const straight = straightOf(picture, this.#scratchFor(picture.data.length))
    if (this.request.kind === 'input' && this.request.showsClipping === true) paintClipping(straight.data)
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
