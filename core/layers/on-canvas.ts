import type { Placement } from '../box/placement.ts'
import type { Canvas } from './layer.ts'

/** A box that leaves less than this share of the canvas free covers it. */
const WHOLE = 0.98

/** Share of the canvas that an upright box covers. */
export function coveredShare({ widthPx, heightPx }: Canvas, { x, y, width, height }: Pick<Placement, 'x' | 'y' | 'width' | 'height'>): number {
  const across = Math.max(0, Math.min(x + width, widthPx) - Math.max(x, 0))
  const down = Math.max(0, Math.min(y + height, heightPx) - Math.max(y, 0))
  return (across * down) / (widthPx * heightPx)
}

/** Whether a box leaves next to nothing of the canvas free. */
export function coversCanvas(canvas: Canvas, placement: Placement): boolean {
  return coveredShare(canvas, placement) >= WHOLE
}

/** A box's area, in canvases. */
export function shareOfCanvas({ widthPx, heightPx }: Canvas, { width, height }: Placement): number {
  return (width * height) / (widthPx * heightPx)
}
