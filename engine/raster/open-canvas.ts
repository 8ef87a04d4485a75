import type { RasterCanvas } from './raster.ts'

/** A canvas of the browser's. Throws an Error where it refuses one. */
export function openRasterCanvas(widthPx: number, heightPx: number): RasterCanvas {
  const pen = new OffscreenCanvas(widthPx, heightPx).getContext('2d', { willReadFrequently: true })
  if (pen === null) throw new Error('this browser refused a 2-D canvas')
  return { pen, read: () => pen.getImageData(0, 0, widthPx, heightPx).data }
}
