import { roundedRectCoverage } from '../../core/composite/coverage.ts'
import type { Draw } from '../../core/plan/frame-plan.ts'

/** Frame coverage × opacity over a draw's bounds, made once per plan. */
export interface DrawMask {
  /** One byte a pixel of the bounds, 255 opaque. */
  readonly data: Uint8Array
  /** Per row of the bounds: columns `from`..`to` are all 255. */
  readonly solidFrom: Int32Array
  readonly solidTo: Int32Array
}

/** Computes the mask of a draw. */
export function drawMask(draw: Draw): DrawMask {
  const width = draw.bounds.right - draw.bounds.left
  const height = draw.bounds.bottom - draw.bounds.top
  const data = new Uint8Array(width * height)
  const solidFrom = new Int32Array(height)
  const solidTo = new Int32Array(height)
  const { frame, toFrame } = draw
  const isSolid = draw.opacity === 1
  for (let y = 0; y < height; y += 1) {
    let from = -1
    let to = -1
    for (let x = 0; x < width; x += 1) {
      const atX = draw.bounds.left + x + 0.5
      const atY = draw.bounds.top + y + 0.5
      const frameX = toFrame.a * atX + toFrame.c * atY + toFrame.e
      const frameY = toFrame.b * atX + toFrame.d * atY + toFrame.f
      const coverage = roundedRectCoverage(frameX, frameY, frame.width, frame.height, frame.cornerRadius)
      const value = Math.round(coverage * draw.opacity * 255)
      data[y * width + x] = value
      if (!isSolid || value !== 255) continue
      if (from < 0) from = x
      to = x + 1
    }
    // A rounded rectangle is convex, so the solid part of a row is one run.
    solidFrom[y] = Math.max(0, from)
    solidTo[y] = Math.max(0, to)
  }
  return { data, solidFrom, solidTo }
}
