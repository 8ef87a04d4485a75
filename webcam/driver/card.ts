import { drawHoldingCard } from '../../core/card/holding-card.ts'

/** The still that a meeting sees while no live picture arrives. */
export function makeCard(widthPx: number, heightPx: number): HTMLCanvasElement {
  const canvas = document.createElement('canvas')
  canvas.width = widthPx
  canvas.height = heightPx
  const pen = canvas.getContext('2d')
  if (pen !== null) drawHoldingCard(pen, widthPx, heightPx, 'Back in a moment', '', 'system-ui, sans-serif')
  return canvas
}
