// How a movement speeds up and slows down: CSS Easing Functions Level 1.

/** Where the steps of a staircase fall: `start` and `end` keep one end off, `none` and `both` as the standard's jump-none and jump-both. */
export const stepPositions = ['start', 'end', 'none', 'both'] as const
export type StepPosition = (typeof stepPositions)[number]

export type Easing =
  | { readonly kind: 'linear' }
  /** Through (0, 0), (x1, y1), (x2, y2), (1, 1); x1 and x2 lie in 0 … 1. */
  | { readonly kind: 'cubicBezier'; readonly x1: number; readonly y1: number; readonly x2: number; readonly y2: number }
  /** `count` ≥ 1, and ≥ 2 for `none`. */
  | { readonly kind: 'steps'; readonly count: number; readonly position: StepPosition }

/** The standard's named curves. */
export const namedEasings = {
  linear: { kind: 'linear' },
  ease: { kind: 'cubicBezier', x1: 0.25, y1: 0.1, x2: 0.25, y2: 1 },
  easeIn: { kind: 'cubicBezier', x1: 0.42, y1: 0, x2: 1, y2: 1 },
  easeOut: { kind: 'cubicBezier', x1: 0, y1: 0, x2: 0.58, y2: 1 },
  easeInOut: { kind: 'cubicBezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 },
} as const satisfies Record<string, Easing>

/** How far a movement is at `progress` of its time. Beyond 0 … 1 a curve goes on along its end's tangent. */
export function ease(easing: Easing, progress: number): number {
  switch (easing.kind) {
    case 'linear':
      return progress
    case 'cubicBezier':
      return cubicBezier(easing, progress)
    case 'steps':
      return staircase(easing, progress)
    default:
      return easing satisfies never
  }
}

/** The easing as a style sheet writes it. */
export function easingCss(easing: Easing): string {
  switch (easing.kind) {
    case 'linear':
      return 'linear'
    case 'cubicBezier':
      return `cubic-bezier(${easing.x1}, ${easing.y1}, ${easing.x2}, ${easing.y2})`
    case 'steps':
      return `steps(${easing.count}, jump-${easing.position})`
    default:
      return easing satisfies never
  }
}

type CubicBezier = Extract<Easing, { kind: 'cubicBezier' }>

function cubicBezier(curve: CubicBezier, x: number): number {
  if (x <= 0) return x * tangentAtStart(curve)
  if (x >= 1) return 1 + (x - 1) * tangentAtEnd(curve)
  return bezier(curve.y1, curve.y2, parameterAt(curve, x))
}

/** One coordinate of the curve at parameter t. */
function bezier(first: number, second: number, t: number): number {
  const rest = 1 - t
  return 3 * rest * rest * t * first + 3 * rest * t * t * second + t * t * t
}

/** Halvings of 0 … 1 until nothing is left to decide for a double. x never falls along the curve, so this always ends right. */
const HALVINGS = 53

function parameterAt({ x1, x2 }: CubicBezier, x: number): number {
  let low = 0
  let high = 1
  for (let i = 0; i < HALVINGS; i += 1) {
    const middle = (low + high) / 2
    if (bezier(x1, x2, middle) < x) low = middle
    else high = middle
  }
  return (low + high) / 2
}

function tangentAtStart({ x1, y1, x2, y2 }: CubicBezier): number {
  if (x1 > 0) return y1 / x1
  if (y1 === 0 && x2 > 0) return y2 / x2
  return x1 === 0 && y1 === 0 && x2 === 0 && y2 === 0 ? 1 : 0
}

function tangentAtEnd({ x1, y1, x2, y2 }: CubicBezier): number {
  if (x2 < 1) return (y2 - 1) / (x2 - 1)
  if (y2 === 1 && x1 < 1) return (y1 - 1) / (x1 - 1)
  return x1 === 1 && y1 === 1 && x2 === 1 && y2 === 1 ? 1 : 0
}

/** The standard's step algorithm, for a movement that is under way. */
function staircase({ count, position }: Extract<Easing, { kind: 'steps' }>, progress: number): number {
  let step = Math.floor(progress * count)
  if (position === 'start' || position === 'both') step += 1
  if (progress >= 0 && step < 0) step = 0
  const jumps = position === 'both' ? count + 1 : position === 'none' ? count - 1 : count
  if (progress <= 1 && step > jumps) step = jumps
  return step / jumps
}
