// Which versions of a show are kept: all of the last minutes, then ever fewer, so that last week can be had back as well as a moment ago.

export interface VersionStamp {
  readonly revision: number
  readonly savedAtMs: number
}

const MINUTE = 60_000
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR

/** Up to an age, one for each span; span 0 keeps all. What is older goes. */
const RULES = [
  { upToMs: 10 * MINUTE, spanMs: 0 },
  { upToMs: HOUR, spanMs: MINUTE },
  { upToMs: DAY, spanMs: HOUR },
  { upToMs: 30 * DAY, spanMs: DAY },
] as const

/** Whatever happens in ten minutes: more saves than a person makes. */
const MOST_VERSIONS = 1500

/**
 * Revisions that may go at `nowMs`. Of each span of the calendar the last version stays, since that is how the span was left; the newest of all
 * stays however old it is.
 */
export function versionsToDrop(versions: readonly VersionStamp[], nowMs: number): number[] {
  const newestFirst = [...versions].sort((first, second) => second.revision - first.revision)
  const taken = new Set<string>()
  const dropped: number[] = []
  newestFirst.forEach(({ revision, savedAtMs }, index) => {
    if (index === 0) return
    const rule = RULES.find(({ upToMs }) => nowMs - savedAtMs < upToMs)
    const span = rule === undefined ? null : rule.spanMs === 0 ? `${revision}` : `${rule.spanMs} ${Math.floor(savedAtMs / rule.spanMs)}`
    if (span === null || taken.has(span) || taken.size >= MOST_VERSIONS) dropped.push(revision)
    else taken.add(span)
  })
  return dropped
}
