import { expect, it } from 'vitest'
import { createCanvas } from '@napi-rs/canvas'
import { drawHoldingCard, type CardPen } from './holding-card.ts'

it.each([
  [1280, 720, 'Back in a moment'],
  [640, 360, 'A very long title that somebody has typed without thinking of how wide a picture is'],
])('fills %d × %d, is never black, and keeps its words inside', (width, height, title) => {
  const canvas = createCanvas(width, height)
  const pen = canvas.getContext('2d')
  drawHoldingCard(pen as unknown as CardPen, width, height, title, 'Reading a brood frame', 'sans-serif')
  const { data } = pen.getImageData(0, 0, width, height)
  let darkest = 765
  let words = 0
  let from = width
  let to = 0
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const at = (y * width + x) * 4
      darkest = Math.min(darkest, data[at]! + data[at + 1]! + data[at + 2]!)
      if (y < height / 2 || data[at]! < 150) continue
      words += 1
      from = Math.min(from, x)
      to = Math.max(to, x)
    }
  }
  expect(darkest).toBeGreaterThan(60)
  expect(words).toBeGreaterThan(100)
  expect(from).toBeGreaterThan(width * 0.06)
  expect(to).toBeLessThan(width * 0.94)
})
