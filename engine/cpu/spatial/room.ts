import { placesBetween } from '../../../core/filter/bilinear.ts'
import { gaussianTaps } from '../../../core/filter/gaussian.ts'
import type { Plane } from '../../../core/picture/float-picture.ts'
import { blurHalvings, blurSigma, EDGE_REACH, stretched } from '../../../core/steps/room/reference.ts'
import type { RoomWork } from '../../../core/steps/room/index.ts'
import type { Block } from '../heap.ts'
import { heapPlaces, type HeapPlaces } from './places.ts'
import { LiveGuide } from './live-guide.ts'
import type { LiveTools, LiveWork, MakeLiveWork } from './live-work.ts'

/** Softens, hides or replaces the room. */
export const liveRoom: MakeLiveWork<RoomWork> = (tools, work) => new LiveRoom(tools, work)

class LiveRoom implements LiveWork {
  readonly #tools: LiveTools
  readonly #settings: RoomWork['settings']
  readonly #mask: Block
  readonly #replacement: Block | null
  readonly #blur: SmallBlur | null
  #guide: LiveGuide | null = null
  #lastPerson: Plane | null = null

  constructor(tools: LiveTools, { settings }: RoomWork) {
    const { widthPx, heightPx, allocate, heap } = tools
    this.#tools = tools
    this.#settings = settings
    this.#mask = allocate(widthPx * heightPx)
    this.#blur = settings.effect === 'softened' ? new SmallBlur(tools, blurSigma(settings.softness, heightPx)) : null
    this.#replacement = settings.effect === 'replaced' ? allocate(widthPx * heightPx * 4) : null
    if (this.#replacement !== null) {
      const { data } = stretched(settings.picture, widthPx, heightPx)
      for (let i = 0; i < data.length; i += 1) heap.bytes[this.#replacement.at + i] = Math.round(data[i]! * 255)
    }
  }

  run(at: number, spare: number, person: Plane | null): number {
    const { heap, widthPx, heightPx } = this.#tools
    const { kernels } = heap
    this.#fillMask(at, person)
    const mask = this.#mask.at
    for (let y = 0; y < heightPx; y += 1) {
      const row = y * widthPx
      if (this.#settings.effect === 'hidden') kernels.hideRow(at + row * 4, mask + row, at + row * 4, widthPx)
      else if (this.#replacement !== null) kernels.replaceRow(at + row * 4, mask + row, this.#replacement.at + row * 4, at + row * 4, widthPx)
      else if (this.#blur?.isFullSize === true) kernels.roomRow(at + row * 4, mask + row, spare + row * 4, widthPx)
    }
    this.#blur?.run(at, spare, mask)
    return at
  }

  dispose(): void {
    const { heap } = this.#tools
    heap.free(this.#mask)
    if (this.#replacement !== null) heap.free(this.#replacement)
    this.#blur?.dispose()
    this.#guide?.dispose()
  }

  #fillMask(at: number, person: Plane | null): void {
    const { heap, widthPx, heightPx } = this.#tools
    if (person === null) {
      heap.bytes.fill(0, this.#mask.at, this.#mask.at + widthPx * heightPx)
      return
    }
    if (this.#guide === null || !this.#guide.fits(person)) {
      this.#guide?.dispose()
      this.#guide = new LiveGuide(this.#tools, person)
      this.#lastPerson = null
    }
    if (person !== this.#lastPerson) {
      // A mask comes some fifteen times a second; between two, the last one is held to the new picture's luma.
      this.#guide.take(at, person, this.#settings.edge * EDGE_REACH)
      this.#lastPerson = person
    }
    this.#guide.fill(at, this.#mask.at)
  }
}

/** Halves what is room, blurs it small, and lays it under the person. */
class SmallBlur {
  readonly #tools: LiveTools
  readonly #halvings: number
  readonly #levels: { readonly block: Block; readonly widthPx: number; readonly heightPx: number }[] = []
  readonly #taps: Block
  readonly #radius: number
  readonly #across: Block
  readonly #out: Block
  readonly #row: Block
  readonly #fineRow: Block
  readonly #columns: HeapPlaces
  readonly #rows: ReturnType<typeof placesBetween>
  readonly #smallWidth: number
  readonly #smallHeight: number

  constructor(tools: LiveTools, sigma: number) {
    const { allocate, heap } = tools
    this.#tools = tools
    this.#halvings = blurHalvings(sigma)
    let { widthPx, heightPx } = tools
    for (let i = 0; i < this.#halvings; i += 1) {
      widthPx = Math.max(1, widthPx >> 1)
      heightPx = Math.max(1, heightPx >> 1)
      this.#levels.push({ block: allocate(widthPx * heightPx * 4), widthPx, heightPx })
    }
    this.#smallWidth = widthPx
    this.#smallHeight = heightPx
    const taps = gaussianTaps(Math.max(0.3, sigma / 2 ** this.#halvings))
    this.#radius = (taps.length - 1) / 2
    this.#taps = allocate(taps.length * 4)
    heap.floats.set(taps, this.#taps.at >> 2)
    this.#across = allocate(widthPx * heightPx * 16)
    this.#out = allocate(widthPx * heightPx * 16)
    this.#row = allocate(widthPx * 16 + 64)
    this.#fineRow = allocate(widthPx * 8 + 64)
    this.#columns = heapPlaces(heap, allocate, placesBetween(tools.widthPx, widthPx), widthPx)
    this.#rows = placesBetween(tools.heightPx, heightPx)
  }

  /** Whether the blur is too small to be worked out at a reduced size. */
  get isFullSize(): boolean {
    return this.#levels.length === 0
  }

  /** The result replaces the pixels at `at`. At full size `room` holds the room premultiplied by its weight. */
  run(at: number, room: number, mask: number): void {
    const { heap, widthPx, heightPx } = this.#tools
    const { kernels } = heap
    let from = room
    for (let i = 0; i < this.#levels.length; i += 1) {
      const level = this.#levels[i]!
      if (i === 0) this.#halveRoom(at, mask, level.block.at, level.widthPx, level.heightPx)
      else kernels.halve(from, this.#levels[i - 1]!.widthPx, this.#levels[i - 1]!.heightPx, level.block.at, level.widthPx, level.heightPx)
      from = level.block.at
    }
    kernels.blurSmall(from, this.#smallWidth, this.#smallHeight, this.#taps.at, this.#radius, this.#across.at, this.#out.at)
    const rowBytes = this.#smallWidth * 16
    for (let y = 0; y < heightPx; y += 1) {
      const below = this.#out.at + this.#rows.below[y]! * rowBytes
      const above = this.#out.at + this.#rows.above[y]! * rowBytes
      kernels.mixFloats(below, above, this.#row.at, this.#smallWidth * 4, this.#rows.share[y]!)
      kernels.fineRow(this.#row.at, this.#fineRow.at, this.#smallWidth * 4)
      const row = y * widthPx
      kernels.softenRow(
        at + row * 4,
        mask + row,
        this.#row.at,
        this.#fineRow.at,
        this.#columns.starts,
        this.#columns.shares,
        this.#columns.fineShares,
        this.#smallWidth - 1,
      )
    }
  }

  /** What is room at half the size; an odd last row or column is dropped. */
  #halveRoom(at: number, mask: number, out: number, width: number, height: number): void {
    const { heap, widthPx, heightPx } = this.#tools
    for (let y = 0; y < height; y += 1) {
      const upper = 2 * y * widthPx
      const lower = heightPx > 1 ? upper + widthPx : upper
      heap.kernels.halveRoomRow(at + upper * 4, at + lower * 4, mask + upper, mask + lower, out + y * width * 4, width)
    }
  }

  dispose(): void {
    const { heap } = this.#tools
    for (const level of this.#levels) heap.free(level.block)
    for (const block of [this.#taps, this.#across, this.#out, this.#row, this.#fineRow, ...this.#columns.blocks]) heap.free(block)
  }
}
