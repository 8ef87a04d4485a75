// Shows that the browser keeps until the server has acknowledged them: one entry for each tab and show, so that no tab
// writes over what another typed.
import { liftShow } from '../../core/show/lift.ts'
import type { Show } from '../../core/show/show.ts'

/** A state of a show that was never acknowledged. */
export interface KeptShow {
  /** The revision that it builds on. */
  readonly baseRevision: number
  readonly show: Show
  /** The id of the save that is on its way or in doubt; null when none is. */
  readonly saveId: string | null
  /** The id of the copy that is made of it should the show have changed elsewhere. */
  readonly copyId: string
  readonly keptAtMs: number
}

/** An entry as found. */
export interface FoundShow {
  readonly key: string
  /** The tab that typed it. */
  readonly tabId: string
  readonly kept: KeptShow
}

export type KeptStorage = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>

const PREFIX = 'green-room:pending:'

function keyOf(showId: string, tabId: string): string {
  return `${PREFIX}${showId}:${tabId}`
}

/** Keeps a state; false when the browser has no room for it. An older state then stays. */
export function keepShow(storage: KeptStorage, showId: string, tabId: string, kept: KeptShow): boolean {
  try {
    storage.setItem(keyOf(showId, tabId), JSON.stringify(kept))
    return true
  } catch {
    return false
  }
}

/** Forgets what a tab kept of a show. */
export function forgetShow(storage: KeptStorage, showId: string, tabId: string): void {
  storage.removeItem(keyOf(showId, tabId))
}

/** What other tabs kept of a show, oldest first. An entry that cannot be read is left where it is. */
export function findKept(storage: KeptStorage, showId: string, ownTabId: string): FoundShow[] {
  const found: FoundShow[] = []
  for (let i = 0; i < storage.length; i += 1) {
    const key = storage.key(i)
    if (key === null || !key.startsWith(`${PREFIX}${showId}:`)) continue
    const tabId = key.slice(PREFIX.length + showId.length + 1)
    const kept = tabId === ownTabId ? null : readKept(storage.getItem(key))
    if (kept !== null) found.push({ key, tabId, kept })
  }
  return found.sort((first, second) => first.kept.keptAtMs - second.kept.keptAtMs)
}

function readKept(text: string | null): KeptShow | null {
  try {
    const value = JSON.parse(text ?? 'null') as KeptShow | null
    // It may have been kept by an earlier version.
    const isKept = value !== null && typeof value.baseRevision === 'number' && typeof value.copyId === 'string'
    return isKept ? { ...value, show: liftShow(value.show) as Show } : null
  } catch {
    return null
  }
}
