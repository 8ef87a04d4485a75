import { gaussianTaps } from '../../../core/filter/gaussian.ts'
import type { SharpenWork } from '../../../core/steps/sharpen/index.ts'
import { FinePlanes, fineTaps } from './fine-plane.ts'
import type { MakeLiveWork } from './live-work.ts'

/** Codes in 1/128. */
const FINE = 255 * 128

/** Unsharp mask on luma. */
export const liveSharpen: MakeLiveWork<SharpenWork> = ({ heap, widthPx, heightPx, allocate }, { settings }) => {
  const taps = fineTaps(gaussianTaps(settings.radius))
  const tapsBlock = allocate(taps.byteLength)
  new Int16Array(heap.bytes.buffer, tapsBlock.at, taps.length).set(taps)
  const planes = new FinePlanes(heap, allocate, widthPx, heightPx, 3)
  const amount = Math.round(settings.amount * 256)
  const threshold = Math.round(settings.threshold * FINE)
  return {
    run(at) {
      const { kernels } = heap
      for (let y = 0; y < heightPx; y += 1) kernels.lumaRow(at + y * widthPx * 4, planes.row(0, y), widthPx)
      planes.blurInto(0, 1, 2, tapsBlock.at, (taps.length - 1) / 2)
      for (let y = 0; y < heightPx; y += 1) {
        const row = at + y * widthPx * 4
        kernels.sharpenRow(row, planes.row(0, y), planes.row(2, y), row, widthPx, amount, threshold)
      }
      return at
    },
    dispose() {
      planes.dispose()
      heap.free(tapsBlock)
    },
  }
}
