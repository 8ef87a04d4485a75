import type { DenoiseWork } from '../../../core/steps/denoise/index.ts'
import type { Block } from '../heap.ts'
import type { MakeLiveWork } from './live-work.ts'

/** Keeps the last result and leans each new frame on it. */
export const liveDenoise: MakeLiveWork<DenoiseWork> = ({ heap, widthPx, heightPx, allocate }, { settings }) => {
  const rowBytes = widthPx * 4
  const time = Math.round(settings.time * 256)
  const space = Math.round(settings.space * 256)
  let before: Block | null = null
  return {
    run(at, spare) {
      const { kernels } = heap
      let result = at
      if (before !== null) kernels.steadyRow(at, before.at, rowBytes * heightPx, time, settings.noise)
      if (space > 0) {
        for (let y = 0; y < heightPx; y += 1) {
          const row = at + y * rowBytes
          kernels.sigmaRow(y > 0 ? row - rowBytes : row, row, y < heightPx - 1 ? row + rowBytes : row, spare + y * rowBytes, widthPx, space, 2 * settings.noise)
        }
        result = spare
      }
      if (time > 0) {
        before ??= allocate(rowBytes * heightPx)
        heap.bytes.copyWithin(before.at, result, result + rowBytes * heightPx)
      }
      return result
    },
    dispose() {
      if (before !== null) heap.free(before)
      before = null
    },
  }
}
