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
  let words = 0
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const at = (y * width + x) * 4
      expect(data[at]! + data[at + 1]! + data[at + 2]!).toBeGreaterThan(60)
      if (y < height / 2 || data[at]! < 150) continue
      words += 1
      expect(x).toBeGreaterThan(width * 0.06)
      expect(x).toBeLessThan(width * 0.94)
    }
  }
  expect(words).toBeGreaterThan(100)
})
