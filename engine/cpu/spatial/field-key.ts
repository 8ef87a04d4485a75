import { placesInCells } from '../../../core/filter/bilinear.ts'
import type { FieldKeyWork } from '../../../core/steps/chroma-key/index.ts'
import { heapPlaces } from './places.ts'
import type { MakeLiveWork } from './live-work.ts'

/** The key on an uneven cloth: each pixel is made even by its gain, then looked up. */
export const liveFieldKey: MakeLiveWork<FieldKeyWork> = ({ heap, widthPx, heightPx, allocate, table }, { settings }) => {
  const { field, apply, key } = settings
  const columns = heapPlaces(heap, allocate, placesInCells(widthPx, field.cellPx))
  const rows = placesInCells(heightPx, field.cellPx)
  const gains = allocate(field.gains.length * 4)
  heap.floats.set(field.gains, gains.at >> 2)
  const missing = allocate((widthPx + 64) * 4)
  const points = [apply]
  const tableKey = `field ${key}`
  const rowOfCells = (row: number) => gains.at + row * field.columns * 4
  return {
    run(at) {
      const memo = table(tableKey, points)
      const { kernels } = heap
      for (let y = 0; y < heightPx; y += 1) {
        const row = at + y * widthPx * 4
        const upper = rowOfCells(rows.below[y]!)
        const lower = rowOfCells(rows.above[y]!)
        const share = rows.share[y]!
        const misses = kernels.fieldCodesRow(row, widthPx, memo.at, missing.at, upper, lower, share, columns.cells, columns.shares, field.columns - 1)
        if (misses > 0) memo.computeListed(missing.at, misses)
        kernels.fieldKeyRow(row, widthPx, memo.at, missing.at, upper, lower, share, columns.cells, columns.shares, field.columns - 1)
      }
      return at
    },
    dispose() {
      for (const block of [...columns.blocks, gains, missing]) heap.free(block)
    },
  }
}
