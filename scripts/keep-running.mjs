// Keeps a program running: one that ended unexpectedly is started again, aloud and within bounds.

/** Exit code of a program that says it cannot start as things are; starting it again would not help. */
export const CANNOT_START = 2

/**
 * Runs `start` until it ends on purpose, or too often. Resolves with the exit code to pass on.
 * @param {object} options
 * @param {() => Promise<{ code: number | null, signal: string | null }>} options.start starts once; resolves when it ended
 * @param {() => boolean} options.isStopping whether the end was asked for
 * @param {(text: string) => void} options.say tells the person at the terminal
 * @param {(delayMs: number) => Promise<void>} options.wait
 * @param {() => number} options.nowMs
 * @param {number} [options.most] starts within `withinMs` before it is left alone
 * @param {number} [options.withinMs]
 */
export async function keepRunning({ start, isStopping, say, wait, nowMs, most = 5, withinMs = 60_000 }) {
  const ends = []
  for (;;) {
    const { code, signal } = await start()
    if (isStopping() || code === 0) return 0
    if (code === CANNOT_START) return CANNOT_START
    const now = nowMs()
    ends.push(now)
    while (ends[0] < now - withinMs) ends.shift()
    const how = signal === null ? `with code ${code}` : `by ${signal}`
    if (ends.length >= most) {
      say(
        `The server ended ${how}, ${ends.length} times within ${withinMs / 1000} seconds. It is not started again. What it last said is above; edits are still in the studio's tab.`,
      )
      return code ?? 1
    }
    say(`The server ended unexpectedly, ${how}. Starting it again (${ends.length} of ${most - 1}); the studio's tab and the meeting go on by themselves.`)
    await wait(250 * 2 ** (ends.length - 1))
    if (isStopping()) return 0
  }
}
