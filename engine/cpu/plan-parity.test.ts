// Whole random plans on the live executor against the exact reference.
import { beforeAll, describe, expect, it } from 'vitest'
import { renderOutputs } from '../../core/render/render-reference.ts'
import { followedBy, translation } from '../../core/composite/affine.ts'
import type { StackNode } from '../../core/plan/frame-plan.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { differenceOf } from '../../tests/support/pictures.ts'
import { withItems } from '../../tests/support/plans.ts'
import { PLAN_ALLOWED_SHARE, PLAN_LIMIT, PLAN_SEEDS, planCase, type PlanCase } from '../../tests/support/random-plans.ts'
import type { SourceFrame } from '../executor.ts'
import { CpuExecutor } from './cpu-executor.ts'
import type { Heap } from './heap.ts'
import { Treatments } from './treatments.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

const framesOf = ({ pictures, live }: PlanCase, version = 1) =>
  new Map<string, SourceFrame>([...pictures].map(([id, picture]) => [id, { picture, version: live.has(id) ? version : 1, isLive: live.has(id) }]))

describe('random plans', () => {
  it.each(PLAN_SEEDS)('seed %i agrees with the reference, frame after frame, with its sources live and still', (seed) => {
    const used = heap.usedBytes
    const one = planCase(seed)
    const treatments = new Treatments(heap)
    const executor = new CpuExecutor(treatments)
    const exact = renderOutputs(one.plan, one.pictures)
      .get('picture')!
      .data.map((value) => value * 255)
    const first = Uint8Array.from(executor.render(one.plan, framesOf(one)).data)
    const result = differenceOf(first, exact, PLAN_LIMIT)
    expect(result.shareAbove, `largest ${result.max}`).toBeLessThanOrEqual(PLAN_ALLOWED_SHARE)
    for (const version of [2, 3]) expect(differenceOf(first, executor.render(one.plan, framesOf(one, version)).data, 0).max, 'another frame').toBe(0)
    // An equal plan that is another object, and then everything held.
    expect(differenceOf(first, executor.render(structuredClone(one.plan), framesOf(one, 4)).data, 0).max, 'an equal plan').toBe(0)
    const held = executor.render(one.plan, framesOf({ ...one, live: new Set() })).data
    expect(differenceOf(held, exact, PLAN_LIMIT).shareAbove, 'all held').toBeLessThanOrEqual(PLAN_ALLOWED_SHARE)
    executor.dispose()
    treatments.dispose()
    expect(heap.usedBytes).toBe(used)
  })

  it.each(PLAN_SEEDS.slice(0, 12))('seed %i: two outputs are the pictures of two single plans', (seed) => {
    const both = planCase(seed, { withSecond: true })
    const treatments = new Treatments(heap)
    const executor = new CpuExecutor(treatments)
    const together = new Map([...executor.renderOutputs(both.plan, framesOf(both))].map(([id, { data }]) => [id, Uint8Array.from(data)]))
    for (const [id, index] of Object.entries(both.plan.outputs)) {
      const ownTreatments = new Treatments(heap)
      const single = new CpuExecutor(ownTreatments)
      const alone = single.render({ ...both.plan, outputs: { [id]: index } }, framesOf(both)).data
      // A picture that is kept for both is sampled where one that is drawn once is treated on the way: a code apart at most.
      expect(differenceOf(alone, together.get(id)!, 1).shareAbove, id).toBeLessThanOrEqual(0.002)
      single.dispose()
      ownTreatments.dispose()
    }
    executor.dispose()
    treatments.dispose()
  })
})

it.each(PLAN_SEEDS)('seed %i: what was evicted between two frames is made anew, whatever its memory holds since', (seed) => {
  const one = planCase(seed)
  const treatments = new Treatments(heap)
  const executor = new CpuExecutor(treatments)
  const first = Uint8Array.from(executor.render(one.plan, framesOf(one, 1)).data)
  executor.render(one.plan, framesOf(one, 2))
  const { surfaces } = treatments
  surfaces.beginFrame()
  while (surfaces.evictOldest());
  const litter = Array.from({ length: 40 }, () => heap.allocate(40_000))
  for (const { at, byteLength } of litter) heap.bytes.fill(123, at, at + byteLength)
  for (const block of litter) heap.free(block)
  expect(differenceOf(first, executor.render(one.plan, framesOf(one, 3)).data, 0).max).toBe(0)
  executor.dispose()
  treatments.dispose()
})

it('an item that moves from frame to frame leaves nothing behind, in the picture or in memory', () => {
  const one = planCase(104)
  const treatments = new Treatments(heap)
  const executor = new CpuExecutor(treatments)
  const root = one.plan.nodes[one.plan.outputs['picture']!] as StackNode
  const movedBy = (dx: number) =>
    withItems(one.plan, 'black', (items) =>
      items.map((item, i) =>
        i !== 2
          ? item
          : { ...item, toCoverage: followedBy(translation(-dx, 0), item.toCoverage), bounds: { left: 0, top: 0, right: root.widthPx, bottom: root.heightPx } },
      ),
    )
  let used = 0
  for (let frame = 0; frame < 400; frame += 1) {
    const plan = movedBy((frame % 40) / 4)
    const live = executor.render(plan, framesOf(one, frame + 1)).data
    if (frame === 120) used = heap.usedBytes
    if (frame % 57 !== 0) continue
    const exact = renderOutputs(plan, one.pictures)
      .get('picture')!
      .data.map((value) => value * 255)
    expect(differenceOf(live, exact, PLAN_LIMIT).shareAbove, `frame ${frame}`).toBeLessThanOrEqual(PLAN_ALLOWED_SHARE)
  }
  expect(heap.usedBytes).toBe(used)
  // At rest, everything is flattened again.
  const resting = movedBy(3)
  const first = Uint8Array.from(executor.render(resting, framesOf(one, 500)).data)
  expect(differenceOf(first, executor.render(resting, framesOf(one, 501)).data, 1).shareAbove).toBe(0)
  executor.dispose()
  treatments.dispose()
})

it.each(PLAN_SEEDS)('seed %i: what is culled does not show', (seed) => {
  const [culled, all] = [true, false].map((culls) => planCase(seed, { culls }))
  const [first, second] = [culled!, all!].map((one) => renderOutputs(one.plan, one.pictures).get('picture')!.data)
  let most = 0
  first!.forEach((value, i) => (most = Math.max(most, Math.abs(value - second![i]!))))
  expect(most).toBeLessThan(1e-9)
})
