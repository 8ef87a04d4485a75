// The stroke under the hand as the page draws it at once, until the engine's picture has it.
import { strokeContours } from '../../core/drawing/stroke-contours.ts'
import type { Stroke } from '../../core/drawing/stroke.ts'

/** Path data in pixels of a surface of that size. */
export function penPath(stroke: Stroke, widthPx: number, heightPx: number): string {
  return strokeContours(stroke, widthPx, heightPx)
    .map(({ points }) => {
      let path = ''
      for (let i = 0; i < points.length; i += 2) path += `${i === 0 ? 'M' : 'L'}${points[i]!.toFixed(1)} ${points[i + 1]!.toFixed(1)}`
      return `${path}Z`
    })
    .join('')
}
