import pLimit from 'p-limit'
import sharp from 'sharp'
import { HttpError } from '../http-error.ts'

/** More pixels than any canvas shows; larger ones would only cost memory. */
const MAX_PICTURE_PIXELS = 36_000_000

/** The longest side that every browser decodes and draws (Chromium's canvases end at 16,384 pixels; measured). */
const MAX_PICTURE_SIDE_PX = 16_384
/** Whole pictures decoded at once, each up to 144 MB of pixels. */
const decoding = pLimit(2)

/** Formats we take, as their content says, and their media types. */
const MIME_TYPES: Readonly<Record<string, string>> = { png: 'image/png', jpeg: 'image/jpeg', webp: 'image/webp', gif: 'image/gif', heif: 'image/avif' }

export interface PictureFacts {
  readonly mimeType: string
  readonly widthPx: number
  readonly heightPx: number
  /** Whether it has more than one picture, one after the other. */
  readonly isMoving: boolean
}

/** Whether a PNG has an animation control chunk before its first picture (W3C PNG, third edition, §11.3.6.1). */
function isAnimatedPng(bytes: Buffer): boolean {
  for (let at = 8; at + 12 <= bytes.length;) {
    const type = bytes.subarray(at + 4, at + 8).toString('latin1')
    if (type === 'acTL') return true
    if (type === 'IDAT') return false
    at += 12 + bytes.readUInt32BE(at)
  }
  return false
}

/**
 * Looks at the content of a file, whatever its name says, and decodes it once. Throws an
 * HttpError that names the fault and the fix.
 */
export async function inspectPicture(bytes: Buffer, fileName: string): Promise<PictureFacts> {
  const name = `"${fileName}"`
  if (bytes.length === 0) throw new HttpError(400, 'picture-empty', `${name} is empty (0 bytes). Choose the file again, or export it anew.`)
  const metadata = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => null)
  const mimeType = metadata?.format === undefined ? undefined : MIME_TYPES[metadata.format]
  // The container of AVIF holds other codings too, which browsers do not read.
  const isOtherHeif = metadata?.format === 'heif' && metadata.compression !== 'av1'
  if (metadata === null || mimeType === undefined || isOtherHeif) {
    throw new HttpError(
      415,
      'picture-format',
      `${name} is not a picture Green Room can read. Use a PNG, JPEG, WebP, AVIF, GIF or SVG picture, or an MP4 or WebM clip.`,
    )
  }
  const longest = Math.max(metadata.width, metadata.height)
  if (longest > MAX_PICTURE_SIDE_PX) {
    throw new HttpError(
      413,
      'picture-side',
      `${name} is ${metadata.width} × ${metadata.height} pixels; each side may be at most ${MAX_PICTURE_SIDE_PX}. Cut it or make it smaller and try again.`,
    )
  }
  const pixels = metadata.width * metadata.height
  if (pixels > MAX_PICTURE_PIXELS) {
    throw new HttpError(
      413,
      'picture-pixels',
      `${name} has ${(pixels / 1e6).toFixed(1)} megapixels (${metadata.width} × ${metadata.height}); at most ${MAX_PICTURE_PIXELS / 1e6} are allowed. Make it smaller and try again.`,
    )
  }
  // Metadata sits at the front of a file, so only decoding all of it finds a cut-off one.
  await decoding(() => sharp(bytes, { failOn: 'truncated' }).raw().toBuffer()).catch(() => {
    throw new HttpError(400, 'picture-damaged', `${name} is damaged or cut off. Copy or export it again.`)
  })
  const isMoving = (metadata.pages ?? 1) > 1 || (metadata.format === 'png' && isAnimatedPng(bytes))
  const isTurned = (metadata.orientation ?? 1) >= 5
  return {
    mimeType: isMoving && metadata.format === 'png' ? 'image/apng' : mimeType,
    isMoving,
    widthPx: isTurned ? metadata.height : metadata.width,
    heightPx: isTurned ? metadata.width : metadata.height,
  }
}
