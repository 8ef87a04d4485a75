import { expect, it } from 'vitest'
import type { FramePlan, PlanNode } from '../../core/plan/frame-plan.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { SourceFrame } from '../executor.ts'
import { DrawnStamp } from './drawn-stamp.ts'

const picture = (): RgbaPicture => ({ format: 'rgba', widthPx: 1, heightPx: 1, data: new Uint8Array(4) })
const planOf = (...ids: string[]): FramePlan => ({
  nodes: ids.map((sourceId) => ({ kind: 'treated', sourceId }) as PlanNode),
  outputs: {},
  texts: [],
  outlines: [],
  missing: [],
  validUntilMs: Infinity,
})

it('tells a picture that would be the same from one that would not', () => {
  const stamp = new DrawnStamp()
  const plan = planOf('camera', 'wall', 'camera')
  const frames = new Map<string, SourceFrame>([['wall', { picture: picture(), version: 1, isLive: false }]])
  const isNew = (one = plan, treatment = 0) => stamp.isNew(one, frames, treatment)
  expect([isNew(), isNew()]).toEqual([true, false])
  const same = picture()
  frames.set('camera', { picture: same, version: 1, isLive: true })
  expect([isNew(), isNew()]).toEqual([true, false])
  // A camera writes into the same memory again.
  frames.set('camera', { picture: same, version: 2, isLive: true })
  expect([isNew(), isNew()]).toEqual([true, false])
  frames.set('camera', { picture: picture(), version: 2, isLive: true })
  expect([isNew(), isNew()]).toEqual([true, false])
  frames.set('other', { picture: picture(), version: 9, isLive: true })
  expect(isNew()).toBe(false)
  frames.delete('camera')
  expect([isNew(), isNew()]).toEqual([true, false])
  expect([isNew(plan, 1), isNew(plan, 1)]).toEqual([true, false])
  expect([isNew(planOf('wall'), 1), isNew(planOf('wall'), 1)]).toEqual([true, true])
  stamp.isNew(plan, frames, 1)
  stamp.forget()
  expect(isNew(plan, 1)).toBe(true)
})
