import { describe, expect, it, vi } from 'vitest'
import { Watchdog } from './watchdog.ts'

function setUp(lookMs = 700) {
  let nowMs = 0
  const timers = new Map<number, () => void>()
  const onSilent = vi.fn()
  const dog = new Watchdog(
    {
      setInterval: (run) => (timers.set(timers.size + 1, run), timers.size),
      clearInterval: (timer) => void timers.delete(timer),
      nowMs: () => nowMs,
    },
    onSilent,
  )
  const look = (times: number) => {
    for (let i = 0; i < times; i += 1) {
      nowMs += lookMs
      for (const run of [...timers.values()]) run()
    }
  }
  return { dog, look, onSilent, timers }
}

describe('Watchdog', () => {
  it('notices an engine that signed and then falls silent, once', () => {
    const { dog, look, onSilent, timers } = setUp()
    dog.start()
    dog.note()
    // Four busy loops beside it: silent for nine seconds, and alive.
    look(13)
    expect(onSilent).not.toHaveBeenCalled()
    look(5)
    expect(onSilent).toHaveBeenCalledTimes(1)
    expect(timers.size).toBe(0)
  })

  it('is content while signs come', () => {
    const { dog, look, onSilent } = setUp()
    dog.start()
    for (let i = 0; i < 50; i += 1) {
      look(2)
      dog.note()
    }
    expect(onSilent).not.toHaveBeenCalled()
  })

  it('waits longer while the whole page is late, and notices in the end', () => {
    const { dog, look, onSilent } = setUp(2000)
    dog.start()
    dog.note()
    look(40)
    expect(onSilent).not.toHaveBeenCalled()
    look(5)
    expect(onSilent).toHaveBeenCalledTimes(1)
  })

  it('gives an engine that starts more time, but not for ever', () => {
    const { dog, look, onSilent } = setUp()
    dog.start()
    look(29)
    expect(onSilent).not.toHaveBeenCalled()
    look(1)
    expect(onSilent).toHaveBeenCalledTimes(1)
  })

  it('has one timer, however often it starts', () => {
    const { dog, timers } = setUp()
    dog.start()
    dog.start()
    expect(timers.size).toBe(1)
    dog.stop()
    expect(timers.size).toBe(0)
  })
})
