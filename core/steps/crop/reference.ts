import type { PixelRect } from '../../picture/picture.ts'
import type { ParamsOf } from '../step.ts'
import type { cropParams } from './params.ts'

/**
 * The rectangle a crop keeps, each edge rounded to a whole pixel. The rest of the picture
 * does not move or scale. Edges that meet leave nothing.
 */
export function keptByCrop(params: ParamsOf<typeof cropParams>, widthPx: number, heightPx: number): PixelRect {
  const left = Math.round((params.left / 100) * widthPx)
  const top = Math.round((params.top / 100) * heightPx)
  return {
    left,
    top,
    right: Math.max(left, widthPx - Math.round((params.right / 100) * widthPx)),
    bottom: Math.max(top, heightPx - Math.round((params.bottom / 100) * heightPx)),
  }
}

/** Opacity along one axis of a feathered crop: 0 at `from` and `to`, 1 from `feather` pixels inside; uncut edges stay hard. */
export function featherRamp(length: number, from: number, to: number, feather: number): Float64Array {
  return Float64Array.from({ length }, (_, i) => {
    const start = from === 0 ? 1 : Math.min(1, Math.max(0, (i + 0.5 - from) / feather))
    const end = to === length ? 1 : Math.min(1, Math.max(0, (to - i - 0.5) / feather))
    return Math.min(start, end)
  })
}
