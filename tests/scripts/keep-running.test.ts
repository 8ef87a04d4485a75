// Real child processes, time of our own.
import { spawn } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { CANNOT_START, keepRunning } from '../../scripts/keep-running.mjs'

function setUp(programs: readonly string[]) {
  let nowMs = 0
  const said: string[] = []
  let starts = 0
  let isStopping = false
  const start = () =>
    new Promise<{ code: number | null; signal: string | null }>((resolve) => {
      const child = spawn(process.execPath, ['-e', programs[Math.min(starts, programs.length - 1)]!], { stdio: 'ignore' })
      starts += 1
      child.once('exit', (code, signal) => resolve({ code, signal }))
    })
  const run = () =>
    keepRunning({
      start,
      isStopping: () => isStopping,
      say: (text: string) => void said.push(text),
      wait: async (delayMs: number) => void (nowMs += delayMs),
      nowMs: () => nowMs,
    })
  return { run, said, starts: () => starts, stop: () => (isStopping = true), pass: (ms: number) => (nowMs += ms) }
}

describe('keepRunning', () => {
  it('starts a server that was killed again and says so', async () => {
    const { run, said, starts } = setUp(['process.kill(process.pid, "SIGKILL")', 'throw new Error("x")', 'process.exit(0)'])
    expect(await run()).toBe(0)
    expect(starts()).toBe(3)
    expect(said).toEqual([
      expect.stringContaining('by SIGKILL. Starting it again (1 of 4)'),
      expect.stringContaining('with code 1. Starting it again (2 of 4)'),
    ])
  })

  it('leaves one that ends five times within a minute alone, with words', async () => {
    const { run, said, starts } = setUp(['process.exit(7)'])
    expect(await run()).toBe(7)
    expect(starts()).toBe(5)
    expect(said.at(-1)).toContain('5 times within 60 seconds. It is not started again')
  })

  it('does not try what cannot start', async () => {
    const { run, said, starts } = setUp([`process.exit(${CANNOT_START})`])
    expect(await run()).toBe(CANNOT_START)
    expect([starts(), said]).toEqual([1, []])
  })

  it('stays down when it was asked to stop', async () => {
    const { run, starts, stop } = setUp(['process.exit(1)'])
    stop()
    expect(await run()).toBe(0)
    expect(starts()).toBe(1)
  })
})
