import { gaussianTaps } from '../../../core/filter/gaussian.ts'
import type { SharpenWork } from '../../../core/steps/sharpen/index.ts'
import { fineTaps } from './fine-plane.ts'
import type { MakeLiveWork } from './live-work.ts'

/** Full luma in 1/64 codes. */
const FINE = 255 * 64
/** Room at both sides of a row for the widest filter. */
const MARGIN = 64

/** Unsharp mask on luma. Rows pass through a ring that stays in the processor's cache. */
export const liveSharpen: MakeLiveWork<SharpenWork> = ({ heap, widthPx, heightPx, allocate }, { settings }) => {
  const taps = fineTaps(gaussianTaps(settings.radius))
  const radius = (taps.length - 1) / 2
  const tapsBlock = allocate(taps.byteLength)
  new Int16Array(heap.bytes.buffer, tapsBlock.at, taps.length).set(taps)
  const stride = (widthPx + 2 * MARGIN) * 2
  const ringSize = taps.length
  const luma = allocate(stride * ringSize + MARGIN * 2)
  const across = allocate(stride * ringSize + MARGIN * 2)
  const blurred = allocate(stride + MARGIN * 2)
  const rows = allocate(4 * ringSize)
  const amount = Math.round(settings.amount * 8192)
  const threshold = Math.round(settings.threshold * FINE)
  const place = (ring: { readonly at: number }, y: number) => ring.at + MARGIN * 2 + (y % ringSize) * stride
  return {
    run(at) {
      const { kernels, words } = heap
      const rowBytes = widthPx * 4
      for (let y = -radius; y < heightPx; y += 1) {
        const next = y + radius
        if (next < heightPx) {
          kernels.lumaRow(at + next * rowBytes, place(luma, next), widthPx)
          kernels.blurAcross(place(luma, next), place(across, next), widthPx, tapsBlock.at, radius)
        }
        if (y < 0) continue
        for (let k = -radius; k <= radius; k += 1) {
          const row = y + k < 0 ? 0 : y + k >= heightPx ? heightPx - 1 : y + k
          words[(rows.at >> 2) + k + radius] = place(across, row)
        }
        kernels.blurDown(rows.at, blurred.at, widthPx, tapsBlock.at, radius)
        kernels.sharpenRow(at + y * rowBytes, place(luma, y), blurred.at, at + y * rowBytes, widthPx, amount, threshold)
      }
      return at
    },
    dispose() {
      for (const block of [tapsBlock, luma, across, blurred, rows]) heap.free(block)
    },
  }
}
