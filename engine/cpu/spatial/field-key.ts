import { placesInCells } from '../../../core/filter/bilinear.ts'
import type { FieldKeyWork } from '../../../core/steps/chroma-key/index.ts'
import { CB_PER_BLUE, CR_PER_RED, luma709 } from '../../../core/colour/luma.ts'
import { WEDGE } from '../../../core/steps/chroma-key/reference.ts'
import type { MakeLiveWork } from './live-work.ts'

/** A gain of 1 as the loops have it. */
const UNIT = 8192
/** Up to so many pixels of a row are done again one by one. */
const FEW = 48

/** BT.709 scales of differences; the key's own formula is in core/steps/chroma-key/reference.ts. */

/** The key on an uneven cloth: each pixel is made even by its gain, then looked up. */
export const liveFieldKey: MakeLiveWork<FieldKeyWork> = ({ heap, widthPx, heightPx, allocate, table }, { settings }) => {
  const { field, apply, key } = settings
  // Gains don't change while the values stand, so that each pixel's is worked out once.
  const stride = Math.ceil(widthPx / 8) * 8
  const gains = allocate(stride * heightPx * 2 + 64)
  const missing = allocate((widthPx + 64) * 8)
  const again = new Int32Array(FEW)
  const points = [apply]
  const tableKey = `field ${key}`
  const { values } = settings.shader
  const spill = values[5]!
  fillGains()

  /** Where colours stay, opacity alone is worked out, without a table. */
  function keyOpacity(at: number): void {
    const [red, green, blue, low, slope] = values as readonly [number, number, number, number, number]
    const luma = luma709(red, green, blue)
    const cb = (blue - luma) * CB_PER_BLUE
    const cr = (red - luma) * CR_PER_RED
    // The backdrop's direction over its strength, for differences in codes; across it, times what it forgives.
    const scale = 1 / (255 * (cb * cb + cr * cr))
    const alongCb = cb * CB_PER_BLUE * scale
    const alongCr = cr * CR_PER_RED * scale
    const acrossCb = WEDGE * cr * CB_PER_BLUE * scale
    const acrossCr = -WEDGE * cb * CR_PER_RED * scale
    for (let y = 0; y < heightPx; y += 1) {
      heap.kernels.keyOpacityRow(at + y * widthPx * 4, widthPx, gains.at + y * stride * 2, alongCb, alongCr, acrossCb, acrossCr, low, slope)
    }
  }

  function fillGains(): void {
    const columns = placesInCells(widthPx, field.cellPx)
    const rows = placesInCells(heightPx, field.cellPx)
    const out = new Int16Array(heap.bytes.buffer, gains.at, stride * heightPx)
    const mixed = new Float32Array(field.columns)
    for (let y = 0; y < heightPx; y += 1) {
      const below = rows.below[y]! * field.columns
      const above = rows.above[y]! * field.columns
      for (let cell = 0; cell < field.columns; cell += 1)
        mixed[cell] = field.gains[below + cell]! * (1 - rows.share[y]!) + field.gains[above + cell]! * rows.share[y]!
      for (let x = 0; x < widthPx; x += 1) {
        const left = mixed[columns.below[x]!]!
        out[y * stride + x] = Math.round((left + (mixed[columns.above[x]!]! - left) * columns.share[x]!) * UNIT)
      }
    }
  }

  return {
    run(at, spare) {
      if (spill === 0) {
        keyOpacity(at)
        return at
      }
      const memo = table(tableKey, points)
      const { kernels, words } = heap
      for (let y = 0; y < heightPx; y += 1) {
        const row = y * widthPx * 4
        const gainRow = gains.at + y * stride * 2
        const misses = kernels.fieldKeyRow(at + row, spare + row, widthPx, memo.at, missing.at, gainRow)
        if (misses === 0) continue
        memo.computeListed(missing.at, misses)
        if (misses > FEW) {
          kernels.fieldKeyRow(at + row, spare + row, widthPx, memo.at, missing.at, gainRow)
          continue
        }
        // Grain brings a few new colours in every row: only their pixels are done again.
        for (let i = 0; i < misses; i += 1) again[i] = (words[(missing.at >> 2) + 2 * i + 1]! - spare - row) >> 2
        for (let i = 0; i < misses; i += 1)
          kernels.fieldKeyRow(at + row + again[i]! * 4, spare + row + again[i]! * 4, 1, memo.at, missing.at, gainRow + again[i]! * 2)
      }
      return spare
    },
    dispose() {
      heap.free(gains)
      heap.free(missing)
    },
  }
}
