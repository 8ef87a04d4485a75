import { describe, expect, it } from 'vitest'
import { versionsToDrop, type VersionStamp } from './thin-versions.ts'

const MINUTE = 60_000
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR
/** Noon of some day, so that spans of the calendar begin where they look as if they did. */
const NOW = Date.UTC(2026, 5, 15, 12)

/** A version every `everyMs` for `forMs` back from now; the newest has the highest revision. */
const saves = (everyMs: number, forMs: number): VersionStamp[] => {
  const count = Math.floor(forMs / everyMs)
  return Array.from({ length: count }, (_, i) => ({ revision: count - i, savedAtMs: NOW - i * everyMs }))
}
const kept = (versions: readonly VersionStamp[]) => {
  const dropped = new Set(versionsToDrop(versions, NOW))
  return versions.filter(({ revision }) => !dropped.has(revision))
}
const between = (versions: readonly VersionStamp[], fromMs: number, toMs: number) =>
  versions.filter(({ savedAtMs }) => NOW - savedAtMs >= fromMs && NOW - savedAtMs < toMs).length

describe('versions that are kept', () => {
  it('are all of ten minutes, one a minute of an hour, one an hour of a day, one a day of a month, and nothing older', () => {
    const left = kept(saves(20_000, 60 * DAY))
    expect(between(left, 0, 10 * MINUTE)).toBe(30)
    expect(between(left, 10 * MINUTE, HOUR)).toBeGreaterThanOrEqual(49)
    expect(between(left, 10 * MINUTE, HOUR)).toBeLessThanOrEqual(51)
    expect(between(left, HOUR, DAY)).toBeGreaterThanOrEqual(22)
    expect(between(left, HOUR, DAY)).toBeLessThanOrEqual(24)
    expect(between(left, DAY, 30 * DAY)).toBeGreaterThanOrEqual(28)
    expect(between(left, DAY, 30 * DAY)).toBeLessThanOrEqual(31)
    expect(between(left, 30 * DAY, 99 * DAY)).toBe(0)
  })

  it('are the same when they are thinned at every save as when it is done once', () => {
    let held: VersionStamp[] = []
    for (const next of saves(7 * MINUTE, 3 * DAY).reverse()) {
      held.push(next)
      const dropped = new Set(versionsToDrop(held, next.savedAtMs))
      held = held.filter(({ revision }) => !dropped.has(revision))
    }
    // The last of an hour is known only when it is over: thinned on the way, as many are left of each day.
    expect(between(held, HOUR, DAY)).toBeGreaterThanOrEqual(22)
    expect(between(held, DAY, 3 * DAY)).toBeGreaterThanOrEqual(2)
    expect(held.at(-1)!.savedAtMs).toBe(NOW)
  })

  it('are never none: the newest stays, however old', () => {
    expect(kept([{ revision: 4, savedAtMs: NOW - 400 * DAY }])).toHaveLength(1)
    expect(versionsToDrop([], NOW)).toEqual([])
  })

  it('are bounded whatever happens within ten minutes', () => {
    expect(kept(saves(10, 5 * MINUTE)).length).toBeLessThanOrEqual(1501)
  })
})
