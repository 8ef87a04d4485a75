import { describe, expect, it } from 'vitest'
import { FeedPace } from './feed-pace.ts'
import { LoadBudget } from './load-budget.ts'
import { Pacer } from './pacer.ts'

interface Machine {
  /** What one of each takes, in ms. */
  readonly airMs: number
  readonly largeMs: number
  readonly smallMs: number
  /** A camera's rate; null without one. */
  readonly cameraFps?: number | null
  readonly seconds?: number
}

/** The engine's tick on a machine whose time is counted out: what it made a second, and the times of the feed's pictures. */
function runFeed({ airMs, largeMs, smallMs, cameraFps = null, seconds = 30 }: Machine) {
  let now = 0
  let timer: { due: number; run: () => void } | null = null
  const clock = {
    now: () => now,
    setTimer: (run: () => void, delayMs: number) => {
      timer = { due: now + delayMs, run }
      return 1
    },
    clearTimer: () => (timer = null),
  }
  const budget = new LoadBudget()
  const pace = new FeedPace()
  const times: number[] = []
  let large = 0
  let small = 0
  const pacer = new Pacer(
    clock,
    (atMs) => {
      budget.begin(atMs)
      const started = now
      now += airMs
      times.push(now)
      if (budget.takeLarge(atMs)) {
        now += largeMs
        large += 1
        if (budget.takeSmall(atMs)) {
          now += smallMs
          small += 1
        }
      }
      budget.spend(now - started)
      pace.note(atMs, pacer.fullPeriodMs)
      pacer.divide(pace.divider)
    },
    (error) => {
      throw error
    },
  )
  pacer.start(30)
  const endMs = seconds * 1000
  let frame = 1
  while (now < endMs) {
    const beatMs = cameraFps === null ? Infinity : (frame * 1000) / cameraFps
    const due = (timer as { due: number } | null)?.due ?? Infinity
    if (beatMs <= due) {
      now = Math.max(now, beatMs)
      frame += 1
      pacer.beat()
    } else {
      now = Math.max(now, due)
      const { run } = timer!
      timer = null
      run()
    }
  }
  const last = times.filter((time) => time > endMs - 4000)
  const gaps = last.slice(1).map((time, i) => time - last[i]!)
  return { air: times.length / seconds, large: large / seconds, small: small / seconds, gaps, missed: pacer.missedTicks }
}

describe('what gives way on a machine that is too slow', () => {
  it('nothing on one that is fast enough', () => {
    const { air, large, small } = runFeed({ airMs: 8, largeMs: 5, smallMs: 2 })
    expect(air).toBeGreaterThan(29.5)
    expect(large).toBeGreaterThan(29.5)
    expect(small).toBeGreaterThan(29.5)
  })

  it('small pictures first, then large ones, and the feed keeps its rate', () => {
    const tight = runFeed({ airMs: 14, largeMs: 12, smallMs: 6 })
    expect(tight.air).toBeGreaterThan(29)
    expect(tight.large).toBeGreaterThan(28)
    expect(tight.small).toBeLessThan(10)
    const tighter = runFeed({ airMs: 22, largeMs: 14, smallMs: 6 })
    expect(tighter.air).toBeGreaterThan(28)
    expect(tighter.large).toBeLessThan(12)
    expect(tighter.small).toBeLessThanOrEqual(1)
  })

  it('the presenter always sees something: a large picture twice a second and a small one every two', () => {
    const { large, small } = runFeed({ airMs: 60, largeMs: 40, smallMs: 10, seconds: 60 })
    expect(large).toBeGreaterThan(2)
    expect(small).toBeGreaterThan(0.4)
  })

  it.each([null, 30])('at last the feed goes at half its rate, evenly (camera: %s a second)', (cameraFps) => {
    const { air, gaps, missed } = runFeed({ airMs: 55, largeMs: 5, smallMs: 2, cameraFps, seconds: 60 })
    expect(air).toBeGreaterThan(14)
    expect(air).toBeLessThan(17)
    // Most pictures come after two periods of the full rate, to a frame of the camera.
    const even = gaps.filter((gap) => Math.abs(gap - 2000 / 30) < 12).length
    expect(even / gaps.length).toBeGreaterThan(0.85)
    // What the show asks for and doesn't get is counted as lost.
    expect(missed).toBeGreaterThan(60 * 12)
  })

  it('a camera that gives fewer pictures than the show asks for halves nothing', () => {
    for (const cameraFps of [15, 24, 25]) expect(runFeed({ airMs: 8, largeMs: 5, smallMs: 2, cameraFps }).air).toBeGreaterThan(cameraFps * 0.98)
  })
})

describe('the full rate is tried again', () => {
  /** Feeds the pace with pictures at a rate for some time. */
  function feed(pace: FeedPace, from: number, seconds: number, fps: () => number): number {
    let now = from
    while (now < from + seconds * 1000) {
      now += 1000 / fps()
      pace.note(now, 1000 / 30)
    }
    return now
  }

  it('when the machine is free again', () => {
    const pace = new FeedPace()
    let now = feed(pace, 0, 6, () => 16)
    expect(pace.divider).toBe(2)
    now = feed(pace, now, 12, () => 30 / pace.divider)
    expect(pace.divider).toBe(1)
    feed(pace, now, 60, () => 30)
    expect(pace.divider).toBe(1)
  })

  it('less and less often on one that stays too slow, and as at first in a new feed', () => {
    const pace = new FeedPace()
    let now = 0
    let halved = 0
    let tries = 0
    for (let second = 0; second < 600; second += 1) {
      const before = pace.divider
      now = feed(pace, now, 1, () => 15)
      if (before === 2 && pace.divider === 1) tries += 1
      halved += pace.divider === 2 ? 1 : 0
    }
    expect(tries).toBeGreaterThanOrEqual(4)
    expect(tries).toBeLessThanOrEqual(12)
    expect(halved).toBeGreaterThan(540)
    pace.reset()
    expect(pace.divider).toBe(1)
  })
})
