// Whole random shows on the live executor against the exact reference: groups in groups, scenes in scenes, frames, blends, gradients.
import { beforeAll, expect, it } from 'vitest'
import { planFrame } from '../../core/plan/plan-frame.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { differenceOf } from '../../tests/support/pictures.ts'
import { PLAN_ALLOWED_SHARE, PLAN_LIMIT } from '../../tests/support/random-plans.ts'
import { picturesFor, SHOW_SEEDS, showCase } from '../../tests/support/random-shows.ts'
import type { SourceFrame } from '../executor.ts'
import { CpuExecutor } from './cpu-executor.ts'
import type { Heap } from './heap.ts'
import { Treatments } from './treatments.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

it.each(SHOW_SEEDS)('seed %i agrees with the reference, at its size and small', (seed) => {
  const one = showCase(seed)
  const treatments = new Treatments(heap)
  const executor = new CpuExecutor(treatments)
  for (const scale of [1, 0.37]) {
    const plan = planFrame(one.show, { scene: one.show.scenes[0]! }, 0, one.infos, { scale })
    const pictures = picturesFor(one, plan)
    const frames = new Map<string, SourceFrame>([...pictures].map(([id, picture]) => [id, { picture, version: 1, isLive: id === 'input:camera' }]))
    const exact = renderReference(plan, pictures).data.map((value) => value * 255)
    const { max, shareAbove } = differenceOf(executor.render(plan, frames).data, exact, PLAN_LIMIT)
    expect(shareAbove, `scale ${scale}, largest ${max}`).toBeLessThanOrEqual(PLAN_ALLOWED_SHARE)
  }
  executor.dispose()
  treatments.dispose()
})
