// A row of cells at the edge of the studio's header, by which the studio knows its own picture in a screen that is shared with it: a
// screen that shows itself is a hall of mirrors. Bright and dark cells follow a fixed sequence that nothing else has.

/** A maximal-length sequence of x⁵ + x² + 1: shifted by any amount it agrees with itself in 15 of 31 places only. */
export const selfMarkCells: readonly number[] = (() => {
  const cells: number[] = []
  let state = 1
  for (let i = 0; i < 31; i += 1) {
    cells.push(state & 1)
    state = (state >> 1) | (((state ^ (state >> 2)) & 1) << 4)
  }
  return cells
})()

/** Side of a cell in the page's pixels. */
export const SELF_MARK_CELL_PX = 3

/** Sizes of a cell in a shared picture, by how large the screen's pixels are and how the picture was scaled. */
const CELL_SIZES = [2, 2.25, 2.5, 3, 3.75, 4, 4.5, 5, 6, 7.5, 9] as const
/** How alike a row must be to the sequence: 1 is equal up to brightness and contrast. */
const LEAST_CORRELATION = 0.86
/** Difference in luma codes between bright and dark cells, on average, that is no noise. */
const LEAST_CONTRAST = 5
const signs = selfMarkCells.map((cell) => (cell === 1 ? 1 : -1))
const meanSign = signs.reduce((sum, sign) => sum + sign, 0) / signs.length
const signPower = signs.reduce((sum, sign) => sum + (sign - meanSign) ** 2, 0)

/** Where the mark is in a picture, in its pixels; null when it is nowhere. `lumaAt(x, y)` gives 0..255. */
export function findSelfMark(widthPx: number, heightPx: number, lumaAt: (x: number, y: number) => number): { readonly x: number; readonly y: number } | null {
  const row = new Float64Array(widthPx)
  const values = new Float64Array(signs.length)
  for (let y = 0; y < heightPx; y += 2) {
    for (let x = 0; x < widthPx; x += 1) row[x] = lumaAt(x, y)
    for (const cellPx of CELL_SIZES) {
      const last = widthPx - Math.ceil(signs.length * cellPx)
      for (let x = 0; x <= last; x += 1) {
        // Most places are ruled out by the first cells: 1 0 0 0 0 1 of the sequence.
        const [first, second] = [row[Math.floor(x + cellPx / 2)]!, row[Math.floor(x + cellPx * 1.5)]!]
        if (first - second < LEAST_CONTRAST) continue
        if (matches(row, values, x, cellPx)) return { x, y }
      }
    }
  }
  return null
}

function matches(row: Float64Array, values: Float64Array, x: number, cellPx: number): boolean {
  let sum = 0
  for (let i = 0; i < signs.length; i += 1) {
    const value = row[Math.floor(x + (i + 0.5) * cellPx)]!
    values[i] = value
    sum += value
  }
  const mean = sum / signs.length
  let both = 0
  let power = 0
  for (let i = 0; i < signs.length; i += 1) {
    const value = values[i]! - mean
    both += value * (signs[i]! - meanSign)
    power += value * value
  }
  if (power < signPower * (LEAST_CONTRAST / 2) ** 2) return false
  return both / Math.sqrt(power * signPower) > LEAST_CORRELATION
}
