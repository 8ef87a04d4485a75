// Any chain of steps comes down to runs: colour functions and a rectangle, then work on the whole picture, and so on.
import type { PixelRect } from '../picture/picture.ts'
import { intersectRects } from '../picture/picture.ts'
import { stepOf, type StepCall } from './index.ts'
import type { ParamSpecs, PointFunction, PointShader, SpatialWork, StepContext, StepDefinition } from './step.ts'

/** Consecutive point-wise steps and what follows them. */
export interface Run {
  /** Pixels outside are clear. */
  readonly keep: PixelRect
  /** Colour functions in order; each changes the pixel in place. */
  readonly points: readonly PointFunction[]
  /** The same functions for a graphics card. */
  readonly shaders: readonly PointShader[]
  /** Equal for two runs with the same colour functions. */
  readonly key: string
  /** What is done with the whole picture next; null after the last run. */
  readonly then: SpatialWork | null
}

/** A chain made ready for pictures of one size; there is always a last run without `then`. */
export interface PreparedChain {
  readonly runs: readonly Run[]
  /** Whether an opaque picture stays opaque. */
  readonly keepsOpaque: boolean
}

/** A context without pictures or looks, for chains that need none. */
export function plainContext(widthPx: number, heightPx: number): StepContext {
  return { widthPx, heightPx, lut: () => null, picture: () => null }
}

/** Makes a chain ready; steps that change nothing fall out. */
export function prepareChain(calls: readonly StepCall[], context: StepContext): PreparedChain {
  const whole: PixelRect = { left: 0, top: 0, right: context.widthPx, bottom: context.heightPx }
  const runs: Run[] = []
  let keep = whole
  let points: PointFunction[] = []
  let shaders: PointShader[] = []
  let keys: string[] = []
  const close = (then: SpatialWork | null) => {
    runs.push({ keep, points, shaders, key: keys.join(' '), then })
    keep = whole
    points = []
    shaders = []
    keys = []
  }
  for (const call of calls) {
    const step = stepOf(call.kind) as unknown as StepDefinition<string, ParamSpecs>
    for (const work of step.work(call.params, context)) {
      if (work.shape === 'cut') keep = intersectRects(keep, work.keep)
      else if (work.shape === 'point') {
        points.push(work.apply)
        shaders.push(work.shader)
        keys.push(JSON.stringify(call))
      } else close(work)
    }
  }
  close(null)
  return { runs, keepsOpaque: !makesMatte(calls) }
}

/** Whether the chain can make an opaque picture see-through. */
export function makesMatte(calls: readonly StepCall[]): boolean {
  return calls.some((call) => (stepOf(call.kind) as unknown as StepDefinition<string, ParamSpecs>).makesMatte(call.params))
}

/** Whether the chain needs to know where the person is. */
export function needsPerson(calls: readonly StepCall[]): boolean {
  return calls.some((call) => call.kind === 'room' && call.params.effect !== 'asIs')
}
