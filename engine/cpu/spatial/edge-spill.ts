import { EdgeSpill } from '../../../core/steps/spill/cpu.ts'
import type { EdgeSpillWork } from '../../../core/steps/spill/index.ts'
import type { MakeLiveWork } from './live-work.ts'

/** Spill replaced by the presenter's own colour. */
export const liveEdgeSpill: MakeLiveWork<EdgeSpillWork> = ({ heap, widthPx, heightPx }, { settings }) => {
  const cleaner = new EdgeSpill(widthPx, heightPx)
  return {
    run(at) {
      cleaner.clean(heap.bytes.subarray(at, at + widthPx * heightPx * 4), 255, settings)
      return at
    },
    dispose: () => undefined,
  }
}
