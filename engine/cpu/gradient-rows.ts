// Rows of a gradient, by a table of its colours.
import { mapPoint } from '../../core/composite/affine.ts'
import { gradientAt, type Gradient } from '../../core/paint/gradient.ts'
import type { Paint } from '../../core/plan/frame-plan.ts'
import type { Heap } from './heap.ts'

/** Places that are told apart along a gradient. */
const PLACES = 4096

export class GradientRows {
  readonly #heap: Heap
  readonly #paint: Extract<Paint, { kind: 'gradient' }>
  readonly #colours: Uint32Array

  constructor(heap: Heap, paint: Extract<Paint, { kind: 'gradient' }>) {
    this.#heap = heap
    this.#paint = paint
    this.#colours = coloursOf(paint.gradient)
  }

  /** Writes `count` premultiplied pixels of row y from column x on, of the stack, to `line`. */
  write(x: number, y: number, count: number, line: number): void {
    const { gradient, toGradient } = this.#paint
    const [startX, startY] = mapPoint(toGradient, x + 0.5, y + 0.5)
    const { words } = this.#heap
    const colours = this.#colours
    const from = line >> 2
    if (gradient.kind === 'radial') {
      const perRadius = gradient.radius > 0 ? PLACES / gradient.radius : Infinity
      let right = startX - gradient.centreX
      let down = startY - gradient.centreY
      for (let i = 0; i < count; i += 1) {
        const distance = gradient.radius > 0 ? Math.sqrt(right * right + down * down) * perRadius : PLACES
        words[from + i] = colours[distance < PLACES ? distance | 0 : PLACES]!
        right += toGradient.a
        down += toGradient.b
      }
      return
    }
    const alongX = gradient.toX - gradient.fromX
    const alongY = gradient.toY - gradient.fromY
    const length = alongX * alongX + alongY * alongY
    const scale = length === 0 ? 0 : PLACES / length
    let place = length === 0 ? PLACES : ((startX - gradient.fromX) * alongX + (startY - gradient.fromY) * alongY) * scale
    const step = (toGradient.a * alongX + toGradient.b * alongY) * scale
    for (let i = 0; i < count; i += 1) {
      words[from + i] = colours[place <= 0 ? 0 : place < PLACES ? place | 0 : PLACES]!
      place += step
    }
  }
}

/** The premultiplied colour in the middle of each place, and that of the end. */
function coloursOf(gradient: Gradient): Uint32Array {
  const along: Gradient = { kind: 'linear', fromX: 0, fromY: 0, toX: 1, toY: 0, stops: gradient.stops }
  const colours = new Uint32Array(PLACES + 1)
  const pixel = new Float64Array(4)
  const code = (channel: number) => Math.round(pixel[channel]! * 255)
  for (let i = 0; i <= PLACES; i += 1) {
    gradientAt(along, i === PLACES ? 1 : (i + 0.5) / PLACES, 0, pixel)
    colours[i] = ((code(3) << 24) | (code(2) << 16) | (code(1) << 8) | code(0)) >>> 0
  }
  return colours
}
