// Any chain of steps comes down to a rectangle that stays and one colour function.
import type { PixelRect } from '../picture/picture.ts'
import { intersectRects } from '../picture/picture.ts'
import { stepOf, type StepCall } from './index.ts'
import type { CutStep, ParamSpecs, PointFunction, PointStep } from './step.ts'

/** A chain made ready for pictures of one size. */
export interface PreparedChain {
  /** Pixels outside are clear. */
  readonly keep: PixelRect
  /** Colour functions in order; each changes the pixel in place. */
  readonly points: readonly PointFunction[]
}

/** Makes a chain ready for pictures of `widthPx` × `heightPx`; steps that change nothing fall out. */
export function prepareChain(calls: readonly StepCall[], widthPx: number, heightPx: number): PreparedChain {
  let keep: PixelRect = { left: 0, top: 0, right: widthPx, bottom: heightPx }
  const points: PointFunction[] = []
  for (const call of calls) {
    const step = stepOf(call.kind)
    if (step.shape === 'cut') {
      keep = intersectRects(keep, (step as unknown as CutStep<string, ParamSpecs>).keep(call.params, widthPx, heightPx))
    } else {
      const point = (step as unknown as PointStep<string, ParamSpecs>).prepare(call.params)
      if (point !== null) points.push(point)
    }
  }
  return { keep, points }
}

/** Whether the chain can make an opaque picture see-through. */
export function makesMatte(calls: readonly StepCall[]): boolean {
  return calls.some((call) => stepOf(call.kind).makesMatte)
}
