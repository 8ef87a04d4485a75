import { readFileSync } from 'node:fs'

/** Ticks of all processors since start: all of them, and those that a host gave to other machines. */
function readTicks(): { total: number; stolen: number } | null {
  try {
    const [first] = readFileSync('/proc/stat', 'utf8').split('\n')
    const ticks = first!.trim().split(/\s+/).slice(1, 9).map(Number)
    return { total: ticks.reduce((sum, value) => sum + value, 0), stolen: ticks[7] ?? 0 }
  } catch {
    // Not Linux: nothing is known about it.
    return null
  }
}

/** Starts measuring; the returned function gives the share (0..1) of time that was not ours, or null if unknown. */
export function watchSteal(): () => number | null {
  const before = readTicks()
  return () => {
    const after = readTicks()
    if (before === null || after === null) return null
    return (after.stolen - before.stolen) / Math.max(1, after.total - before.total)
  }
}
