import { expect, it } from 'vitest'
import { rgbaToI420 } from '../../tests/support/i420.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { rgbaToI420Into } from '../drawing/to-i420.ts'
import { nodeSheet } from '../drawing/node-sheet.ts'
import { drawDashboard, drawPointer, pointerAt, SCREEN_HEIGHT_PX, SCREEN_WIDTH_PX } from './drawn-screen.ts'

it('codes are those of the reference to within one (seed 4)', () => {
  const random = seededRandom(4)
  const data = Uint8ClampedArray.from({ length: 32 * 18 * 4 }, (_, i) => (i % 4 === 3 ? 255 : random() * 256))
  const out = new Uint8Array(32 * 18 * 1.5)
  rgbaToI420Into(data, 32, 18, out)
  const reference = rgbaToI420({ format: 'rgba', widthPx: 32, heightPx: 18, data: new Uint8Array(data) }).data
  expect(Math.max(...out.map((code, i) => Math.abs(code - reference[i]!)))).toBeLessThanOrEqual(1)
})

it('the pointer moves without a jump, stays on the screen, and rests', () => {
  let before = pointerAt(0)
  let rested = 0
  for (let timeMs = 16; timeMs < 40_000; timeMs += 16) {
    const now = pointerAt(timeMs)
    expect(Math.hypot(now.x - before.x, now.y - before.y)).toBeLessThan(12)
    expect(now.x > 0 && now.x < SCREEN_WIDTH_PX && now.y > 0 && now.y < SCREEN_HEIGHT_PX).toBe(true)
    if (!now.isMoving) rested += 1
    before = now
  }
  expect(rested).toBeGreaterThan(1000)
})

it('draws a window of its own, with the pointer on top', () => {
  const { pen } = nodeSheet(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  drawDashboard(pen)
  const bare = pen.getImageData(0, 0, SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX).data
  drawPointer(pen, 600, 400)
  const pointed = pen.getImageData(0, 0, SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX).data
  const changed = bare.filter((value, i) => value !== pointed[i]).length / 4
  expect(changed).toBeGreaterThan(100)
  expect(changed).toBeLessThan(1000)
  expect(new Set(Array.from({ length: 2000 }, (_, i) => bare[i * 2044])).size).toBeGreaterThan(10)
})
