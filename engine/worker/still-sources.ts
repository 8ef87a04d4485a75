// Pictures that do not move and are made here: colours, texts, the holding card.
import { drawHoldingCard } from '../../core/card/holding-card.ts'
import { parseHex } from '../../core/colour/hex.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { SourceFrame } from '../executor.ts'
import type { TextCanvas } from '../text/text-picture.ts'

/** A canvas of the browser's for a text. */
export function openTextCanvas(widthPx: number, heightPx: number): TextCanvas {
  const pen = openPen(widthPx, heightPx)
  return { pen, read: () => pen.getImageData(0, 0, widthPx, heightPx).data }
}

/** Nothing to see. */
export function clearPicture(widthPx: number, heightPx: number): RgbaPicture {
  return { format: 'rgba', widthPx, heightPx, data: new Uint8Array(widthPx * heightPx * 4) }
}

/** One pixel of a colour. */
export function colourPicture(hex: string): RgbaPicture {
  const [red, green, blue] = parseHex(hex)
  return { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8Array.of(red * 255, green * 255, blue * 255, 255) }
}

/** The still that the audience sees when there is no live picture. */
export function holdingCardPicture(widthPx: number, heightPx: number, title: string, detail: string, font: string): RgbaPicture {
  return drawPicture(widthPx, heightPx, (pen) => drawHoldingCard(pen, widthPx, heightPx, title, detail, font))
}

/** A still source frame. */
export function stillFrame(picture: RgbaPicture, version: number): SourceFrame {
  return { picture, version, isLive: false }
}

function drawPicture(widthPx: number, heightPx: number, draw: (pen: OffscreenCanvasRenderingContext2D) => void): RgbaPicture {
  const pen = openPen(widthPx, heightPx)
  draw(pen)
  return { format: 'rgba', widthPx, heightPx, data: pen.getImageData(0, 0, widthPx, heightPx).data }
}

function openPen(widthPx: number, heightPx: number): OffscreenCanvasRenderingContext2D {
  const pen = new OffscreenCanvas(widthPx, heightPx).getContext('2d', { willReadFrequently: true })
  if (pen === null) throw new Error('this browser refused a 2-D canvas')
  return pen
}
