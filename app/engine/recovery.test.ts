import { expect, it } from 'vitest'
import { Recovery } from './recovery.ts'

function setUp() {
  const log: string[] = []
  const timers = new Map<number, { run: () => void; delayMs: number }>()
  let nowMs = 0
  const recovery = new Recovery(
    {
      nowMs: () => nowMs,
      setTimer: (run, delayMs) => {
        timers.set(timers.size + 1, { run, delayMs })
        return timers.size
      },
      clearTimer: (timer) => void timers.delete(timer),
    },
    () => log.push('restart'),
    (reason) => log.push(reason),
  )
  return { recovery, log, timers, wait: (ms: number) => (nowMs += ms) }
}

it('mends the first failure at once and without a word', () => {
  const { recovery, log, timers } = setUp()
  recovery.failed('it died')
  expect([log, timers.size]).toEqual([['restart'], 0])
})

it('waits longer and longer for an engine that keeps failing, up to a minute, and says why', () => {
  const { recovery, log, timers, wait } = setUp()
  const delays = Array.from({ length: 8 }, () => {
    recovery.failed('no memory')
    const delay = [...timers.values()].at(-1)?.delayMs ?? 0
    wait(delay + 1)
    timers.clear()
    return delay
  })
  expect(delays).toEqual([0, 2000, 4000, 8000, 16_000, 32_000, 60_000, 60_000])
  expect(log).toEqual(['restart', ...Array.from({ length: 7 }, () => 'no memory')])
})

it('takes an engine that ran for a while for a healthy one', () => {
  const { recovery, log, wait } = setUp()
  recovery.failed('it died')
  wait(10_001)
  recovery.failed('it died')
  expect(log).toEqual(['restart', 'restart'])
})

it('holds one timer at a time, and none when somebody starts the engine by hand', () => {
  const { recovery, timers } = setUp()
  recovery.failed('a')
  recovery.failed('b')
  recovery.failed('c')
  expect(timers.size).toBe(1)
  recovery.cancel()
  expect(timers.size).toBe(0)
})
