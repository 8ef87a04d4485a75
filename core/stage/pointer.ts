// What points at something for the audience: a dot, or a light on one spot while all else is dimmed.
import { translation } from '../composite/affine.ts'
import { plainCoverage } from '../composite/coverage.ts'
import type { PixelRect } from '../picture/picture.ts'
import { meeting } from '../picture/pixel-rect.ts'
import type { StackItems } from '../plan/plan-builder.ts'

export const pointerKinds = ['dot', 'spotlight'] as const
export type PointerKind = (typeof pointerKinds)[number]

/** A spot of a picture, 0..1 across and down. */
export interface Pointer {
  readonly kind: PointerKind
  readonly x: number
  readonly y: number
}

/** Shares of the picture's height. */
const DOT_RADIUS = 0.016
const RING = 0.004
const LIGHT_RADIUS = 0.2
/** Where the light begins to fall off, and how dark it is outside. */
const LIGHT_EDGE = 0.8
const DIMMED = 0.62

const DOT_COLOUR = [0.85, 0.25, 0.18] as const
const WHITE = [1, 1, 1] as const
const BLACK = [0, 0, 0] as const

/** Puts a pointer over everything in a stack of that size. */
export function putPointer(stack: StackItems, { kind, x, y }: Pointer, widthPx: number, heightPx: number): void {
  const [atX, atY] = [x * widthPx, y * heightPx]
  const whole: PixelRect = { left: 0, top: 0, right: widthPx, bottom: heightPx }
  const common = { layerId: 'pointer', opacity: 1, blend: 'normal' as const }
  if (kind === 'dot') {
    for (const [radius, colour] of [
      [(DOT_RADIUS + RING) * heightPx, WHITE],
      [DOT_RADIUS * heightPx, DOT_COLOUR],
    ] as const) {
      stack.put({
        ...common,
        paint: { kind: 'plain', colour, opacity: 1 },
        coverage: plainCoverage({ kind: 'roundedRect', width: 2 * radius, height: 2 * radius, cornerRadius: radius }),
        toCoverage: translation(radius - atX, radius - atY),
        bounds: meeting(whole, {
          left: Math.floor(atX - radius),
          top: Math.floor(atY - radius),
          right: Math.ceil(atX + radius),
          bottom: Math.ceil(atY + radius),
        }),
      })
    }
    return
  }
  const stop = (at: number, opacity: number) => ({ at, colour: BLACK, opacity })
  stack.put({
    ...common,
    paint: {
      kind: 'gradient',
      gradient: { kind: 'radial', centreX: atX, centreY: atY, radius: LIGHT_RADIUS * heightPx, stops: [stop(0, 0), stop(LIGHT_EDGE, 0), stop(1, DIMMED)] },
      toGradient: translation(0, 0),
    },
    coverage: plainCoverage({ kind: 'roundedRect', width: widthPx, height: heightPx, cornerRadius: 0 }),
    toCoverage: translation(0, 0),
    bounds: whole,
  })
}
