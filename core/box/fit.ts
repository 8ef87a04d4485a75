/** How a picture fills its box: all of it inside, box full and picture cut, or pulled to shape. */
export type FitMode = 'fit' | 'fill' | 'stretch'

/** How much of a picture each edge loses, as shares of its width or height; something is left in the middle. */
export interface Crop {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

export interface Rect {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** Which part of the source lands on which part of the box. */
export interface FittedRects {
  /** In source pixels. */
  readonly source: Rect
  /** In box units, from the box's top left. */
  readonly target: Rect
}

/** Fits a source into a box; both sizes must be positive. What `crop` takes away is as if it were not there. */
export function fitRects(mode: FitMode, sourceWidth: number, sourceHeight: number, boxWidth: number, boxHeight: number, crop: Crop | null = null): FittedRects {
  const whole = shownPart(sourceWidth, sourceHeight, crop)
  const wholeBox = { x: 0, y: 0, width: boxWidth, height: boxHeight }
  if (mode === 'stretch') return { source: whole, target: wholeBox }
  const scaleX = boxWidth / whole.width
  const scaleY = boxHeight / whole.height
  if (mode === 'fit') {
    const scale = Math.min(scaleX, scaleY)
    const width = whole.width * scale
    const height = whole.height * scale
    return {
      source: whole,
      target: { x: (boxWidth - width) / 2, y: (boxHeight - height) / 2, width, height },
    }
  }
  const scale = Math.max(scaleX, scaleY)
  const width = boxWidth / scale
  const height = boxHeight / scale
  return {
    source: { x: whole.x + (whole.width - width) / 2, y: whole.y + (whole.height - height) / 2, width, height },
    target: wholeBox,
  }
}

/** The part of a picture of a size that a crop leaves, in its pixels. */
export function shownPart(widthPx: number, heightPx: number, crop: Crop | null): Rect {
  if (crop === null) return { x: 0, y: 0, width: widthPx, height: heightPx }
  return {
    x: crop.left * widthPx,
    y: crop.top * heightPx,
    width: (1 - crop.left - crop.right) * widthPx,
    height: (1 - crop.top - crop.bottom) * heightPx,
  }
}
