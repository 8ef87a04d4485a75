import type { FramingWork } from '../../../core/steps/framing/index.ts'
import type { MakeLiveWork } from './live-work.ts'

/** Moves the picture, premultiplied so that the colours of clear pixels do not bleed in. */
export const liveFraming: MakeLiveWork<FramingWork> = ({ heap, widthPx, heightPx }, { settings }) => {
  const { toSource } = settings
  return {
    run(at, spare) {
      const { kernels } = heap
      kernels.premultiplyRow(at, at, widthPx * heightPx)
      for (let y = 0; y < heightPx; y += 1) {
        const startX = toSource.a * 0.5 + toSource.c * (y + 0.5) + toSource.e - 0.5
        const startY = toSource.b * 0.5 + toSource.d * (y + 0.5) + toSource.f - 0.5
        kernels.turnRow(at, widthPx, heightPx, startX, startY, toSource.a, toSource.b, widthPx, spare + y * widthPx * 4)
      }
      kernels.unpremultiplyRow(spare, spare, widthPx * heightPx)
      return spare
    },
    dispose: () => undefined,
  }
}
