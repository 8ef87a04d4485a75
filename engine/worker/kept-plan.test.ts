import { describe, expect, it } from 'vitest'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import type { Show } from '../../core/show/show.ts'
import { KeptPlan } from './kept-plan.ts'

const plan = (validUntilMs = Infinity): FramePlan => ({ nodes: [], outputs: {}, texts: [], outlines: [], missing: [], validUntilMs })
const show = (name: string) => ({ name }) as Show

describe('KeptPlan', () => {
  it('stands while what it reads stays, is made anew when that changes, when its time is over, and when it is dropped', () => {
    const kept = new KeptPlan()
    let made = 0
    let asked = 0
    const part = { value: 1 }
    const of = (one: Show, nowMs: number, parts: readonly unknown[], subject: unknown = 'scene') => {
      const make = () => ((made += 1), plan(100))
      kept.of(one, subject, nowMs, () => ((asked += 1), parts), make)
      return made
    }
    const [first, second] = [show('first'), show('second')]
    expect(of(first, 0, [part])).toBe(1)
    expect(of(first, 99, [part])).toBe(1)
    expect(asked, 'parts are asked for after an edit only').toBe(1)
    expect(of(second, 99, [part])).toBe(1)
    expect(of(second, 100, [part]), 'its time is over').toBe(2)
    expect(of(first, 100, [{ value: 1 }])).toBe(3)
    expect(of(first, 0, [part], 'another scene')).toBe(4)
    kept.drop()
    expect(kept.last).toBeNull()
    expect(of(first, 0, [part], 'another scene')).toBe(5)
  })

  it('asks again, each time, for what cannot be planned yet', () => {
    const kept = new KeptPlan()
    const one = show('one')
    expect(kept.of(one, 0, 0, () => [], () => null)).toBeNull() // prettier-ignore
    expect(kept.of(one, 0, 0, () => [], () => plan())).not.toBeNull() // prettier-ignore
  })
})
