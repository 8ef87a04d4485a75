// The person's opacity in real time: core/matte/person-mask.ts and guided-filter.ts, with their loops in WebAssembly.
import { placesBetween } from '../../../core/filter/bilinear.ts'
import { GUIDE_EPSILON, GUIDE_RADIUS, lumaStep, MASK_HIGH, MASK_LOW, smallLuma } from '../../../core/matte/person-mask.ts'
import type { Plane } from '../../../core/picture/float-picture.ts'
import type { Block } from '../heap.ts'
import type { LiveTools } from './live-work.ts'
import { heapPlaces, type HeapPlaces } from './places.ts'

/** What kernels.addLumaRow takes. */
const LUMA_STEP = 2

/** For masks of one size. */
export class LiveGuide {
  readonly #tools: LiveTools
  readonly #widthPx: number
  readonly #heightPx: number
  readonly #columns: HeapPlaces
  readonly #rows: ReturnType<typeof placesBetween>
  readonly #blocks: Block[] = []
  readonly #gain: Block
  readonly #offset: Block
  readonly #gainRow: Block
  readonly #offsetRow: Block
  /** Whether the picture has so few pixels for each mask pixel that all are looked at. */
  readonly #isSmall: boolean
  /** The mask pixel that each column belongs to. */
  readonly #cellOf: Block
  readonly #sums: Block
  /** 1 / (255 · pixels looked at) of each mask pixel. */
  readonly #scales: Block
  readonly #mask: Block
  readonly #cells: Block
  readonly #spare: Block
  readonly #columnSums: Block
  readonly #kinds: Block

  constructor(tools: LiveTools, { widthPx, heightPx }: Plane) {
    this.#tools = tools
    this.#widthPx = widthPx
    this.#heightPx = heightPx
    this.#isSmall = lumaStep(tools.widthPx, tools.heightPx, widthPx, heightPx) === 1
    this.#columns = heapPlaces(tools.heap, tools.allocate, placesBetween(tools.widthPx, widthPx), widthPx)
    this.#rows = placesBetween(tools.heightPx, heightPx)
    const count = widthPx * heightPx
    const block = (byteLength: number) => {
      const made = tools.allocate(byteLength)
      this.#blocks.push(made)
      return made
    }
    this.#gain = block(count * 4)
    this.#offset = block(count * 4)
    this.#gainRow = block(widthPx * 4 + 64)
    this.#offsetRow = block(widthPx * 4 + 64)
    this.#cellOf = block(tools.widthPx * 4 + 64)
    this.#sums = block(count * 4)
    this.#scales = block(count * 4)
    this.#mask = block(count * 4)
    this.#cells = block(count * 16)
    this.#spare = block(count * 16)
    this.#columnSums = block(widthPx * 16)
    this.#kinds = block(widthPx + 16)
    this.#placeCells()
  }

  fits(mask: Plane): boolean {
    return mask.widthPx === this.#widthPx && mask.heightPx === this.#heightPx
  }

  /** Fits another mask to the picture at `pixels`; `edge` is added to guided values. */
  take(pixels: number, mask: Plane, edge: number): void {
    const { heap, widthPx, heightPx } = this.#tools
    const { kernels } = heap
    const count = this.#widthPx * this.#heightPx
    const sums = this.#sums.at
    if (this.#isSmall) {
      const picture = heap.bytes.subarray(pixels, pixels + widthPx * heightPx * 4)
      heap.floats.set(smallLuma(picture, 255, widthPx, heightPx, this.#widthPx, this.#heightPx), sums >> 2)
    } else {
      heap.bytes.fill(0, sums, sums + count * 4)
      for (let y = 0; y < heightPx; y += LUMA_STEP) {
        const row = Math.floor((y * this.#heightPx) / heightPx) * this.#widthPx
        kernels.addLumaRow(pixels + y * widthPx * 4, widthPx, this.#cellOf.at, sums + row * 4)
      }
    }
    heap.floats.set(mask.data, this.#mask.at >> 2)
    const cells = this.#cells.at
    kernels.momentCells(sums, this.#scales.at, this.#mask.at, cells, count)
    kernels.boxCells(cells, this.#spare.at, this.#columnSums.at, this.#widthPx, this.#heightPx, GUIDE_RADIUS)
    kernels.fitCells(cells, count, GUIDE_EPSILON)
    kernels.boxCells(cells, this.#spare.at, this.#columnSums.at, this.#widthPx, this.#heightPx, GUIDE_RADIUS)
    kernels.splitCells(cells, this.#gain.at, this.#offset.at, count, edge)
  }

  /** Writes opacity, a byte for each pixel, for the picture at `pixels`. */
  fill(pixels: number, out: number): void {
    const { heap, widthPx, heightPx } = this.#tools
    const { kernels } = heap
    const rowBytes = this.#widthPx * 4
    for (let y = 0; y < heightPx; y += 1) {
      const below = this.#rows.below[y]! * rowBytes
      const above = this.#rows.above[y]! * rowBytes
      kernels.mixFloats(this.#gain.at + below, this.#gain.at + above, this.#gainRow.at, this.#widthPx, this.#rows.share[y]!)
      kernels.mixFloats(this.#offset.at + below, this.#offset.at + above, this.#offsetRow.at, this.#widthPx, this.#rows.share[y]!)
      kernels.personRow(
        pixels + y * widthPx * 4,
        out + y * widthPx,
        this.#gainRow.at,
        this.#offsetRow.at,
        this.#columns.starts,
        this.#columns.shares,
        this.#kinds.at,
        this.#widthPx - 1,
        MASK_LOW,
        MASK_HIGH,
      )
    }
  }

  dispose(): void {
    for (const block of [...this.#columns.blocks, ...this.#blocks]) this.#tools.heap.free(block)
  }

  #placeCells(): void {
    const { heap, widthPx, heightPx } = this.#tools
    const scales = this.#scales.at >> 2
    const count = this.#widthPx * this.#heightPx
    // The means of a small picture are whole already.
    heap.floats.fill(this.#isSmall ? 1 : 0, scales, scales + count)
    if (this.#isSmall) return
    for (let x = 0; x < widthPx; x += 1) {
      const cell = Math.floor((x * this.#widthPx) / widthPx)
      heap.words[(this.#cellOf.at >> 2) + x] = cell
      if (x % LUMA_STEP !== 0) continue
      for (let y = 0; y < heightPx; y += LUMA_STEP) heap.floats[scales + Math.floor((y * this.#heightPx) / heightPx) * this.#widthPx + cell]! += 1
    }
    for (let i = scales; i < scales + count; i += 1) heap.floats[i] = heap.floats[i] === 0 ? 0 : 1 / (255 * heap.floats[i]!)
  }
}
