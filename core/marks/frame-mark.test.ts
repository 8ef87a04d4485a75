import { expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { MARK_COLUMNS, MARK_LIMIT, markCells, markGeometry, readMark } from './frame-mark.ts'

function drawn(widthPx: number, heightPx: number, frameNumber: number): Uint8Array {
  const luma = new Uint8Array(widthPx * heightPx).fill(90)
  const { cellPx, x, y } = markGeometry(widthPx, heightPx)
  markCells(frameNumber).forEach((cell, i) => {
    for (let row = 0; row < cellPx; row += 1) {
      const at = (y + Math.floor(i / MARK_COLUMNS) * cellPx + row) * widthPx + x + (i % MARK_COLUMNS) * cellPx
      luma.fill(cell === 1 ? 235 : 16, at, at + cellPx)
    }
  })
  return luma
}

it.each([
  [1280, 720],
  [1920, 1080],
  [640, 360],
])('comes back from a %d × %d picture with noise (seed 3)', (width, height) => {
  const random = seededRandom(3)
  for (const frameNumber of [0, 1, 255, 65535, 1234567, MARK_LIMIT - 1]) {
    const luma = drawn(width, height, frameNumber)
    expect(readMark(width, height, (x, y) => luma[y * width + x]! + (random() - 0.5) * 50)).toBe(frameNumber)
  }
})

it('is not seen in a picture without one, or in a damaged one', () => {
  expect(readMark(1280, 720, () => 16)).toBeNull()
  expect(readMark(1280, 720, () => 235)).toBeNull()
  expect(readMark(1280, 720, (x) => (x * 7) % 256)).toBeNull()
  const luma = drawn(1280, 720, 4711)
  const { cellPx, x, y } = markGeometry(1280, 720)
  for (let row = 0; row < cellPx; row += 1) {
    const at = (y + 2 * cellPx + row) * 1280 + x + 5 * cellPx
    for (let i = at; i < at + cellPx; i += 1) luma[i] = 251 - luma[i]!
  }
  expect(readMark(1280, 720, (column, row) => luma[row * 1280 + column]!)).toBeNull()
})
