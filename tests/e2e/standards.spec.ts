// What the core computes by the formulas of web standards, against the browser's own work.
import { compose } from '../../core/blend/compose.ts'
import { blendModes } from '../../core/blend/index.ts'
import { ease, easingCss, namedEasings, type Easing } from '../../core/motion/easing.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { expect, test } from './studio.ts'

/** Pixels tried for each mode. */
const PIXELS = 600

test('blend modes are those of the browser’s canvas (W3C Compositing and Blending Level 1, globalCompositeOperation)', async ({ page }) => {
  const random = seededRandom(7)
  const codes = (hasAlpha: boolean) => Array.from({ length: PIXELS * 4 }, (_, i) => (i % 4 === 3 && !hasAlpha ? 255 : Math.floor(random() * 256)))
  for (const hasAlpha of [false, true]) {
    const backdrop = codes(hasAlpha)
    const source = codes(hasAlpha)
    for (const { name } of blendModes) {
      // Canvases hold premultiplied codes: what they hold is what is composed and what is compared.
      const [held, laid, seen] = await page.evaluate(
        ([below, above, operation, count]) => {
          const canvasOf = (pixels: readonly number[]) => {
            const pen = new OffscreenCanvas(count, 1).getContext('2d')!
            pen.putImageData(new ImageData(Uint8ClampedArray.from(pixels), count, 1), 0, 0)
            return pen
          }
          const read = (pen: OffscreenCanvasRenderingContext2D) => [...pen.getImageData(0, 0, count, 1).data]
          const [under, over] = [canvasOf(below), canvasOf(above)]
          const before = read(under)
          under.globalCompositeOperation = operation as GlobalCompositeOperation
          under.drawImage(over.canvas, 0, 0)
          return [before, read(over), read(under)] as const
        },
        [backdrop, source, name === 'normal' ? 'source-over' : name === 'plus-lighter' ? 'lighter' : name, PIXELS] as const,
      )
      const premultiplied = (straight: readonly number[]) =>
        Float64Array.from(straight, (code, i) => (i % 4 === 3 ? code / 255 : (code * straight[i - (i % 4) + 3]!) / 65025))
      const made = premultiplied(held)
      const over = premultiplied(laid)
      for (let at = 0; at < made.length; at += 4) compose(name, made, at, over, at, 1)
      const theirs = premultiplied(seen)
      const differences = made.map((value, i) => Math.abs(value - theirs[i]!) * 255)
      // The canvas stores eight bits and rounds in between: at most two codes for exclusion and difference, one for all else.
      const sorted = [...differences].sort((first, second) => first - second)
      const mean = sorted.reduce((sum, value) => sum + value, 0) / sorted.length
      expect(sorted[Math.floor(sorted.length * 0.99)]!, `${name}, ${hasAlpha ? 'with alpha' : 'opaque'}: 99 in 100`).toBeLessThanOrEqual(2.2)
      expect(mean, `${name}, ${hasAlpha ? 'with alpha' : 'opaque'}: mean`).toBeLessThanOrEqual(0.8)
    }
  }
})

test('easing is that of the browser’s animations (CSS Easing Functions Level 1, Web Animations getComputedTiming)', async ({ page }) => {
  const random = seededRandom(11)
  const curves: Easing[] = Array.from({ length: 20 }, () => ({
    kind: 'cubicBezier',
    x1: random(),
    y1: random() * 4 - 1.5,
    x2: random(),
    y2: random() * 4 - 1.5,
  }))
  const stairs = (['start', 'end', 'none', 'both'] as const).flatMap((position) => [2, 3, 7].map((count): Easing => ({ kind: 'steps', count, position })))
  const all = [...Object.values(namedEasings), ...curves, ...stairs]
  const moments = [0, 0.001, 0.05, 0.1, 0.24, 0.25, 0.26, 0.333, 0.5, 0.6, 0.75, 0.9, 0.999]
  const theirs = await page.evaluate(
    ([easings, times]) =>
      easings.map((easing) => {
        const effect = document.body.animate(null, { duration: 1000, easing })
        effect.pause()
        return times.map((time) => {
          effect.currentTime = time * 1000
          return effect.effect!.getComputedTiming().progress!
        })
      }),
    [all.map(easingCss), moments] as const,
  )
  all.forEach((easing, i) => {
    const differences = moments.map((moment, at) => Math.abs(ease(easing, moment) - theirs[i]![at]!))
    expect(Math.max(...differences), easingCss(easing)).toBeLessThanOrEqual(1e-4)
  })
})
