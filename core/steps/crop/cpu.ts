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
