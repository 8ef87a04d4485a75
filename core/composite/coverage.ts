// How much of each pixel an item covers: a shape, a ring along its edge, or a shadow of it, uncovered as far as a wipe has come.
import type { Affine } from './affine.ts'
import { shadowCoverage } from './shadow.ts'
import { shapeCoverage, type Shape } from './shape.ts'

/** Uncovers a picture from one side: the share of the pixel at (x, y) of its stack is a·x + b·y + c, held to 0..1. */
export interface EdgeReveal {
  readonly kind: 'edge'
  readonly a: number
  readonly b: number
  readonly c: number
}

/** Uncovers a picture where another is darker than a level: the share is (level − luma) · slope + ½, held to 0..1. */
export interface LumaReveal {
  readonly kind: 'luma'
  /** Into the plan's nodes; of the node's size, its luma is that of its premultiplied sRGB-encoded colours (BT.709). */
  readonly node: number
  readonly toNode: Affine
  readonly level: number
  readonly slope: number
}

export interface Coverage {
  readonly shape: Shape
  /** Only a ring of this width inside the edge; null: all of the shape. */
  readonly strokePx: number | null
  /** Deviation of the gaussian that softens it; 0: a sharp edge. */
  readonly sigmaPx: number
  /** The same shape, moved by this much, is left out: what a shadow leaves to its layer. */
  readonly hole: { readonly dx: number; readonly dy: number } | null
  readonly reveal: EdgeReveal | LumaReveal | null
}

/** A sharp shape and nothing else. */
export function plainCoverage(shape: Shape): Coverage {
  return { shape, strokePx: null, sigmaPx: 0, hole: null, reveal: null }
}

/** What lies `px` inside a shape's edge; its corners are rounded by as much less. Null when nothing does. */
export function insetShape(shape: Shape, px: number): Shape | null {
  const width = shape.width - 2 * px
  const height = shape.height - 2 * px
  if (width <= 0 || height <= 0) return null
  return shape.kind === 'superellipse' ? { ...shape, width, height } : { ...shape, width, height, cornerRadius: Math.max(0, shape.cornerRadius - px) }
}

/**
 * Share (0..1) of the pixel whose centre is (x, y) in the shape's own pixels that is covered, but for the reveal. `cos` and `sin`
 * turn the shape's axes into the pixel's.
 */
export function coverageAt(coverage: Coverage, x: number, y: number, cos = 1, sin = 0): number {
  const { shape, sigmaPx } = coverage
  return cutOut(coverage, sigmaPx > 0 ? shadowCoverage(shape, x, y, sigmaPx) : shapeCoverage(shape, x, y, cos, sin), x, y, cos, sin)
}

/** The share of a shape, without what its ring and its hole leave out of it. */
export function cutOut({ shape, strokePx, hole }: Coverage, whole: number, x: number, y: number, cos: number, sin: number): number {
  let share = whole
  if (share === 0) return 0
  if (strokePx !== null) {
    const inner = insetShape(shape, strokePx)
    if (inner !== null) share -= shapeCoverage(inner, x - strokePx, y - strokePx, cos, sin)
  }
  if (hole !== null) share *= 1 - shapeCoverage(shape, x - hole.dx, y - hole.dy, cos, sin)
  return Math.max(0, share)
}

/** Share (0..1) that an edge reveal leaves at the centre (x, y) of a pixel of the stack. */
export function edgeRevealAt({ a, b, c }: EdgeReveal, x: number, y: number): number {
  const share = a * x + b * y + c
  return share < 0 ? 0 : share > 1 ? 1 : share
}
