import { expect, it } from 'vitest'
import { Pacer } from './pacer.ts'

const unexpected = (error: unknown): never => {
  throw error
}

/** A clock that moves only when told. */
function fakeClock() {
  let now = 0
  let timers: { id: number; due: number; run: () => void }[] = []
  let nextId = 1
  return {
    clock: {
      now: () => now,
      setTimer: (run: () => void, delayMs: number) => {
        timers.push({ id: nextId, due: now + delayMs, run })
        return nextId++
      },
      clearTimer: (id: number) => {
        timers = timers.filter((timer) => timer.id !== id)
      },
    },
    /** Moves on, firing timers in order, each `lateMs` late. */
    advance(byMs: number, lateMs = 0) {
      const end = now + byMs
      for (;;) {
        const next = timers.filter((timer) => timer.due + lateMs <= end).sort((a, b) => a.due - b.due)[0]
        if (next === undefined) break
        timers = timers.filter((timer) => timer !== next)
        now = Math.max(now, next.due + lateMs)
        next.run()
      }
      now = end
    },
  }
}

it('keeps its rate on the clock, even when every timer is late', () => {
  const { clock, advance } = fakeClock()
  const ticks: number[] = []
  const pacer = new Pacer(clock, (now) => ticks.push(now), unexpected)
  pacer.start(30)
  advance(10_000, 3)
  expect(ticks.length).toBeGreaterThanOrEqual(299)
  expect(ticks.length).toBeLessThanOrEqual(302)
  expect(pacer.missedTicks).toBe(0)
})

it('follows a camera beat for beat: nothing lost, nothing doubled', () => {
  const { clock, advance } = fakeClock()
  let ticks = 0
  const pacer = new Pacer(clock, () => (ticks += 1), unexpected)
  pacer.start(30)
  advance(500)
  const before = ticks
  // A camera whose frames come up to 9 ms early or late.
  for (let frame = 0; frame < 300; frame += 1) {
    advance(1000 / 30 + (frame % 2 === 0 ? 9 : -9))
    pacer.beat()
  }
  expect(Math.abs(ticks - before - 300)).toBeLessThanOrEqual(2)
})

it('steps in when the camera falls silent, and lets it lead again', () => {
  const { clock, advance } = fakeClock()
  const ticks: number[] = []
  const pacer = new Pacer(clock, (now) => ticks.push(now), unexpected)
  pacer.start(30)
  for (let frame = 0; frame < 30; frame += 1) {
    advance(1000 / 30)
    pacer.beat()
  }
  const count = ticks.length
  advance(2000)
  expect(ticks.length - count).toBeGreaterThanOrEqual(56)
  const last = ticks.at(-1)!
  advance(25)
  pacer.beat()
  expect(ticks.at(-1)!).toBeGreaterThan(last)
})

it('counts frames that were due and never made', () => {
  const { clock, advance } = fakeClock()
  const pacer = new Pacer(clock, () => undefined, unexpected)
  pacer.start(30)
  advance(330, 99)
  expect(pacer.missedTicks).toBeGreaterThan(0)
  pacer.stop()
})

it('goes on after a throw in the middle of a frame, on the clock and on the beat, and tells of each', () => {
  const { clock, advance } = fakeClock()
  let ticks = 0
  const faults: string[] = []
  const pacer = new Pacer(
    clock,
    () => {
      ticks += 1
      if (ticks % 2 === 0) throw new Error(`frame ${ticks}`)
    },
    (error) => faults.push((error as Error).message),
  )
  pacer.start(30)
  advance(1000)
  expect(ticks).toBeGreaterThanOrEqual(29)
  expect(faults.length).toBe(Math.floor(ticks / 2))
  const before = ticks
  pacer.beat()
  advance(1000)
  expect(ticks).toBeGreaterThan(before + 15)
})

it('goes on even when telling of a fault fails', () => {
  const { clock, advance } = fakeClock()
  let ticks = 0
  const pacer = new Pacer(
    clock,
    () => {
      ticks += 1
      if (ticks === 2) throw new Error('a frame')
    },
    () => {
      throw new Error('the page is gone')
    },
  )
  pacer.start(30)
  expect(() => advance(1000)).toThrow('the page is gone')
  advance(1000)
  expect(ticks).toBeGreaterThan(25)
})

it('makes a frame at once when something is waited for, and never more than the clock or twice the camera would', () => {
  const { clock, advance } = fakeClock()
  const ticks: number[] = []
  const pacer = new Pacer(clock, (now) => ticks.push(now), unexpected)
  pacer.soon()
  expect(ticks).toEqual([])
  pacer.start(30)
  advance(990)
  const last = ticks.at(-1)!
  advance(last + 20 - clock.now())
  pacer.soon()
  expect(ticks.at(-1)).toBe(last + 20)
  // Without a camera an eager one gets no more frames than the clock gives.
  const before = ticks.length
  for (let i = 0; i < 1000; i += 1) {
    advance(1)
    pacer.soon()
  }
  expect(ticks.length - before).toBeLessThanOrEqual(31)
  // With one, its frames and one more between two of them.
  const counted = ticks.length
  for (let i = 0; i < 990; i += 1) {
    advance(1)
    if (i % 33 === 0) pacer.beat()
    pacer.soon()
  }
  expect(ticks.length - counted).toBeGreaterThanOrEqual(29)
  expect(ticks.length - counted).toBeLessThanOrEqual(62)
  expect(pacer.missedTicks).toBe(0)
})
