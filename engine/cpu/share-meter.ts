// How much of each pixel of a row an item covers, and how many pixels on it is the same.
import type { Affine } from '../../core/composite/affine.ts'
import { coverageAt, cutOut, insetShape, type Coverage } from '../../core/composite/coverage.ts'
import { halfWidthAt } from '../../core/composite/shadow.ts'
import { softRowOf, type SoftRow } from '../../core/composite/soft-field.ts'
import { edgeDistance, type EdgeDistance, type Shape } from '../../core/composite/shape.ts'

/** Within so many pixels of an edge a pixel is partly covered. */
const EDGE_REACH = 0.75
/** So far from its ends a row of a shadow is level: what is missing there is less than a thousandth of a code. */
const SHADOW_LEVEL_SIGMAS = 4.5

/** Shares of pixels along a row. */
export class ShareMeter {
  readonly #coverage: Coverage
  readonly #toCoverage: Affine
  readonly #inner: Shape | null
  readonly #nearest: EdgeDistance = { distance: 0, normalX: 0, normalY: 0, curvature: 0 }
  #y = 0
  /** Of an upright softened shape, what its row has. */
  readonly #soft: SoftRow | null
  readonly #hole: HoleRow | null
  /** How many pixels, from the last one asked for on, have the same share. */
  reach = 1

  constructor(coverage: Coverage, toCoverage: Affine) {
    const { shape, sigmaPx, strokePx, hole } = coverage
    this.#coverage = coverage
    this.#toCoverage = toCoverage
    this.#soft = sigmaPx > 0 && toCoverage.b === 0 && toCoverage.a === 1 ? softRowOf(shape, sigmaPx) : null
    this.#hole = this.#soft !== null && hole !== null && shape.kind === 'roundedRect' ? new HoleRow(shape, hole) : null
    this.#inner = strokePx === null ? null : insetShape(shape, strokePx)
  }

  row(y: number): void {
    this.#y = y + 0.5
    this.#soft?.moveTo(this.#y + this.#toCoverage.f)
    this.#hole?.moveTo(this.#y + this.#toCoverage.f)
  }

  shareAt(x: number): number {
    const { a, b, c, d, e, f } = this.#toCoverage
    const atX = a * (x + 0.5) + c * this.#y + e
    const atY = b * (x + 0.5) + d * this.#y + f
    const { shape, strokePx, sigmaPx, hole } = this.#coverage
    this.reach = 1
    if (sigmaPx > 0) {
      // Under the layer itself there is no shadow, and most of one lies there.
      const under = this.#underLayer(atX, atY)
      if (under > 0) {
        this.reach = Math.max(1, Math.floor(under))
        return 0
      }
      return this.#soft === null ? coverageAt(this.#coverage, atX, atY, a, c) : this.#softShare(this.#soft, atX, atY)
    }
    let away = this.#away(shape, atX, atY)
    if (strokePx !== null && this.#inner !== null) away = Math.min(away, this.#away(this.#inner, atX - strokePx, atY - strokePx))
    if (hole !== null) away = Math.min(away, this.#away(shape, atX - hole.dx, atY - hole.dy))
    this.reach = Math.max(1, Math.floor(away))
    return coverageAt(this.#coverage, atX, atY, a, c)
  }

  /** How far along a row the layer itself still covers what its shadow would; 0 where it does not. */
  #underLayer(x: number, y: number): number {
    const { shape, hole } = this.#coverage
    if (hole === null) return 0
    if (this.#hole !== null) return x > this.#hole.innerFrom ? this.#hole.innerTo - x : 0
    const away = this.#away(shape, x - hole.dx, y - hole.dy)
    return this.#nearest.distance < 0 ? away : 0
  }

  #softShare(soft: SoftRow, x: number, y: number): number {
    this.reach = Math.max(1, Math.floor(this.#straight(x)))
    const share = soft.at(x)
    const { strokePx, hole } = this.#coverage
    const isClear = hole === null || (this.#hole !== null && (x <= this.#hole.outerFrom || x >= this.#hole.outerTo))
    return isClear && strokePx === null ? share : cutOut(this.#coverage, share, x, y, this.#toCoverage.a, this.#toCoverage.c)
  }

  /** Of an upright box's shadow, pixels along a row from which on its ends, and those of what is cut out of it, are too far to matter. */
  #straight(x: number): number {
    const { shape, sigmaPx, hole } = this.#coverage
    if (shape.kind !== 'roundedRect') return 0
    const dx = hole?.dx ?? 0
    const inset = shape.cornerRadius + Math.max(sigmaPx * SHADOW_LEVEL_SIGMAS, EDGE_REACH)
    return x < inset + Math.max(0, dx) ? 0 : shape.width - inset + Math.min(0, dx) - x
  }

  /** Pixels along a row that are as far from an edge as this one is on this side. */
  #away(shape: Shape, x: number, y: number): number {
    edgeDistance(shape, x, y, this.#nearest)
    return (shape.kind === 'superellipse' ? leastDistance(shape, x, y) : Math.abs(this.#nearest.distance)) - EDGE_REACH
  }
}

type RoundedRect = Extract<Shape, { kind: 'roundedRect' }>

/** Where, along a row, pixels are wholly inside a box that is cut out of its shadow, and beyond which they are wholly outside. */
class HoleRow {
  readonly #inner: Shape | null
  readonly #outer: Shape
  readonly #middleX: number
  readonly #dy: number
  innerFrom = 0
  innerTo = 0
  outerFrom = 0
  outerTo = 0

  constructor(shape: RoundedRect, { dx, dy }: { readonly dx: number; readonly dy: number }) {
    const { width, height, cornerRadius } = shape
    this.#inner = insetShape(shape, EDGE_REACH)
    // Its corners are less round than the edge that is as far away everywhere, so it is never too small.
    this.#outer = {
      kind: 'roundedRect',
      width: width + 2 * EDGE_REACH,
      height: height + 2 * EDGE_REACH,
      cornerRadius: Math.min(cornerRadius, width / 2, height / 2),
    }
    this.#middleX = dx + width / 2
    this.#dy = dy
  }

  moveTo(y: number): void {
    const inner = spanAt(this.#inner, y - this.#dy - EDGE_REACH)
    const outer = spanAt(this.#outer, y - this.#dy + EDGE_REACH)
    ;[this.innerFrom, this.innerTo] = [this.#middleX - inner, this.#middleX + inner]
    ;[this.outerFrom, this.outerTo] = [this.#middleX - outer, this.#middleX + outer]
  }
}

/** Half the width of a shape at a row; less than nothing beside it. */
function spanAt(shape: Shape | null, row: number): number {
  return shape === null || row <= 0 || row >= shape.height ? -1 : halfWidthAt(shape, row)
}

/**
 * No point of a superellipse's edge is nearer. Its equation is a norm of the point less one, and that grows by at most one over the
 * shorter half axis with each pixel; away from the edge `edgeDistance` may say more than is true.
 */
function leastDistance({ width, height, exponent }: Extract<Shape, { kind: 'superellipse' }>, x: number, y: number): number {
  const across = Math.abs(x / (width / 2) - 1) ** exponent
  const down = Math.abs(y / (height / 2) - 1) ** exponent
  return Math.abs((across + down) ** (1 / exponent) - 1) * Math.min(width / 2, height / 2)
}
