// Puts one draw of a plan over a base, row by row. Packed and premultiplied, in the heap.
import type { PixelRect } from '../../core/picture/picture.ts'
import type { Draw } from '../../core/plan/frame-plan.ts'
import { isUpright } from '../../core/plan/plan-frame.ts'
import type { Run } from '../../core/steps/chain.ts'
import type { SourceFrame } from '../executor.ts'
import { spaceOf } from './chain-runner.ts'
import { drawMask, type DrawMask } from './draw-mask.ts'
import type { Block, Heap } from './heap.ts'
import type { HeapPicture, Treatments } from './treatments.ts'

/** A canvas of packed pixels at `at`. */
export interface HeapCanvas {
  readonly widthPx: number
  readonly heightPx: number
  readonly at: number
}

type Sampling = 'copy' | 'scale' | 'turn'

/** A draw with everything that does not change from frame to frame. */
export class DrawJob {
  readonly draw: Draw
  readonly #heap: Heap
  readonly #sampling: Sampling
  /** Whether this draw alone uses its treated picture, unscaled: then rows are treated on the fly. */
  readonly #isStreamed: boolean
  readonly #mask: DrawMask
  readonly #maskBlock: Block
  readonly #lineBlock: Block
  #mixedBlock: Block | null = null
  #columns: ColumnTable | null = null

  constructor(heap: Heap, draw: Draw, isOnlyUse: boolean) {
    this.#heap = heap
    this.draw = draw
    this.#sampling = samplingOf(draw)
    this.#isStreamed = this.#sampling === 'copy' && isOnlyUse
    this.#mask = drawMask(draw)
    this.#maskBlock = heap.allocate(this.#mask.data.length)
    heap.bytes.set(this.#mask.data, this.#maskBlock.at)
    this.#lineBlock = heap.allocate(4 * Math.max(8192, draw.bounds.right - draw.bounds.left + 64))
  }

  /** Draws the rows of the bounds that lie inside `clip` over `base` into `out`. */
  run(frame: SourceFrame, treatments: Treatments, base: number, out: HeapCanvas, clip: PixelRect): void {
    const { bounds } = this.draw
    const top = Math.max(bounds.top, clip.top)
    const bottom = Math.min(bounds.bottom, clip.bottom)
    const left = Math.max(bounds.left, clip.left)
    const right = Math.min(bounds.right, clip.right)
    if (right <= left || bottom <= top) return
    const runner = this.#isStreamed ? treatments.runner(this.draw.steps, this.draw.treatedKey, frame.picture) : null
    if (runner?.isSimple === true) this.#runStreamed(runner.onlyRun, frame, treatments, base, out, left, top, right, bottom)
    else this.#runSampled(treatments.treated(this.draw, frame), base, out, left, top, right, bottom)
  }

  dispose(): void {
    this.#heap.free(this.#maskBlock)
    this.#heap.free(this.#lineBlock)
    if (this.#mixedBlock !== null) this.#heap.free(this.#mixedBlock)
    if (this.#columns !== null) this.#heap.free(this.#columns.block)
  }

  #runStreamed(
    run: Run,
    frame: SourceFrame,
    treatments: Treatments,
    base: number,
    out: HeapCanvas,
    left: number,
    top: number,
    right: number,
    bottom: number,
  ): void {
    const { picture } = frame
    const { draw } = this
    const offsetX = Math.round(draw.toSource.e)
    const offsetY = Math.round(draw.toSource.f)
    const { keep } = run
    const memo = treatments.tables.table(run.key, run.points, spaceOf(picture), 'premultiplied')
    const pictureAt = treatments.upload(draw.sourceId, frame)
    const line = this.#lineBlock.at
    const rowBytes = out.widthPx * 4
    for (let y = top; y < bottom; y += 1) {
      const sourceY = y + offsetY
      const at = y * rowBytes
      if (sourceY < keep.top || sourceY >= keep.bottom) {
        if (base !== out.at) this.#heap.kernels.copyRows(base + at + left * 4, out.at + at + left * 4, (right - left) * 4, rowBytes, 1)
        continue
      }
      treatments.rows.treat(picture, pictureAt, memo, keep, sourceY, line)
      this.#blend(line + (left + offsetX) * 4, base + at, out.at + at, y, left, right)
    }
  }

  #runSampled(picture: HeapPicture, base: number, out: HeapCanvas, left: number, top: number, right: number, bottom: number): void {
    const { toSource, bounds } = this.draw
    const { kernels } = this.#heap
    const line = this.#lineBlock.at
    const columns = this.#sampling === 'scale' ? this.#columnsFor(picture.widthPx) : null
    for (let y = top; y < bottom; y += 1) {
      const at = y * out.widthPx * 4
      if (columns !== null) {
        this.#scaleRow(picture, columns, y)
        this.#blend(line + (left - bounds.left) * 4, base + at, out.at + at, y, left, right)
      } else if (this.#sampling === 'turn') {
        const startX = toSource.a * (left + 0.5) + toSource.c * (y + 0.5) + toSource.e - 0.5
        const startY = toSource.b * (left + 0.5) + toSource.d * (y + 0.5) + toSource.f - 0.5
        kernels.turnRow(picture.at, picture.widthPx, picture.heightPx, startX, startY, toSource.a, toSource.b, right - left, line)
        this.#blend(line, base + at, out.at + at, y, left, right)
      } else {
        const from = (y + Math.round(toSource.f)) * picture.widthPx + left + Math.round(toSource.e)
        this.#blend(picture.at + from * 4, base + at, out.at + at, y, left, right)
      }
    }
  }

  #scaleRow(picture: HeapPicture, columns: ColumnTable, y: number): void {
    const { toSource, bounds } = this.draw
    const at = clampIndex(toSource.d * (y + 0.5) + toSource.f - 0.5, picture.heightPx)
    const upper = Math.floor(at)
    const lower = Math.min(picture.heightPx - 1, upper + 1)
    const rowBytes = picture.widthPx * 4
    this.#heap.kernels.scaleRow(
      picture.at + upper * rowBytes,
      picture.at + lower * rowBytes,
      Math.round((at - upper) * 256),
      columns.first,
      columns.last,
      this.#mixedBlock!.at,
      columns.block.at,
      bounds.right - bounds.left,
      this.#lineBlock.at,
    )
  }

  #columnsFor(sourceWidth: number): ColumnTable {
    if (this.#columns?.sourceWidth === sourceWidth) return this.#columns
    if (this.#columns !== null) this.#heap.free(this.#columns.block)
    if (this.#mixedBlock !== null) this.#heap.free(this.#mixedBlock)
    this.#mixedBlock = this.#heap.allocate(sourceWidth * 4)
    this.#columns = columnTable(this.#heap, this.draw, sourceWidth)
    return this.#columns
  }

  /** Blends canvas columns left..right of row y; `line` is where column `left` lies, the others row starts. */
  #blend(line: number, baseRow: number, outRow: number, y: number, left: number, right: number): void {
    const { kernels } = this.#heap
    const { bounds } = this.draw
    const row = y - bounds.top
    const maskRow = this.#maskBlock.at + row * (bounds.right - bounds.left) - bounds.left
    const solidFrom = Math.min(right, Math.max(left, bounds.left + this.#mask.solidFrom[row]!))
    const solidTo = Math.max(solidFrom, Math.min(right, bounds.left + this.#mask.solidTo[row]!))
    if (solidFrom > left) {
      kernels.blendMaskedRow(line, baseRow + left * 4, outRow + left * 4, solidFrom - left, maskRow + left)
    }
    if (solidTo > solidFrom) {
      kernels.blendRow(line + (solidFrom - left) * 4, baseRow + solidFrom * 4, outRow + solidFrom * 4, solidTo - solidFrom)
    }
    if (right > solidTo) {
      kernels.blendMaskedRow(line + (solidTo - left) * 4, baseRow + solidTo * 4, outRow + solidTo * 4, right - solidTo, maskRow + solidTo)
    }
  }
}

interface ColumnTable {
  readonly block: Block
  readonly sourceWidth: number
  readonly first: number
  readonly last: number
}

/** Left column, right column and weight of the right one (of 256) for each canvas column of the bounds. */
function columnTable(heap: Heap, draw: Draw, sourceWidth: number): ColumnTable {
  const count = draw.bounds.right - draw.bounds.left
  const block = heap.allocate(count * 12)
  let first = sourceWidth - 1
  let last = 0
  for (let i = 0; i < count; i += 1) {
    const at = clampIndex(draw.toSource.a * (draw.bounds.left + i + 0.5) + draw.toSource.e - 0.5, sourceWidth)
    const left = Math.floor(at)
    const right = Math.min(sourceWidth - 1, left + 1)
    heap.words[(block.at >> 2) + i * 3] = left
    heap.words[(block.at >> 2) + i * 3 + 1] = right
    heap.words[(block.at >> 2) + i * 3 + 2] = Math.round((at - left) * 256)
    first = Math.min(first, left)
    last = Math.max(last, right)
  }
  return { block, sourceWidth, first, last }
}

function clampIndex(position: number, length: number): number {
  return position < 0 ? 0 : position > length - 1 ? length - 1 : position
}

function samplingOf(draw: Draw): Sampling {
  if (!isUpright(draw)) return 'turn'
  const { a, d, e, f } = draw.toSource
  const isUnscaled = draw.halvings === 0 && Math.abs(a - 1) < 1e-9 && Math.abs(d - 1) < 1e-9
  // A copy must not read past the picture; a frame on whole pixels never does.
  const { frame, toFrame } = draw
  const isOnGrid = [e, f, frame.width, frame.height, toFrame.e, toFrame.f].every(isWhole)
  return isUnscaled && isOnGrid ? 'copy' : 'scale'
}

function isWhole(value: number): boolean {
  return Math.abs(value - Math.round(value)) < 1e-6
}
