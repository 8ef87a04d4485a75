import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { findSelfMark, selfMarkCells } from './self-mark.ts'

/** A picture of noise with the mark at (x, y), cells of `cellPx`, some codes brighter than dark. */
function pictureWith(cellPx: number, contrast: number, seed: number, width = 640, height = 120) {
  const random = seededRandom(seed)
  const luma = Float64Array.from({ length: width * height }, () => 42 + (random() - 0.5) * 3)
  const [left, top] = [137, 51]
  for (let row = 0; row < Math.ceil(cellPx); row += 1) {
    for (let x = 0; x < Math.floor(31 * cellPx); x += 1) {
      const at = (top + row) * width + left + x
      luma[at] = luma[at]! + selfMarkCells[Math.floor(x / cellPx)]! * contrast
    }
  }
  return { width, height, lumaAt: (x: number, y: number) => luma[y * width + x]! }
}

describe('the mark of the studio', () => {
  it('is a maximal-length sequence: 16 ones, and shifted it agrees with itself in 15 of 31 places (Golomb 1967, from memory)', () => {
    expect(selfMarkCells.filter((cell) => cell === 1)).toHaveLength(16)
    for (let shift = 1; shift < 31; shift += 1) {
      expect(selfMarkCells.filter((cell, i) => cell === selfMarkCells[(i + shift) % 31])).toHaveLength(15)
    }
  })

  it.each([2, 3, 4, 4.5, 6, 9])('is found with cells of %d px, in noise (seed 5)', (cellPx) => {
    const { width, height, lumaAt } = pictureWith(cellPx, 18, 5)
    const found = findSelfMark(width, height, lumaAt)
    expect(found).not.toBeNull()
    expect(Math.abs(found!.x - 137)).toBeLessThanOrEqual(cellPx)
    expect(Math.abs(found!.y - 51)).toBeLessThanOrEqual(cellPx)
  })

  it('is not found where it is not: noise, stripes, text-like rows (seeds 1 to 8)', () => {
    for (let seed = 1; seed <= 8; seed += 1) {
      const random = seededRandom(seed)
      const rows = Array.from({ length: 60 }, () => Float64Array.from({ length: 800 }, () => (random() < 0.5 ? 20 : 200)))
      expect(findSelfMark(800, 60, (x, y) => rows[y]![x]!)).toBeNull()
      expect(findSelfMark(800, 60, (x) => (Math.floor(x / (seed + 1)) % 2) * 90)).toBeNull()
      expect(findSelfMark(800, 60, () => 42 + random())).toBeNull()
    }
  })

  it('is not made of a picture of one pixel, or of one narrower than the mark', () => {
    expect(findSelfMark(1, 1, () => 0)).toBeNull()
    expect(findSelfMark(60, 40, (x) => x)).toBeNull()
  })
})
