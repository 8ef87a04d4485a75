// Whole random shows on the live executor against the exact reference: groups in groups, scenes in scenes, frames, blends, gradients, and one on the way
// to the next.
import { beforeAll, expect, it } from 'vitest'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { planFrame } from '../../core/stage/plan-frame.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { differenceOf } from '../../tests/support/pictures.ts'
import { PLAN_ALLOWED_SHARE, PLAN_LIMIT } from '../../tests/support/random-plans.ts'
import { MOVING_SEEDS, movingCase, picturesFor, SHOW_SEEDS, showCase, type ShowCase } from '../../tests/support/random-shows.ts'
import { drawnStage, withDrawings } from '../../tests/support/random-drawings.ts'
import type { Layer, Scene } from '../../core/show/show.ts'
import { goTo } from '../../core/stage/stage.ts'
import { usualTransitions, type Transition } from '../../core/transitions/index.ts'
import type { SourceFrame } from '../executor.ts'
import { CpuExecutor } from './cpu-executor.ts'
import type { Heap } from './heap.ts'
import { Treatments } from './treatments.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

it.each(SHOW_SEEDS)('seed %i agrees with the reference, drawn on, at its size and small', (seed) => {
  const one = withDrawings(showCase(seed), seed, -200)
  holdTo(
    one,
    [1, 0.37].map((scale) => planFrame(one.show, { scene: one.show.scenes[0]!, drawings: one.drawings }, 0, one.infos, { scale })),
  )
})

it.each(MOVING_SEEDS)('seed %i agrees with the reference on its way to another scene', (seed) => {
  const moving = movingCase(seed)
  const one = { ...moving, ...withDrawings(moving, seed, moving.timeMs - 300) }
  holdTo(
    one,
    [0, 33].map((laterMs) => planFrame(one.show, drawnStage(one.stage, one.drawings), one.timeMs + laterMs, one.infos)),
  )
})

it.each([301, 304, 308, 310, 312, 316])('seed %i agrees with the reference on every way to a scene that is nearly the same', (seed) => {
  const one = showCase(seed)
  const [first] = one.show.scenes as [Scene]
  const moved = (layer: Layer): Layer => ({ ...layer, placement: { ...layer.placement, x: layer.placement.x * 0.5 + 9 } })
  const second = { ...first, id: 'copy', layers: first.layers.map((layer, i) => (i > first.layers.length - 3 ? moved(layer) : layer)) }
  const ways: Transition[] = [...Object.values(usualTransitions), { ...usualTransitions.wipe, angleDeg: 180 }, { ...usualTransitions.push, side: 'top' }]
  for (const way of ways) {
    const stage = goTo({ scene: first }, second, { ...way, durationMs: 100 }, 0)
    holdTo(
      one,
      [20, 55, 90].map((timeMs) => planFrame(one.show, stage, timeMs, one.infos)),
    )
  }
})

/** Draws plans one after the other by one executor, each against the reference. */
function holdTo(one: ShowCase, plans: readonly FramePlan[]): void {
  const treatments = new Treatments(heap)
  const executor = new CpuExecutor(treatments)
  plans.forEach((plan, index) => {
    const pictures = picturesFor(one, plan)
    const frames = new Map<string, SourceFrame>([...pictures].map(([id, picture]) => [id, { picture, version: 1, isLive: id === 'input:camera' }]))
    const exact = renderReference(plan, pictures).data.map((value) => value * 255)
    const { max, shareAbove } = differenceOf(executor.render(plan, frames).data, exact, PLAN_LIMIT)
    expect(shareAbove, `plan ${index}, largest ${max}`).toBeLessThanOrEqual(PLAN_ALLOWED_SHARE)
  })
  executor.dispose()
  treatments.dispose()
}
