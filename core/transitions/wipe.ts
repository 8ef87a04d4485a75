import { RANGES } from '../schema/limits.ts'
import { number } from '../schema/values.ts'
import type { EdgeReveal } from '../composite/coverage.ts'
import { meeting } from '../picture/pixel-rect.ts'
import type { PixelRect } from '../picture/picture.ts'
import type { TransitionBase, TransitionDefinition } from './definition.ts'
import { nextItems } from './whole.ts'

/** An edge goes over the canvas at an angle as CSS has it: 90 to the right. `softness` is its width, 0..1 of the way. */
export interface Wipe extends TransitionBase {
  readonly kind: 'wipe'
  readonly angleDeg: number
  readonly softness: number
}

export const wipe: TransitionDefinition<Wipe> = {
  kind: 'wipe',
  usual: { angleDeg: 90, softness: 0.1 },
  stored: { angleDeg: number(RANGES.angleDeg), softness: number(RANGES.share) },
  put: (between, { angleDeg, softness }, progress) => {
    const { stack, widthPx, heightPx } = between.place
    between.from.put()
    const reveal = edgeAt(angleDeg, softness, widthPx, heightPx, progress)
    const uncovered = boundsOf(reveal, widthPx, heightPx)
    for (const next of nextItems(between)) {
      const bounds = meeting(next.bounds, uncovered)
      stack.put({ ...next, coverage: { ...next.coverage, reveal: progress === 1 ? null : reveal }, bounds, opacity: progress === 0 ? 0 : 1 })
    }
  },
}

/** The pixels of a canvas that an edge uncovers at all: only those of the next scene are drawn. */
function boundsOf(edge: EdgeReveal, widthPx: number, heightPx: number): PixelRect {
  const { a, b, c } = edge
  // Where the share is 0 along the four sides of the canvas, and the corners where it is more.
  const corners = [
    [0, 0],
    [widthPx, 0],
    [widthPx, heightPx],
    [0, heightPx],
  ] as const
  const points: (readonly [number, number])[] = []
  corners.forEach(([x, y], i) => {
    const [nextX, nextY] = corners[(i + 1) % 4]!
    const here = a * x + b * y + c
    const there = a * nextX + b * nextY + c
    if (here >= 0) points.push([x, y])
    if (here < 0 !== there < 0) points.push([x + ((nextX - x) * here) / (here - there), y + ((nextY - y) * here) / (here - there)])
  })
  if (points.length === 0) return { left: 0, top: 0, right: 0, bottom: 0 }
  const xs = points.map(([x]) => x)
  const ys = points.map(([, y]) => y)
  return {
    left: Math.max(0, Math.floor(Math.min(...xs)) - 1),
    top: Math.max(0, Math.floor(Math.min(...ys)) - 1),
    right: Math.min(widthPx, Math.ceil(Math.max(...xs)) + 1),
    bottom: Math.min(heightPx, Math.ceil(Math.max(...ys)) + 1),
  }
}

/** The edge on its way over a canvas: it begins before the first corner, and ends behind the last. */
export function edgeAt(angleDeg: number, softness: number, widthPx: number, heightPx: number, progress: number): EdgeReveal {
  const angle = (angleDeg * Math.PI) / 180
  // Along rows or columns exactly, where it is meant to be.
  const [alongX, alongY] = [Math.sin(angle), -Math.cos(angle)].map((value) => (Math.abs(value) < 1e-12 ? 0 : value)) as [number, number]
  const lengthPx = Math.abs(alongX) * widthPx + Math.abs(alongY) * heightPx
  const softPx = Math.max(1, softness * lengthPx)
  const edgePx = progress * (lengthPx + softPx) - softPx / 2
  // How far along a pixel lies: 0 at the first corner. The share is (edge − that) / soft + ½.
  const atCorner = lengthPx / 2 - (widthPx / 2) * alongX - (heightPx / 2) * alongY
  return { kind: 'edge', a: -alongX / softPx || 0, b: -alongY / softPx || 0, c: (edgePx - atCorner) / softPx + 0.5 }
}
