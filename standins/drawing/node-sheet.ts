import { createCanvas } from '@napi-rs/canvas'
import type { MakeSheet, Pen } from './canvas.ts'

/** Surfaces in Node, with the same calls. */
export const nodeSheet: MakeSheet = (widthPx, heightPx) => {
  const canvas = createCanvas(widthPx, heightPx)
  return { source: canvas as unknown as CanvasImageSource, pen: canvas.getContext('2d') as unknown as Pen, widthPx, heightPx }
}
