// Colours that run from one to the next: along a line, or outwards from a point. CSS Images Level 4 §3.
import { clamp01 } from '../picture/float-picture.ts'

/** A colour at a place of the gradient; straight, sRGB-encoded, 0..1. */
export interface GradientStop {
  /** 0..1 */
  readonly at: number
  readonly colour: readonly [red: number, green: number, blue: number]
  readonly opacity: number
}

/** `stops` hold at least one, in order of `at`; two at one place make a hard edge. */
export type Gradient =
  /** From one point to another; beyond them the end colours go on. */
  | {
      readonly kind: 'linear'
      readonly fromX: number
      readonly fromY: number
      readonly toX: number
      readonly toY: number
      readonly stops: readonly GradientStop[]
    }
  | { readonly kind: 'radial'; readonly centreX: number; readonly centreY: number; readonly radius: number; readonly stops: readonly GradientStop[] }

/** Writes red, green, blue, alpha at (x, y) into `out`, premultiplied, 0..1. */
export function gradientAt(gradient: Gradient, x: number, y: number, out: Float64Array): void {
  colourAt(gradient.stops, placeOf(gradient, x, y), out)
}

/** How far along its colours a gradient is at a point. A gradient without any length shows its last colour, as the standard has it. */
function placeOf(gradient: Gradient, x: number, y: number): number {
  if (gradient.kind === 'radial') {
    const distance = Math.hypot(x - gradient.centreX, y - gradient.centreY)
    return gradient.radius > 0 ? clamp01(distance / gradient.radius) : 1
  }
  const alongX = gradient.toX - gradient.fromX
  const alongY = gradient.toY - gradient.fromY
  const length = alongX * alongX + alongY * alongY
  return length === 0 ? 1 : clamp01(((x - gradient.fromX) * alongX + (y - gradient.fromY) * alongY) / length)
}

/** Between two stops colours mix premultiplied, so that a clear stop has no colour of its own. */
function colourAt(stops: readonly GradientStop[], place: number, out: Float64Array): void {
  const next = stops.findIndex((stop) => stop.at > place)
  const before = next === 0 ? stops[0]! : stops[(next === -1 ? stops.length : next) - 1]!
  const after = next <= 0 ? before : stops[next]!
  const share = after === before ? 0 : (place - before.at) / (after.at - before.at)
  for (let channel = 0; channel < 3; channel += 1) {
    out[channel] = before.colour[channel]! * before.opacity * (1 - share) + after.colour[channel]! * after.opacity * share
  }
  out[3] = before.opacity * (1 - share) + after.opacity * share
}
