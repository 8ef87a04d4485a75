// Which plan is shown when: edits, words that are still being drawn, clocks.
import { beforeEach, describe, expect, it } from 'vitest'
import type { FramePlan, TextJob } from '../../core/plan/frame-plan.ts'
import type { Show } from '../../core/show/show.ts'
import type { RasterPlan } from '../raster/raster-book.ts'
import { URGENCY } from '../raster/raster.ts'
import { KeptPlan, RASTER_PATIENCE_MS } from './kept-plan.ts'

const plan = (words: string[] = [], validUntilMs = Infinity): FramePlan => ({
  nodes: [],
  outputs: {},
  texts: words.map((word) => ({ sourceId: word }) as TextJob),
  outlines: [],
  missing: [],
  validUntilMs,
})
const wordsOf = ({ texts }: RasterPlan) => texts.map(({ sourceId }) => sourceId)
const show = (name: string) => ({ name }) as Show

let there: Set<string>
let asked: string[]
let stoodIn: string[]
let kept: KeptPlan<string>
beforeEach(() => {
  there = new Set()
  asked = []
  stoodIn = []
  const rasters = {
    ask: (one: RasterPlan) => void asked.push(...wordsOf(one).filter((word) => !there.has(word))),
    hasAll: (one: RasterPlan) => wordsOf(one).every((word) => there.has(word)),
    standIn: (one: RasterPlan) => void stoodIn.push(...wordsOf(one)),
  }
  kept = new KeptPlan(rasters, URGENCY.stage)
})

/** What is shown: the words of the plan, and its subject where it is not the one that was asked for. */
function see(one: Show, nowMs: number, parts: readonly unknown[], make: (timeMs: number) => FramePlan | null, subject = 'scene'): string | null {
  const shown = kept.of(one, { subject, partsOf: () => parts, make }, nowMs)
  if (shown === null) return null
  return `${shown.subject === subject ? '' : `${shown.subject}: `}${wordsOf(shown.plan).join(' ')}`
}

describe('KeptPlan', () => {
  it('stands while what it reads stays, and is made anew when that changes, when its time is over, and when a source changed', () => {
    let made = 0
    const make = () => ((made += 1), plan([], 10_000))
    const part = { value: 1 }
    const [first, second] = [show('first'), show('second')]
    const madeAfter = (one: Show, nowMs: number, parts: readonly unknown[], subject = 'scene') => (see(one, nowMs, parts, make, subject), made)
    expect(madeAfter(first, 0, [part])).toBe(1)
    expect(madeAfter(first, 99, [part])).toBe(1)
    expect(madeAfter(second, 99, [part])).toBe(1)
    expect(madeAfter(second, 10_000, [part]), 'its time is over').toBe(2)
    expect(madeAfter(first, 50, [{ value: 1 }]), 'an edit').toBe(3)
    expect(madeAfter(first, 50, [part], 'another scene')).toBe(4)
    kept.invalidate()
    expect(madeAfter(first, 50, [part], 'another scene')).toBe(5)
    expect(madeAfter(first, 50, [part], 'a third that reads the same'), 'two scenes without layers').toBe(6)
  })

  it('asks again, each time, for what cannot be planned yet', () => {
    const one = show('one')
    expect(see(one, 0, [], () => null)).toBeNull()
    expect(see(one, 0, [], () => plan())).toBe('')
  })

  it('stays until the words of the next are drawn; what is edited meanwhile comes after it', () => {
    there.add('Hello')
    expect(see(show('1'), 0, [1], () => plan(['Hello']))).toBe('Hello')
    const edited = show('2')
    expect(see(edited, 33, [2], () => plan(['Hello!']))).toBe('Hello')
    const again = show('3')
    expect(see(again, 66, [3], () => plan(['Hello!!']))).toBe('Hello')
    expect(asked, 'one at a time').toEqual(['Hello!'])
    there.add('Hello!')
    expect(see(again, 99, [3], () => plan(['Hello!!']))).toBe('Hello!')
    there.add('Hello!!')
    expect(see(again, 132, [3], () => plan(['Hello!!']))).toBe('Hello!!')
    expect(asked).toEqual(['Hello!', 'Hello!!'])
    expect(stoodIn).toEqual([])
  })

  it('waits only so long; then something holds their places', () => {
    expect(see(show('1'), 0, [], () => plan(['late']))).toBeNull()
    const one = show('1')
    expect(see(one, 0, [1], () => plan(['late']))).toBeNull()
    expect(see(one, RASTER_PATIENCE_MS - 1, [1], () => plan(['late']))).toBeNull()
    expect(see(one, RASTER_PATIENCE_MS, [1], () => plan(['late']))).toBe('late')
    expect(stoodIn).toEqual(['late'])
  })

  it('of another scene is not waited for when a third is wanted', () => {
    const one = show('1')
    expect(see(one, 0, ['a'], () => plan(), 'first')).toBe('')
    expect(see(one, 33, ['b'], () => plan(['slow']), 'second')).toBe('first: ')
    expect(see(one, 66, ['c'], () => plan([]), 'third')).toBe('')
  })

  it('goes on moving while letters come one by one, one picture late', () => {
    const one = show('1')
    const typed = (timeMs: number) => plan(['abcdef'.slice(0, timeMs / 33)], timeMs)
    const seen: (string | null)[] = []
    for (let tick = 1; tick <= 5; tick += 1) {
      seen.push(see(one, tick * 33, [], typed))
      for (const word of asked) there.add(word)
    }
    expect(seen).toEqual([null, 'a', 'ab', 'abc', 'abcd'])
  })

  it('of a clock has its next words drawn before they are due, once', () => {
    const one = show('1')
    const clock = (timeMs: number) => plan([`second ${Math.floor(timeMs / 1000)}`], (Math.floor(timeMs / 1000) + 1) * 1000)
    there.add('second 0')
    for (let timeMs = 0; timeMs < 1000; timeMs += 33) see(one, timeMs, [], clock)
    expect(asked).toEqual(['second 1'])
    there.add('second 1')
    expect(see(one, 1001, [], clock)).toBe('second 1')
    expect(asked).toEqual(['second 1'])
  })

  it('that was let go of, because many others came, is asked for again and shown meanwhile', () => {
    const one = show('1')
    there.add('title')
    see(one, 0, [], () => plan(['title']))
    there.delete('title')
    expect(see(one, 33, [], () => plan(['title']))).toBe('title')
    expect(asked).toEqual(['title'])
  })
})
