import { describe, expect, it, vi } from 'vitest'
import { Watchdog } from './watchdog.ts'

function setUp() {
  const timers = new Map<number, () => void>()
  const onSilent = vi.fn()
  const dog = new Watchdog(
    {
      setInterval: (run) => (timers.set(timers.size + 1, run), timers.size),
      clearInterval: (timer) => void timers.delete(timer),
    },
    onSilent,
  )
  const look = (times: number) => {
    for (let i = 0; i < times; i += 1) [...timers.values()].forEach((run) => run())
  }
  return { dog, look, onSilent, timers }
}

describe('Watchdog', () => {
  it('notices an engine that signed and then falls silent, once', () => {
    const { dog, look, onSilent, timers } = setUp()
    dog.start()
    dog.note()
    look(2)
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
