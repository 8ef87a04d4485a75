// Shows that the browser keeps until the server has acknowledged them: one entry for each tab and show, so that no tab
// writes over what another typed. A show is written whole once, as an anchor; then each edit writes what it changed.
import { patched, patchOf, type Patch } from '../../core/patch/patch.ts'
import { upgradeShow } from '../../core/show/migrations.ts'
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
  /** Where the show lies that its edits go on top of; null where it is in the entry. */
  readonly anchor: string | null
  readonly kept: KeptShow
}

export type KeptStorage = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>

const PREFIX = 'green-room:pending:'
const ANCHOR_PREFIX = 'green-room:anchor:'
/** Characters of a patch after which the show is written whole again. */
const LONGEST_PATCH = 50_000

/** An entry as it is stored. Earlier versions of the program stored the show itself. */
type Entry = Omit<KeptShow, 'show'> & ({ readonly show: Show } | { readonly anchor: string; readonly patch: Patch })

function keyOf(showId: string, tabId: string): string {
  return `${PREFIX}${showId}:${tabId}`
}

/** What one tab keeps of one show. */
export class ShowKeeper {
  readonly #storage: KeptStorage
  readonly #key: string
  readonly #anchorPrefix: string
  #anchor: { readonly key: string; readonly show: Show } | null = null
  #anchors = 0

  constructor(storage: KeptStorage, showId: string, tabId: string) {
    this.#storage = storage
    this.#key = keyOf(showId, tabId)
    this.#anchorPrefix = `${ANCHOR_PREFIX}${showId}:${tabId}:`
  }

  /** Keeps a state; false when the browser has no room for it. An older state then stays. */
  keep({ show, ...facts }: KeptShow): boolean {
    try {
      const patch = this.#anchor === null ? null : JSON.stringify(patchOf(this.#anchor.show, show))
      if (this.#anchor !== null && patch !== null && patch.length <= LONGEST_PATCH) {
        this.#write(facts, this.#anchor.key, patch)
        return true
      }
      // The new anchor stands beside the old one until the entry names it: at every moment one of them is whole.
      const before = this.#anchor
      this.#anchors += 1
      const key = `${this.#anchorPrefix}${this.#anchors}`
      this.#storage.setItem(key, JSON.stringify(show))
      this.#write(facts, key, '[]')
      this.#anchor = { key, show }
      if (before !== null) this.#storage.removeItem(before.key)
      return true
    } catch {
      return false
    }
  }

  /** Everything is acknowledged. The anchor stays for the next edit. */
  forget(): void {
    this.#storage.removeItem(this.#key)
  }

  /** Gives the room of the anchor back, unless an entry needs it. */
  dropAnchor(): void {
    if (this.#anchor === null || this.#storage.getItem(this.#key) !== null) return
    this.#storage.removeItem(this.#anchor.key)
    this.#anchor = null
  }

  #write(facts: Omit<KeptShow, 'show'>, anchor: string, patch: string): void {
    this.#storage.setItem(this.#key, `${JSON.stringify({ ...facts, anchor }).slice(0, -1)},"patch":${patch}}`)
  }
}

/** Forgets what a tab that is gone kept. */
export function forgetFound(storage: KeptStorage, { key, anchor }: FoundShow): void {
  storage.removeItem(key)
  if (anchor !== null) storage.removeItem(anchor)
}

/** Anchors that no entry names, with the tab that wrote each: what tabs that are gone left behind. */
export function looseAnchors(storage: KeptStorage): { readonly key: string; readonly tabId: string }[] {
  const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? '')
  return keys.flatMap((key) => {
    if (!key.startsWith(ANCHOR_PREFIX)) return []
    const [showId, tabId] = key.slice(ANCHOR_PREFIX.length).split(':')
    const entry = readEntry(storage.getItem(keyOf(showId ?? '', tabId ?? '')))
    return entry !== null && 'anchor' in entry && entry.anchor === key ? [] : [{ key, tabId: tabId ?? '' }]
  })
}

/** What other tabs kept of a show, oldest first. An entry that cannot be read is left where it is. */
export function findKept(storage: KeptStorage, showId: string, ownTabId: string): FoundShow[] {
  const found: FoundShow[] = []
  for (let i = 0; i < storage.length; i += 1) {
    const key = storage.key(i)
    if (key === null || !key.startsWith(`${PREFIX}${showId}:`)) continue
    const tabId = key.slice(PREFIX.length + showId.length + 1)
    const entry = tabId === ownTabId ? null : readEntry(storage.getItem(key))
    const kept = entry === null ? null : keptBy(storage, entry)
    if (entry !== null && kept !== null) found.push({ key, tabId, anchor: 'anchor' in entry ? entry.anchor : null, kept })
  }
  return found.sort((first, second) => first.kept.keptAtMs - second.kept.keptAtMs)
}

function readEntry(text: string | null): Entry | null {
  try {
    const value = JSON.parse(text ?? 'null') as Entry | null
    return value !== null && typeof value.baseRevision === 'number' && typeof value.copyId === 'string' ? value : null
  } catch {
    return null
  }
}

/** The show of an entry; it may have been kept by an earlier version. Null where it cannot be made of what is there. */
function keptBy(storage: KeptStorage, entry: Entry): KeptShow | null {
  const { baseRevision, saveId, copyId, keptAtMs } = entry
  try {
    const stored: unknown = 'anchor' in entry ? patched(JSON.parse(storage.getItem(entry.anchor) ?? 'null') as unknown, entry.patch) : entry.show
    return stored === null ? null : { baseRevision, saveId, copyId, keptAtMs, show: upgradeShow(stored) as Show }
  } catch {
    return null
  }
}
