// Puts one item of a plan over a base, row by row. Packed and premultiplied, in the heap.
import type { Affine } from '../../core/composite/affine.ts'
import type { EdgeReveal } from '../../core/composite/coverage.ts'
import { footprintOf } from '../../core/picture/box-sample.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import type { Item, Paint, TreatedNode } from '../../core/plan/frame-plan.ts'
import type { Run } from '../../core/steps/chain.ts'
import type { SourceFrame } from '../executor.ts'
import { spaceOf } from './chain-runner.ts'
import { coverMask, maskKey, type CoverMask } from './cover-mask.ts'
import { GradientRows } from './gradient-rows.ts'
import { coversRect, EMPTY_RECT, meeting } from '../../core/picture/pixel-rect.ts'
import type { HeapCanvas } from './heap-canvas.ts'
import type { Heap } from './heap.ts'
import { RowBlender, RowSpace } from './row-blender.ts'
import { ScaledRows, type RowPicture } from './scaled-rows.ts'
import type { Kept, SurfaceStore } from './surface-store.ts'
import { TreatedRows } from './treated-rows.ts'
import type { HeapPicture, Treatments } from './treatments.ts'

type Sampling = 'copy' | 'scale' | 'turn'

/** Rows that are cleaned on the way and read at once, at most; where more are, the whole picture is cleaned first. */
const MOST_TREATED_LINES = 10

/** What the jobs of one executor share. */
export class JobTools {
  readonly heap: Heap
  readonly treatments: Treatments
  readonly blender: RowBlender
  readonly line: RowSpace
  readonly mixed: RowSpace
  readonly thin: RowSpace
  readonly veil: RowSpace
  readonly rowTable: RowSpace
  readonly treatedLines: readonly RowSpace[]

  constructor(treatments: Treatments) {
    this.heap = treatments.heap
    this.treatments = treatments
    this.blender = new RowBlender(this.heap)
    this.line = new RowSpace(this.heap)
    this.mixed = new RowSpace(this.heap)
    this.thin = new RowSpace(this.heap)
    this.veil = new RowSpace(this.heap)
    this.rowTable = new RowSpace(this.heap)
    this.treatedLines = Array.from({ length: MOST_TREATED_LINES }, () => new RowSpace(this.heap))
  }

  get surfaces(): SurfaceStore {
    return this.treatments.surfaces
  }

  dispose(): void {
    this.blender.dispose()
    this.line.dispose()
    this.mixed.dispose()
    this.thin.dispose()
    this.veil.dispose()
    this.rowTable.dispose()
    for (const line of this.treatedLines) line.dispose()
  }
}

/** What a job draws from: a picture in the heap, or a source at its own size whose rows are treated on the way. */
export type JobPicture =
  { readonly kind: 'made'; readonly picture: HeapPicture } | { readonly kind: 'source'; readonly node: TreatedNode; readonly frame: SourceFrame }

/** An item with everything that does not change from frame to frame. */
export class ItemJob {
  readonly item: Item
  /** Where nothing under it shows. */
  readonly hidden: PixelRect
  readonly #tools: JobTools
  readonly #isOpaque: boolean
  readonly #sampling: Sampling
  readonly #maskKey: string
  readonly #gradient: GradientRows | null
  readonly #scaled: ScaledRows | null
  #mask: Kept<CoverMask> | null = null

  /** `isOpaque`: of the paint. */
  constructor(tools: JobTools, item: Item, isOpaque: boolean) {
    this.#tools = tools
    this.item = item
    this.#isOpaque = isOpaque
    this.#sampling = item.paint.kind === 'node' ? samplingOf(item, item.paint.toNode) : 'copy'
    this.#scaled = item.paint.kind === 'node' && this.#sampling === 'scale' ? new ScaledRows(item.bounds, item.paint.toNode) : null
    this.#maskKey = maskKey(item)
    this.hidden = this.#hiddenPart()
    this.#gradient = item.paint.kind === 'gradient' ? new GradientRows(tools.heap, item.paint) : null
  }

  /** Whether nothing under it shows in a region. */
  hides(region: PixelRect): boolean {
    return coversRect(this.hidden, region)
  }

  /** Where nothing under it shows: an opaque box, as far as it is uncovered. */
  #hiddenPart(): PixelRect {
    const { bounds, coverage, toCoverage, opacity, blend } = this.item
    const { shape, strokePx, sigmaPx, hole, reveal } = coverage
    if (!this.#isOpaque || opacity !== 1 || blend !== 'normal' || strokePx !== null || sigmaPx !== 0 || hole !== null) return EMPTY_RECT
    if (shape.kind !== 'roundedRect' || shape.cornerRadius !== 0 || toCoverage.a !== 1 || toCoverage.b !== 0) return EMPTY_RECT
    const { e, f } = toCoverage
    const box = { left: Math.ceil(-e), top: Math.ceil(-f), right: Math.floor(shape.width - e), bottom: Math.floor(shape.height - f) }
    const covered = meeting(bounds, box)
    if (reveal === null) return covered
    return reveal.kind === 'edge' ? uncovered(reveal, covered) : EMPTY_RECT
  }

  /** Draws the rows of the bounds that lie inside `clip` over `base` into `out`; a plain paint and a gradient need no picture. */
  run(picture: JobPicture | null, base: HeapCanvas, out: HeapCanvas, clip: PixelRect): void {
    const { bounds, paint } = this.item
    const part = {
      left: Math.max(bounds.left, clip.left),
      top: Math.max(bounds.top, clip.top),
      right: Math.min(bounds.right, clip.right),
      bottom: Math.min(bounds.bottom, clip.bottom),
    }
    if (part.right <= part.left || part.bottom <= part.top) return
    if (paint.kind === 'plain') return this.#runPlain(paint, base, out, part)
    if (paint.kind === 'gradient') return this.#runGradient(base, out, part)
    if (picture === null) throw new RangeError(`an item of layer "${this.item.layerId}" has no picture`)
    if (picture.kind === 'made') return this.#runSampled(picture.picture, paint.toNode, base, out, part)
    const { node, frame } = picture
    const runner = this.#tools.treatments.runner(node.steps, node.treatedKey, frame.picture)
    if (runner.isSimple) {
      if (this.#sampling === 'copy') return this.#runTreating(runner.onlyRun, node, frame, paint.toNode, base, out, part)
      if (this.#scaled !== null && this.#scaled.rowsRead <= MOST_TREATED_LINES)
        return this.#runScaled(this.#scaled, this.#treatedRows(this.#scaled, runner.onlyRun, node, frame), base, out, part)
    }
    this.#runSampled(this.#tools.treatments.treated(node, frame), paint.toNode, base, out, part)
  }

  #runPlain({ colour, opacity }: Extract<Paint, { kind: 'plain' }>, base: HeapCanvas, out: HeapCanvas, part: PixelRect): void {
    const { heap } = this.#tools
    const code = (value: number) => Math.round(value * opacity * 255)
    const count = part.right - part.left
    const line = this.#tools.line.at(count)
    heap.kernels.fillRow(line, count, ((code(1) << 24) | (code(colour[2]) << 16) | (code(colour[1]) << 8) | code(colour[0])) >>> 0)
    for (let y = part.top; y < part.bottom; y += 1) this.#blend(line, base, out, y, part.left, part.right)
  }

  #runGradient(base: HeapCanvas, out: HeapCanvas, part: PixelRect): void {
    const line = this.#tools.line.at(part.right - part.left)
    for (let y = part.top; y < part.bottom; y += 1) {
      this.#gradient!.write(part.left, y, part.right - part.left, line)
      this.#blend(line, base, out, y, part.left, part.right)
    }
  }

  /** Rows are treated as they are drawn; nothing is kept. */
  #runTreating(run: Run, node: TreatedNode, frame: SourceFrame, toNode: Affine, base: HeapCanvas, out: HeapCanvas, part: PixelRect): void {
    const { heap, treatments } = this.#tools
    const { picture } = frame
    const offsetX = Math.round(toNode.e)
    const offsetY = Math.round(toNode.f)
    const memo = treatments.tables.tableOf(run, spaceOf(picture), 'premultiplied')
    const pictureAt = treatments.upload(node.sourceId, frame)
    const line = this.#tools.line.at(picture.widthPx)
    const rowBytes = (part.right - part.left) * 4
    for (let y = part.top; y < part.bottom; y += 1) {
      const sourceY = y + offsetY
      if (sourceY < run.keep.top || sourceY >= run.keep.bottom) {
        const from = base.at + y * base.strideBytes + part.left * 4
        const to = out.at + y * out.strideBytes + part.left * 4
        if (from !== to) heap.kernels.copyRows(from, to, rowBytes, 0, 1)
        continue
      }
      treatments.rows.treat(picture, pictureAt, memo, run.keep, sourceY, line, 'premultiplied', part.left + offsetX, part.right + offsetX)
      this.#blend(line + (part.left + offsetX) * 4, base, out, y, part.left, part.right)
    }
  }

  #runSampled(picture: HeapPicture, toNode: Affine, base: HeapCanvas, out: HeapCanvas, { left, top, right, bottom }: PixelRect): void {
    const { kernels } = this.#tools.heap
    if (this.#sampling === 'copy' && picture.widthPx * 4 === out.strideBytes && this.hides({ left, top, right, bottom })) {
      // Nothing to blend, and rows that lie alike in both: one copy.
      const from = picture.at + ((top + Math.round(toNode.f)) * picture.widthPx + left + Math.round(toNode.e)) * 4
      kernels.copyRows(from, out.at + top * out.strideBytes + left * 4, (right - left) * 4, out.strideBytes, bottom - top)
      return
    }
    if (this.#scaled !== null) {
      const { at, widthPx, heightPx } = picture
      this.#runScaled(this.#scaled, { widthPx, heightPx, rowAt: (y) => at + y * widthPx * 4 }, base, out, { left, top, right, bottom })
      return
    }
    const line = this.#tools.line.at(right - left)
    const footprint = footprintOf(toNode)
    for (let y = top; y < bottom; y += 1) {
      if (this.#sampling === 'turn') {
        const startX = toNode.a * (left + 0.5) + toNode.c * (y + 0.5) + toNode.e - 0.5
        const startY = toNode.b * (left + 0.5) + toNode.d * (y + 0.5) + toNode.f - 0.5
        const { across, down } = footprint
        const { at, widthPx, heightPx } = picture
        if (across > 1 || down > 1) kernels.turnShrunkRow(at, widthPx, heightPx, startX, startY, toNode.a, toNode.b, across, down, right - left, line)
        else kernels.turnRow(at, widthPx, heightPx, startX, startY, toNode.a, toNode.b, right - left, line)
        this.#blend(line, base, out, y, left, right)
      } else {
        const from = (y + Math.round(toNode.f)) * picture.widthPx + left + Math.round(toNode.e)
        this.#blend(picture.at + from * 4, base, out, y, left, right)
      }
    }
  }

  #runScaled(scaled: ScaledRows, picture: RowPicture, base: HeapCanvas, out: HeapCanvas, { left, top, right, bottom }: PixelRect): void {
    const line = this.#tools.line.at(right - left)
    for (let y = top; y < bottom; y += 1) {
      scaled.write(this.#tools, picture, y, left, right, line)
      this.#blend(line, base, out, y, left, right)
    }
  }

  #treatedRows(scaled: ScaledRows, run: Run, node: TreatedNode, frame: SourceFrame): TreatedRows {
    const { treatments, treatedLines } = this.#tools
    const pictureAt = treatments.upload(node.sourceId, frame)
    return new TreatedRows(
      treatments,
      frame.picture,
      pictureAt,
      run,
      scaled.columnsRead(this.#tools, frame.picture.widthPx),
      treatedLines.slice(0, scaled.rowsRead),
    )
  }

  #maskOf(): Kept<CoverMask> {
    const { surfaces } = this.#tools.treatments
    if (this.#mask !== null && !this.#mask.isEvicted) {
      surfaces.touch(this.#mask)
      return this.#mask
    }
    const known = surfaces.find<CoverMask>(this.#maskKey)
    if (known !== undefined) return (this.#mask = known)
    const mask = coverMask(this.item)
    this.#mask = surfaces.keep(this.#maskKey, Math.max(64, mask.bytes.length), mask)
    this.#tools.heap.bytes.set(mask.bytes, this.#mask.block.at)
    return this.#mask
  }

  /** Where the pixels of a row lie once something beside the mask has thinned them. */
  protected thin(line: number, _y: number, _left: number, _right: number): number {
    return line
  }

  /** Blends columns left..right of row y; `line` is where the pixel of column `left` lies. */
  #blend(line: number, base: HeapCanvas, out: HeapCanvas, y: number, left: number, right: number): void {
    const { bounds, blend } = this.item
    const mask = this.#maskOf()
    const baseRow = base.at + y * base.strideBytes
    const outRow = out.at + y * out.strideBytes
    this.#tools.blender.blend(
      blend,
      this.#isOpaque,
      mask.about,
      mask.block.at,
      y - bounds.top,
      bounds.left,
      this.thin(line, y, left, right),
      baseRow,
      outRow,
      left,
      right,
    )
  }
}

/** The part of a rectangle that an edge along rows or columns has uncovered wholly; of one aslant, none. */
function uncovered({ a, b, c }: EdgeReveal, { left, top, right, bottom }: PixelRect): PixelRect {
  if (a !== 0 && b !== 0) return EMPTY_RECT
  // Where along the row or column the share reaches one. A pixel further in, no rounding counts.
  const at = (1 - c) / (a === 0 ? b : a)
  const [first, last] = [Math.ceil(at) + 1, Math.floor(at) - 1]
  if (a > 0) return { left: Math.max(left, first), top, right, bottom }
  if (a < 0) return { left, top, right: Math.min(right, last), bottom }
  if (b > 0) return { left, top: Math.max(top, first), right, bottom }
  return b < 0 ? { left, top, right, bottom: Math.min(bottom, last) } : EMPTY_RECT
}

/** How the pixels of a node come to those of the stack. */
function samplingOf({ coverage, toCoverage }: Item, { a, b, c, d, e, f }: Affine): Sampling {
  if (b !== 0 || c !== 0 || toCoverage.b !== 0 || toCoverage.c !== 0) return 'turn'
  // A copy must not read past the picture; a sharp frame on whole pixels never does.
  if (coverage.sigmaPx > 0) return 'scale'
  const { width, height } = coverage.shape
  const isUnscaled = Math.abs(a - 1) < 1e-9 && Math.abs(d - 1) < 1e-9
  return isUnscaled && [e, f, width, height, toCoverage.e, toCoverage.f].every(isWhole) ? 'copy' : 'scale'
}

function isWhole(value: number): boolean {
  return Math.abs(value - Math.round(value)) < 1e-6
}
