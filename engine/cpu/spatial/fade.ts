import type { FadeWork } from '../../../core/steps/crop/index.ts'
import type { MakeLiveWork } from './live-work.ts'

/** The feathered edges of a crop. */
export const liveFade: MakeLiveWork<FadeWork> = ({ heap, widthPx, heightPx, allocate }, { settings }) => {
  const across = allocate(widthPx * 4)
  heap.floats.set(settings.across, across.at >> 2)
  return {
    run(at) {
      for (let y = 0; y < heightPx; y += 1) heap.kernels.fadeRow(at + y * widthPx * 4, widthPx, across.at, settings.down[y]!)
      return at
    },
    dispose: () => heap.free(across),
  }
}
