// Pictures that do not move: assets, colours, texts, the checker under clear pictures.
import { drawHoldingCard } from '../../core/card/holding-card.ts'
import { parseHex } from '../../core/colour/hex.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { TextJob } from '../../core/plan/frame-plan.ts'
import type { SourceFrame } from '../executor.ts'
import { drawText } from '../text/draw-text.ts'

/** Longest side an asset is decoded to; more would never be seen on a canvas. */
const LONGEST_SIDE_PX = 3840

/** Fetches and decodes an asset. Throws an Error that says why it can't be shown. */
export async function loadAsset(url: string): Promise<RgbaPicture> {
  const response = await fetch(url)
  if (!response.ok) throw new Error(`the file could not be read (${response.status})`)
  const bitmap = await createImageBitmap(await response.blob(), { premultiplyAlpha: 'none' })
  const scale = Math.min(1, LONGEST_SIDE_PX / Math.max(bitmap.width, bitmap.height))
  const widthPx = Math.max(1, Math.round(bitmap.width * scale))
  const heightPx = Math.max(1, Math.round(bitmap.height * scale))
  const picture = drawPicture(widthPx, heightPx, (pen) => {
    pen.imageSmoothingQuality = 'high'
    pen.drawImage(bitmap, 0, 0, widthPx, heightPx)
  })
  bitmap.close()
  return picture
}

/** A text picture. */
export function textPicture(job: TextJob): RgbaPicture {
  return drawPicture(job.widthPx, job.heightPx, (pen) => drawText(pen, job.content, job.widthPx, job.heightPx))
}

/** One pixel of a colour. */
export function colourPicture(hex: string): RgbaPicture {
  const [red, green, blue] = parseHex(hex)
  return { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8Array.of(red * 255, green * 255, blue * 255, 255) }
}

/** Whether every pixel is opaque. */
export function isOpaquePicture(picture: RgbaPicture): boolean {
  for (let at = 3; at < picture.data.length; at += 4) if (picture.data[at] !== 255) return false
  return true
}

/** The still that the audience sees when there is no live picture. */
export function holdingCardPicture(widthPx: number, heightPx: number, title: string, detail: string): RgbaPicture {
  return drawPicture(widthPx, heightPx, (pen) => drawHoldingCard(pen, widthPx, heightPx, title, detail, '"Bricolage Grotesque"'))
}

/** A still source frame. */
export function stillFrame(picture: RgbaPicture, version: number): SourceFrame {
  return { picture, version, isLive: false }
}

function drawPicture(widthPx: number, heightPx: number, draw: (pen: OffscreenCanvasRenderingContext2D) => void): RgbaPicture {
  const canvas = new OffscreenCanvas(widthPx, heightPx)
  const pen = canvas.getContext('2d', { willReadFrequently: true })
  if (pen === null) throw new Error('this browser refused a 2-D canvas')
  draw(pen)
  return { format: 'rgba', widthPx, heightPx, data: pen.getImageData(0, 0, widthPx, heightPx).data }
}
