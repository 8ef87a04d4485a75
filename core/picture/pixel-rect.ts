// Rectangles of whole pixels: what they share, hold and leave.
import type { PixelRect } from './picture.ts'

export const EMPTY_RECT: PixelRect = { left: 0, top: 0, right: 0, bottom: 0 }

export function isEmptyRect({ left, top, right, bottom }: PixelRect): boolean {
  return right <= left || bottom <= top
}

/** The smallest rectangle that holds both; an empty one adds nothing. */
export function uniteRects(first: PixelRect, second: PixelRect): PixelRect {
  if (isEmptyRect(first)) return isEmptyRect(second) ? EMPTY_RECT : second
  if (isEmptyRect(second)) return first
  return {
    left: Math.min(first.left, second.left),
    top: Math.min(first.top, second.top),
    right: Math.max(first.right, second.right),
    bottom: Math.max(first.bottom, second.bottom),
  }
}

export function coversRect(outer: PixelRect, inner: PixelRect): boolean {
  return outer.left <= inner.left && outer.top <= inner.top && outer.right >= inner.right && outer.bottom >= inner.bottom
}

/** The rectangle of a whole picture. */
export function wholeOf({ widthPx, heightPx }: { readonly widthPx: number; readonly heightPx: number }): PixelRect {
  return { left: 0, top: 0, right: widthPx, bottom: heightPx }
}

/** The part that two rectangles share; empty when they don't meet. */
export function meeting(first: PixelRect, second: PixelRect): PixelRect {
  return {
    left: Math.max(first.left, second.left),
    top: Math.max(first.top, second.top),
    right: Math.min(first.right, second.right),
    bottom: Math.min(first.bottom, second.bottom),
  }
}

/** What is left of a rectangle once another is taken away: up to four that do not meet. */
export function without(whole: PixelRect, gone: PixelRect): readonly PixelRect[] {
  const hole = meeting(whole, gone)
  if (isEmptyRect(hole)) return [whole]
  const around = [
    { ...whole, bottom: hole.top },
    { ...hole, left: whole.left, right: hole.left },
    { ...hole, left: hole.right, right: whole.right },
    { ...whole, top: hole.bottom },
  ]
  return around.filter((rect) => !isEmptyRect(rect))
}

export function areaOf({ left, top, right, bottom }: PixelRect): number {
  return Math.max(0, right - left) * Math.max(0, bottom - top)
}

/** The smallest rectangle that holds all of a list; empty without any. */
export function unionOf(rects: readonly PixelRect[]): PixelRect {
  return rects.reduce(uniteRects, EMPTY_RECT)
}

/** More parts than this are not worth their while. */
const MOST_APART = 6

/** Rectangles that hold all of a list and don't meet each other; one round all of them where they would be many. */
export function apart(rects: readonly PixelRect[]): readonly PixelRect[] {
  const parts: PixelRect[] = []
  for (const rect of rects) {
    let grown = rect
    for (let i = 0; i < parts.length;) {
      if (isEmptyRect(meeting(parts[i]!, grown))) i += 1
      else {
        // Grown, it may meet those it did not meet before.
        grown = uniteRects(grown, parts.splice(i, 1)[0]!)
        i = 0
      }
    }
    if (!isEmptyRect(grown)) parts.push(grown)
  }
  return parts.length > MOST_APART ? [unionOf(parts)] : parts
}
