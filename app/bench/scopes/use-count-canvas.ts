// Draws counts as glowing points: the more pixels, the brighter, up to full.
import { scalePow } from 'd3'
import { watchEffect, type Ref } from 'vue'
import type { CountGrid } from '../../../core/scopes/scopes.ts'

/** `colourAt` gives red, green and blue (0..255) for a cell. */
export function useCountCanvas(
  canvas: Readonly<Ref<HTMLCanvasElement | null>>,
  grid: () => CountGrid | null,
  colourAt: (x: number, y: number) => readonly [number, number, number],
): void {
  const alpha = scalePow([0, 40], [0, 255]).exponent(0.55).clamp(true)
  let image: ImageData | null = null
  watchEffect(() => {
    const counts = grid()
    const element = canvas.value
    const pen = element?.getContext('2d') ?? null
    if (element === null || pen === null) return
    if (counts === null) {
      pen.clearRect(0, 0, element.width, element.height)
      return
    }
    if (element.width !== counts.columns || element.height !== counts.rows) {
      element.width = counts.columns
      element.height = counts.rows
    }
    if (image?.width !== counts.columns || image.height !== counts.rows) image = new ImageData(counts.columns, counts.rows)
    for (let y = 0; y < counts.rows; y += 1) {
      for (let x = 0; x < counts.columns; x += 1) {
        const i = y * counts.columns + x
        const count = counts.counts[i]!
        const [red, green, blue] = count === 0 ? ([0, 0, 0] as const) : colourAt(x, y)
        image.data[i * 4] = red
        image.data[i * 4 + 1] = green
        image.data[i * 4 + 2] = blue
        image.data[i * 4 + 3] = count === 0 ? 0 : alpha(count)
      }
    }
    pen.putImageData(image, 0, 0)
  })
}
