// How much of each pixel an outline covers: by exact areas, and where contours overlap by lines.
import type { Contour } from './read-outline.ts'
import { strokedContours } from './stroked-contours.ts'

/**
 * Share (0..1) of each pixel that lies inside contours by the non-zero rule, row by row. Where they do not overlap it is the exact area.
 * Open contours are closed. With fewer `lines` a row it is quicker, and coarser where they overlap.
 */
export function insideShares(contours: readonly Contour[], widthPx: number, heightPx: number, lines = LINES): Float64Array {
  const shares = signedShares(contours, widthPx, heightPx)
  const overlaps = new Uint8Array(widthPx * heightPx)
  const lined = shares.slice()
  writeLined(contours, widthPx, heightPx, lines, lined, overlaps)
  // A difference that no rounding explains: contours lie over one another there.
  const least = OVERLAP_LINES / lines
  for (let at = 0; at < shares.length; at += 1) if (overlaps[at]! >= BOTH_WAYS || Math.abs(shares[at]! - lined[at]!) > least) shares[at] = lined[at]!
  return shares
}

/** The exact area, signed by the way round, its amount and no more than 1: true where no two contours share a pixel. */
function signedShares(contours: readonly Contour[], widthPx: number, heightPx: number): Float64Array {
  // Of each pixel the change of cover from the pixel before: a running sum along the row gives the share.
  const changes = new Float64Array((widthPx + 2) * heightPx)
  for (const { points } of contours) {
    const count = points.length / 2
    for (let i = 0; i < count; i += 1) {
      const next = ((i + 1) % count) * 2
      addEdge(changes, widthPx, heightPx, points[i * 2]!, points[i * 2 + 1]!, points[next]!, points[next + 1]!)
    }
  }
  const shares = new Float64Array(widthPx * heightPx)
  for (let y = 0; y < heightPx; y += 1) {
    let sum = 0
    for (let x = 0; x < widthPx; x += 1) {
      sum += changes[y * (widthPx + 2) + x]!
      shares[y * widthPx + x] = Math.min(1, Math.abs(sum))
    }
  }
  return shares
}

/** Adds what lies to the right of an edge, row by row. */
function addEdge(changes: Float64Array, widthPx: number, heightPx: number, x0: number, y0: number, x1: number, y1: number): void {
  if (y0 === y1) return
  const sign = y0 < y1 ? 1 : -1
  const [topX, topY, bottomX, bottomY] = y0 < y1 ? [x0, y0, x1, y1] : [x1, y1, x0, y0]
  const slope = (bottomX - topX) / (bottomY - topY)
  const last = Math.min(heightPx - 1, Math.ceil(bottomY) - 1)
  for (let row = Math.max(0, Math.floor(topY)); row <= last; row += 1) {
    const from = Math.max(topY, row)
    const to = Math.min(bottomY, row + 1)
    if (to <= from) continue
    addPiece(changes, row * (widthPx + 2), widthPx, topX + (from - topY) * slope, topX + (to - topY) * slope, sign * (to - from))
  }
}

/** Of one row: an edge from `x0` to `x1` that is `height` high (signed) covers all to its right. */
function addPiece(changes: Float64Array, row: number, widthPx: number, x0: number, x1: number, height: number): void {
  const left = Math.min(x0, x1)
  const right = Math.max(x0, x1)
  const clamped = (x: number) => Math.min(widthPx, Math.max(0, x))
  // What lies beyond the sides is a straight edge at the side.
  const [from, to] = [clamped(left), clamped(right)]
  const width = right - left
  if (width === 0 || to === from) return addColumn(changes, row, from, height)
  const beyondLeft = ((Math.min(right, 0) - Math.min(left, 0)) / width) * height
  const beyondRight = ((Math.max(right, widthPx) - Math.max(left, widthPx)) / width) * height
  if (beyondLeft !== 0) addColumn(changes, row, 0, beyondLeft)
  if (beyondRight !== 0) addColumn(changes, row, widthPx, beyondRight)
  for (let column = Math.floor(from); column < to; column += 1) {
    const [a, b] = [Math.max(from, column), Math.min(to, column + 1)]
    if (b > a) addColumn(changes, row, (a + b) / 2, (height * (b - a)) / width, column)
  }
}

/** An edge within one column, on the mean at `x`: that pixel is covered as far as it lies to the right, those after it whole. */
function addColumn(changes: Float64Array, row: number, x: number, height: number, column = Math.floor(x)): void {
  const covered = height * (1 - (x - column))
  changes[row + column] = changes[row + column]! + covered
  changes[row + column + 1] = changes[row + column + 1]! + height - covered
}

/** Lines on which a row is looked at for what overlaps: a code or two. */
const LINES = 64
const OVERLAP_LINES = 3
/** What is known of a pixel: something in it lies inside by one way round, by the other, by both; or more than once. */
const ONE_WAY = 1
const OTHER_WAY = 2
const BOTH_WAYS = 3
const TWICE = 4

/**
 * Writes the share (0..1) of each pixel that lies inside contours by the non-zero rule (SVG 2 §13.5.2), however they overlap: exact along
 * each of so many lines a row. Where it is noted in `overlaps` what lies inside twice or both ways round, rows in which nothing can are left out.
 */
function writeLined(contours: readonly Contour[], widthPx: number, heightPx: number, lines: number, shares: Float64Array, overlaps: Uint8Array | null): void {
  const edges = edgesOf(contours)
  const rows = edgesByRow(edges, heightPx)
  const changes = new Float64Array(widthPx + 2)
  const most = rows.reduce((largest, { length }) => Math.max(largest, length), 0)
  const crossings = { x: new Float64Array(most), edge: new Int32Array(most), idle: new Int32Array(most), count: 0 }
  const clamped = (x: number) => Math.min(widthPx, Math.max(0, x))
  for (let row = 0; row < heightPx; row += 1) {
    const inRow = rows[row]!
    // Two sides are one way in and one way out.
    if (inRow.length === 0 || (overlaps !== null && inRow.length === 2)) continue
    changes.fill(0)
    for (let line = 0; line < lines; line += 1) {
      findCrossings(edges, inRow, row + (line + 0.5) / lines, crossings)
      let winding = 0
      let from = 0
      for (let i = 0; i < crossings.count; i += 1) {
        const before = winding
        const x = crossings.x[i]!
        winding += edges.turn[crossings.edge[i]!]!
        if (overlaps !== null && before !== 0) noteSpan(overlaps, row * widthPx, widthPx, from, x, before)
        from = x
        if ((before === 0) !== (winding === 0)) addColumn(changes, 0, clamped(x), (before === 0 ? 1 : -1) / lines)
      }
    }
    let sum = 0
    for (let x = 0; x < widthPx; x += 1) {
      sum += changes[x]!
      // A sum of many parts.
      shares[row * widthPx + x] = sum > 1 - 1e-9 ? 1 : Math.max(0, sum)
    }
  }
}

/** Sides that are not level, from top to bottom. */
interface Edges {
  readonly count: number
  readonly topX: Float64Array
  readonly topY: Float64Array
  readonly bottomY: Float64Array
  readonly slope: Float64Array
  /** 1 for one that runs down in its contour, −1 for one that runs up. */
  readonly turn: Int8Array
}

function edgesOf(contours: readonly Contour[]): Edges {
  const most = contours.reduce((sum, { points }) => sum + points.length / 2, 0)
  const [topX, topY, bottomY, slope] = [new Float64Array(most), new Float64Array(most), new Float64Array(most), new Float64Array(most)]
  const turn = new Int8Array(most)
  let at = 0
  for (const { points } of contours) {
    const corners = points.length / 2
    for (let i = 0; i < corners; i += 1) {
      const next = ((i + 1) % corners) * 2
      const [x0, y0, x1, y1] = [points[i * 2]!, points[i * 2 + 1]!, points[next]!, points[next + 1]!]
      if (y0 === y1) continue
      turn[at] = y0 < y1 ? 1 : -1
      topX[at] = y0 < y1 ? x0 : x1
      topY[at] = Math.min(y0, y1)
      bottomY[at] = Math.max(y0, y1)
      slope[at] = (x1 - x0) / (y1 - y0)
      at += 1
    }
  }
  return { count: at, topX, topY, bottomY, slope, turn }
}

/** Of each row of pixels the edges that reach into it. */
function edgesByRow({ count, topY, bottomY }: Edges, heightPx: number): readonly number[][] {
  const rows: number[][] = Array.from({ length: heightPx }, () => [])
  for (let edge = 0; edge < count; edge += 1) {
    const last = Math.min(heightPx - 1, Math.ceil(bottomY[edge]!) - 1)
    for (let row = Math.max(0, Math.floor(topY[edge]!)); row <= last; row += 1) rows[row]!.push(edge)
  }
  return rows
}

interface Crossings {
  readonly x: Float64Array
  readonly edge: Int32Array
  /** Edges of the row that do not cross the line. */
  readonly idle: Int32Array
  count: number
}

/** Where the edges of a row cross the line at `y`, from left to right. `inRow` is put in that order, so that the next line has little to sort. */
function findCrossings(edges: Edges, inRow: number[], y: number, crossings: Crossings): void {
  const { x: places, edge: which, idle } = crossings
  let resting = 0
  let count = 0
  for (const edge of inRow) {
    if (y < edges.topY[edge]! || y >= edges.bottomY[edge]!) {
      idle[resting] = edge
      resting += 1
      continue
    }
    const x = edges.topX[edge]! + (y - edges.topY[edge]!) * edges.slope[edge]!
    let at = count
    for (; at > 0 && places[at - 1]! > x; at -= 1) {
      places[at] = places[at - 1]!
      which[at] = which[at - 1]!
    }
    places[at] = x
    which[at] = edge
    count += 1
  }
  crossings.count = count
  for (let i = 0; i < count; i += 1) inRow[i] = which[i]!
  for (let i = 0; i < resting; i += 1) inRow[count + i] = idle[i]!
}

/** Notes what lies inside from `from` to `to` on a line: twice or more all along, else which way round at both ends. */
function noteSpan(overlaps: Uint8Array, row: number, widthPx: number, from: number, to: number, winding: number): void {
  const first = Math.max(0, Math.floor(from))
  const last = Math.min(widthPx - 1, Math.floor(to))
  if (last < first || to <= from) return
  if (Math.abs(winding) > 1) return void overlaps.fill(TWICE, row + first, row + last + 1)
  const way = winding > 0 ? ONE_WAY : OTHER_WAY
  overlaps[row + first]! |= way
  overlaps[row + last]! |= way
}

/** Share (0..1) of each pixel that a stroke of twice `halfPx` covers: with mitred joins up to a limit of 4 and butt ends, as SVG has them unless told otherwise. */
export function strokeShares(contours: readonly Contour[], widthPx: number, heightPx: number, halfPx: number): Float64Array {
  const shares = new Float64Array(widthPx * heightPx)
  writeLined(strokedContours(contours, halfPx), widthPx, heightPx, LINES, shares, null)
  return shares
}
