// Outlines as SVG writes them (SVG 2 §9.3, path data), made into straight pieces.
import svgpath from 'svgpath'

/** Straight pieces from point to point: x and y in turn. */
export interface Contour {
  readonly points: Float64Array
  /** Whether its end was drawn back to its beginning; a stroke has no ends then. */
  readonly isClosed: boolean
}

/** Path data that cannot be read. */
export class OutlineError extends Error {
  /** The character, counted from 1, from which on it cannot be. */
  readonly at: number

  constructor(at: number) {
    super(`cannot be read from character ${at} on`)
    this.at = at
  }
}

/** A curve is never further from its pieces, in pixels. */
const TOLERANCE_PX = 0.005
const MOST_PIECES = 256
const FURTHEST_PX = 1e7

/**
 * Whether path data draws something; its curves are not followed, so that this is quick. Throws an OutlineError for data that cannot be read, or
 * that lies too far away to be meant.
 */
export function checkOutline(data: string): boolean {
  const path = parsed(data).abs()
  let draws = false
  path.iterate((segment, _index, x, y) => {
    const [command, ...rest] = segment as unknown as [string, ...number[]]
    if (command !== 'M' && command !== 'Z') draws = true
    if (![x, y, ...rest].every((value) => Math.abs(value) <= FURTHEST_PX)) throw new OutlineError(1)
  })
  return draws
}

function parsed(data: string) {
  const path = svgpath(data)
  // The package keeps what is wrong to itself until it is printed.
  const { err } = path as unknown as { readonly err: string }
  if (err !== '') throw new OutlineError(Number(/at pos (\d+)/.exec(err)?.[1] ?? 0) + 1)
  return path
}

/**
 * The contours of path data, stretched by `scaleX` and `scaleY`, which are pixels for one unit of the data, then moved by `padPx` both
 * ways. Throws an OutlineError for data that cannot be read.
 */
export function readOutline(data: string, scaleX: number, scaleY: number, padPx = 0): readonly Contour[] {
  const path = parsed(data).abs().unarc().unshort().scale(scaleX, scaleY).translate(padPx, padPx)
  const contours: Contour[] = []
  let points: number[] = []
  const finish = (isClosed: boolean) => {
    if (points.length >= 4) contours.push({ points: Float64Array.from(points), isClosed })
    points = []
  }
  path.iterate((segment, _index, x, y) => {
    const [command, ...rest] = segment as unknown as [string, ...number[]]
    if (command === 'M') {
      finish(false)
      points.push(rest[0]!, rest[1]!)
      return
    }
    if (command === 'Z') {
      finish(true)
      return
    }
    // After a Z the next piece begins where the contour did.
    if (points.length === 0) points.push(x, y)
    if (command === 'H') points.push(rest[0]!, y)
    else if (command === 'V') points.push(x, rest[0]!)
    else if (command === 'L') points.push(rest[0]!, rest[1]!)
    else if (command === 'Q') {
      const [midX, midY, toX, toY] = rest as [number, number, number, number]
      addCubic(points, x, y, x + (2 / 3) * (midX - x), y + (2 / 3) * (midY - y), toX + (2 / 3) * (midX - toX), toY + (2 / 3) * (midY - toY), toX, toY)
    } else if (command === 'C') addCubic(points, x, y, ...(rest as [number, number, number, number, number, number]))
  })
  finish(false)
  // Too far away to be meant, or no number at all.
  if (contours.some(({ points: all }) => all.some((value) => !(Math.abs(value) <= FURTHEST_PX)))) throw new OutlineError(1)
  return contours
}

/**
 * A cubic curve as pieces. As many as keep it within the tolerance: their number is the root of the largest second difference over
 * eight times that (Wang's bound, from memory).
 */
function addCubic(points: number[], x0: number, y0: number, x1: number, y1: number, x2: number, y2: number, x3: number, y3: number): void {
  const bend = Math.max(Math.hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2), Math.hypot(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3))
  const pieces = Math.min(MOST_PIECES, Math.max(1, Math.ceil(Math.sqrt((6 * bend) / (8 * TOLERANCE_PX)))))
  for (let i = 1; i <= pieces; i += 1) {
    const t = i / pieces
    const u = 1 - t
    const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t]
    points.push(a * x0 + b * x1 + c * x2 + d * x3, a * y0 + b * y1 + c * y2 + d * y3)
  }
}
