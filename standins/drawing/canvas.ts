/** The 2-D canvas calls that drawings here use; browsers and the Node canvas both have them. */
export type Pen = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D

/** A drawing surface and its pen. */
export interface Sheet {
  readonly source: CanvasImageSource
  readonly pen: Pen
  readonly widthPx: number
  readonly heightPx: number
}

/** Makes a clear surface; the browser's or Node's, injected so that drawings run in both. */
export type MakeSheet = (widthPx: number, heightPx: number) => Sheet

/** Surfaces in a browser, worker included. */
export const browserSheet: MakeSheet = (widthPx, heightPx) => {
  const canvas = new OffscreenCanvas(widthPx, heightPx)
  const pen = canvas.getContext('2d', { willReadFrequently: true })
  if (pen === null) throw new Error('this browser refused a 2-D canvas')
  return { source: canvas, pen, widthPx, heightPx }
}
