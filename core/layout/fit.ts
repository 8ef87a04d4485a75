/** How a picture fills its box: all of it inside, box full and picture cut, or pulled to shape. */
export type FitMode = 'fit' | 'fill' | 'stretch'

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

/** Fits a source into a box; both sizes must be positive. */
export function fitRects(mode: FitMode, sourceWidth: number, sourceHeight: number, boxWidth: number, boxHeight: number): FittedRects {
  const wholeSource = { x: 0, y: 0, width: sourceWidth, height: sourceHeight }
  const wholeBox = { x: 0, y: 0, width: boxWidth, height: boxHeight }
  if (mode === 'stretch') return { source: wholeSource, target: wholeBox }
  const scaleX = boxWidth / sourceWidth
  const scaleY = boxHeight / sourceHeight
  if (mode === 'fit') {
    const scale = Math.min(scaleX, scaleY)
    const width = sourceWidth * scale
    const height = sourceHeight * scale
    return {
      source: wholeSource,
      target: { x: (boxWidth - width) / 2, y: (boxHeight - height) / 2, width, height },
    }
  }
  const scale = Math.max(scaleX, scaleY)
  const width = boxWidth / scale
  const height = boxHeight / scale
  return {
    source: { x: (sourceWidth - width) / 2, y: (sourceHeight - height) / 2, width, height },
    target: wholeBox,
  }
}
