/** As many treated pictures as a show can have on the stage: with fewer, one more than that would make all of them anew in each frame. */
export const PICTURES_KEPT = 160
export const CHAINS_KEPT = 160
export const UPLOADS_KEPT = 96
/** What nobody asked for this long goes when something new comes. */
const UNUSED_MS = 10_000

/** Options of an LRU cache whose entries stay only while they are used. */
export const WHILE_USED = { ttl: UNUSED_MS, updateAgeOnGet: true, ttlResolution: 0, perf: { now: () => performance.now() } } as const
