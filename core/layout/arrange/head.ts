// Where a head is in a camera's picture, and which part of the picture to show so that it is well inside.
import type { Crop } from '../../show/show.ts'
import type { Rect } from '../../box/fit.ts'

/** A head, hair and chin included, as shares 0..1 of the picture's width and height. */
export type Head = Rect

/** Where a presenter's head is as a rule when nobody has looked: in the middle, a little above it (common practice, no source). */
export const USUAL_HEAD: Head = { x: 0.38, y: 0.12, width: 0.24, height: 0.48 }

/** A head that is off the middle by less than this share of what is shown is in the middle: what is found moves a little from look to look. */
const NEAR_MIDDLE = 0.12
/** Room above a head, as a share of what is shown (common practice, no source). */
const HEADROOM = 0.08

/**
 * What to take off a picture of a size so that a part of proportion `aspect` is left, as large as it can be: the picture's middle where the head is near
 * it, else the head's, with a little room above it, as far as the picture reaches. Null when nothing is to be taken off.
 */
export function cropRound(head: Head, widthPx: number, heightPx: number, aspect: number): Crop | null {
  const own = widthPx / heightPx
  // Shares of the picture that are shown.
  const width = Math.min(1, aspect / own)
  const height = Math.min(1, own / aspect)
  if (width > 1 - 1e-6 && height > 1 - 1e-6) return null
  const middle = head.x + head.width / 2
  const isNear = Math.abs(middle - 0.5) < NEAR_MIDDLE * width && Math.abs(middle - 0.5) + head.width / 2 <= Math.max(width / 2, head.width / 2)
  const left = placed((isNear ? 0.5 : middle) - width / 2, width)
  const top = placed(topFor(head, height), height)
  return { left, top, right: 1 - width - left, bottom: 1 - height - top }
}

/** The head's top a little below the upper edge, but its chin inside. */
function topFor(head: Head, height: number): number {
  const wanted = head.y - HEADROOM * height
  return Math.max(wanted, head.y + head.height - height)
}

function placed(from: number, length: number): number {
  return Math.min(1 - length, Math.max(0, from))
}

/** Where a head lies in a box that a cropped picture fills, in the box's units. */
export function headInBox(head: Head, crop: Crop | null, box: Rect): Rect {
  const { left, top, right, bottom } = crop ?? { left: 0, top: 0, right: 0, bottom: 0 }
  const scaleX = box.width / (1 - left - right)
  const scaleY = box.height / (1 - top - bottom)
  return { x: box.x + (head.x - left) * scaleX, y: box.y + (head.y - top) * scaleY, width: head.width * scaleX, height: head.height * scaleY }
}

/** The head of a face that was found from forehead to chin: with its hair, its ears and its chin (common practice, no source). */
export function headOfFace({ x, y, width, height }: Rect): Head {
  const left = Math.max(0, x - 0.25 * width)
  const top = Math.max(0, y - 0.6 * height)
  return { x: left, y: top, width: Math.min(1, x + 1.25 * width) - left, height: Math.min(1, y + 1.15 * height) - top }
}
