// Drawings (SVG) become pictures when they are added. What a drawing could run or fetch is never stored and never served.
import sharp from 'sharp'
import { HttpError } from '../http-error.ts'

/** As wide, or as high, as the widest canvas: a drawing is sharp wherever it is shown whole. */
export const DRAWN_SIDE_PX = 3840
const MAX_DRAWING_BYTES = 10 * 1024 * 1024
/** A drawing may ask for more work than it has bytes. */
const MAX_SECONDS = 20
/** CSS Values and Units Level 4: 96 pixels an inch. */
const CSS_DPI = 96

/** Whether a file says of itself that it is an SVG drawing: its first element, after what XML lets stand before it. */
export function isDrawing(head: Buffer): boolean {
  const text = head.toString('utf8').replace(/^\uFEFF/, '')
  return /^\s*(<\?xml[^>]*\?>)?\s*(<!--[\s\S]*?-->\s*)*(<!DOCTYPE[^>[]*(\[[\s\S]*?\])?[^>]*>)?\s*(<!--[\s\S]*?-->\s*)*<(\w+:)?svg[\s>]/i.test(text)
}

/**
 * A drawing as a PNG, its longest side DRAWN_SIDE_PX. It is drawn by librsvg, which runs no scripts and, for a drawing without an address of its
 * own, fetches nothing; what would need either is left out. Throws an HttpError that names the fault and the fix.
 */
export async function drawnPicture(bytes: Buffer, fileName: string): Promise<Buffer> {
  const name = `"${fileName}"`
  if (bytes.length > MAX_DRAWING_BYTES) throw new HttpError(413, 'drawing-bytes', `${name} is a drawing of more than 10 MB. Export it as a PNG.`)
  const metadata = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => null)
  if (metadata === null || metadata.format !== 'svg') {
    throw new HttpError(400, 'drawing-damaged', `${name} is a drawing (SVG) that cannot be read. Export it again, or export it as a PNG.`)
  }
  const longest = Math.max(metadata.width, metadata.height)
  // Drawn once at its full size, not drawn small and enlarged.
  const density = Math.min(100_000, Math.max(1, (CSS_DPI * DRAWN_SIDE_PX) / longest))
  try {
    return await sharp(bytes, { density, limitInputPixels: 2 * DRAWN_SIDE_PX ** 2 })
      .resize(DRAWN_SIDE_PX, DRAWN_SIDE_PX, { fit: 'inside' })
      .timeout({ seconds: MAX_SECONDS })
      .png()
      .toBuffer()
  } catch {
    throw new HttpError(400, 'drawing-damaged', `${name} is a drawing (SVG) that cannot be drawn. Simplify it, or export it as a PNG.`)
  }
}

/** A drawing in an archive: exported shows hold pictures only. */
export function drawingInside(fileName: string): HttpError {
  return new HttpError(
    415,
    'picture-drawing',
    `"${fileName}" in this archive is a drawing (SVG), which no exported show holds. Add it to the show as a file, and export the show again.`,
  )
}
