// Stored shows carry a version. Each entry lifts a stored by one version; they run in turn.
import { showSchema } from './schema.ts'
import type { Show } from './show.ts'

type Loose = Record<string, unknown>

/** Lifts a stored from the version it is filed under to the next. */
export const migrations: Readonly<Record<number, (stored: Loose) => Loose>> = {
  // Version 0 was the sketch before the first release: one background colour, no holding card.
  0: (stored) => ({
    ...stored,
    version: 1,
    holdingCard: stored['holdingCard'] ?? { title: 'Back in a moment', detail: '' },
  }),
}

export const CURRENT_VERSION = 1

/** A checked show of any stored version. Throws a ZodError, or a RangeError for a version from the future. */
export function readShow(stored: unknown): Show {
  let current = stored as Loose
  if (typeof current === 'object' && current !== null && typeof current['version'] === 'number') {
    if (current['version'] > CURRENT_VERSION) {
      throw new RangeError(`version must be at most ${CURRENT_VERSION}, got ${current['version']}: this show was saved by a newer Green Room`)
    }
    while ((current['version'] as number) < CURRENT_VERSION) {
      const lift = migrations[current['version'] as number]
      if (lift === undefined) throw new RangeError(`version ${String(current['version'])} of a show is not known`)
      current = lift(current)
    }
  }
  return showSchema.parse(current)
}
