import type { FadeWork } from '../../../core/steps/crop/index.ts'
import type { MakeLiveWork } from './live-work.ts'

/** The feathered edges of a crop; pixels outside the feather are not touched. */
export const liveFade: MakeLiveWork<FadeWork> = ({ heap, widthPx, heightPx, allocate }, { settings }) => {
  const { across, down } = settings
  const block = allocate(widthPx * 4)
  heap.floats.set(across, block.at >> 2)
  const firstFull = across.findIndex((share) => share === 1)
  const lastFull = across.findLastIndex((share) => share === 1)
  return {
    run(at) {
      const { kernels } = heap
      for (let y = 0; y < heightPx; y += 1) {
        const row = at + y * widthPx * 4
        if (down[y]! < 1 || firstFull < 0) kernels.fadeRow(row, widthPx, block.at, down[y]!)
        else {
          kernels.fadeRow(row, firstFull, block.at, 1)
          kernels.fadeRow(row + (lastFull + 1) * 4, widthPx - lastFull - 1, block.at + (lastFull + 1) * 4, 1)
        }
      }
      return at
    },
    dispose: () => heap.free(block),
  }
}
