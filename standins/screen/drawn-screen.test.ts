import { expect, it } from 'vitest'
import { rgbaToI420 } from '../../tests/support/i420.ts'
import { MARK_COLUMNS, MARK_LIMIT, MARK_ROWS, markGeometry, readMark } from '../../core/marks/frame-mark.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { rgbaToI420Into } from '../drawing/to-i420.ts'
import { nodeSheet } from '../drawing/node-sheet.ts'
import { SCREEN_BYTES, ScreenCodes } from './screen-codes.ts'
import { drawDashboard, drawPointer, pointerAt, SCREEN_HEIGHT_PX, SCREEN_WIDTH_PX } from './drawn-screen.ts'

it('codes are those of the reference to within one (seed 4)', () => {
  const random = seededRandom(4)
  const data = Uint8ClampedArray.from({ length: 32 * 18 * 4 }, (_, i) => (i % 4 === 3 ? 255 : random() * 256))
  const out = new Uint8Array(32 * 18 * 1.5)
  rgbaToI420Into(data, { x: 0, y: 0, widthPx: 32, heightPx: 18 }, out, 32, 18)
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

it('drawn and converted in part, the screen is what it is drawn and converted whole, wherever the pointer is', () => {
  const screen = new ScreenCodes(nodeSheet)
  const part = new Uint8Array(SCREEN_BYTES)
  const whole = new Uint8Array(SCREEN_BYTES)
  const random = seededRandom(9)
  for (let i = 0; i < 12; i += 1) {
    const timeMs = Math.floor(1.7e12 + random() * 15_000)
    const frameNumber = screen.write(timeMs, part)
    const { pen } = nodeSheet(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
    drawDashboard(pen)
    const { x, y } = pointerAt(timeMs)
    drawPointer(pen, x, y)
    const { data } = pen.getImageData(0, 0, SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
    rgbaToI420Into(data, { x: 0, y: 0, widthPx: SCREEN_WIDTH_PX, heightPx: SCREEN_HEIGHT_PX }, whole, SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
    // But for its number, which is read as any camera's is.
    expect(readMark(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX, (px, py) => part[py * SCREEN_WIDTH_PX + px]!)).toBe(frameNumber % MARK_LIMIT)
    const { cellPx, x: left, y: top } = markGeometry(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
    let apart = 0
    let from = 0
    for (const [width, height, step] of [
      [SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX, 1],
      [SCREEN_WIDTH_PX / 2, SCREEN_HEIGHT_PX / 2, 2],
      [SCREEN_WIDTH_PX / 2, SCREEN_HEIGHT_PX / 2, 2],
    ] as const) {
      for (let at = 0; at < width * height; at += 1) {
        const [px, py] = [(at % width) * step, Math.floor(at / width) * step]
        const isMark = px >= left && px < left + MARK_COLUMNS * cellPx && py >= top && py < top + MARK_ROWS * cellPx
        if (!isMark && part[from + at] !== whole[from + at]) apart += 1
      }
      from += width * height
    }
    expect(apart).toBe(0)
  }
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
