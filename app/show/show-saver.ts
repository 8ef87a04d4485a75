// Saves the newest state of one show, one request at a time. What was typed is always in one of three places: acknowledged by
// the server, kept in the browser, or, when the browser has no room, in this tab, which then says so.
import type { Show } from '../../core/show/show.ts'
import { ShowKeeper, type KeptStorage } from './kept-shows.ts'

export type SaveState =
  /** Everything typed is acknowledged. Never said otherwise. */
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  /** The server cannot be reached; the browser keeps what was typed. */
  | { readonly kind: 'offline' }
  /** The server cannot be reached and the browser has no room: only this tab has it. */
  | { readonly kind: 'unkept' }
  /** The show changed elsewhere: what was typed here is being filed as a copy. */
  | { readonly kind: 'filing' }
  | { readonly kind: 'refused'; readonly why: string }

/** A state that the server has acknowledged. */
export interface SavedState {
  readonly revision: number
  readonly show: Show
}

/** A show as the server has it. */
export interface StoredState extends SavedState {
  readonly saveId: string | null
}

/** What a failed call means. */
export type Verdict = 'offline' | 'stale' | { readonly refused: string }

export interface SaveHost {
  /** Saves on top of `base` and returns the new revision; `label` says what was changed. The same `saveId` is stored once, however often it is sent. */
  readonly put: (showId: string, base: SavedState, show: Show, saveId: string, label: string | null) => Promise<number>
  readonly get: (showId: string) => Promise<StoredState>
  /** Files a copy under an id. The same id makes one show, however often it is sent. */
  readonly fileCopy: (copyId: string, show: Show) => Promise<void>
  readonly judge: (error: unknown) => Verdict
  readonly storage: KeptStorage
  readonly makeId: () => string
  readonly nowMs: () => number
  readonly setTimer: (run: () => void, delayMs: number) => number
  readonly clearTimer: (timer: number) => void
}

export interface SaverEvents {
  readonly onState: (state: SaveState) => void
  /** A copy was filed, and the show as the server has it takes the place of what was typed. */
  readonly onReplaced: (stored: StoredState) => void
}

const GATHER_MS = 120
const RETRY_MS = 1500

interface Sending {
  readonly saveId: string
  readonly show: Show
  readonly label: string | null
}

export class ShowSaver {
  readonly #host: SaveHost
  readonly #events: SaverEvents
  readonly #showId: string
  readonly #keeper: ShowKeeper
  #base: SavedState
  /** Typed and not sent yet. */
  #pending: Show | null = null
  /** What the newest edit was called. */
  #label: string | null = null
  /** Sent, and not known to have arrived: it goes again, as it was, before anything newer. */
  #inDoubt: Sending | null = null
  /** The id of a copy of one state: another state is another copy, since the first may have been filed and its answer lost. */
  #copy: { readonly id: string; readonly show: Show } | null = null
  /** What the last copy was made of. */
  #filed: Show | null = null
  #isBusy = false
  #isStale = false
  #isKept = true
  #timer: number | null = null
  #state: SaveState = { kind: 'saved' }
  /** What else is done with once everything is acknowledged: entries of tabs that are gone. */
  #whenSaved: (() => void)[] = []
  #whenSettled: (() => void)[] = []

  constructor(host: SaveHost, showId: string, tabId: string, base: SavedState, events: SaverEvents) {
    this.#host = host
    this.#showId = showId
    this.#keeper = new ShowKeeper(host.storage, showId, tabId)
    this.#base = base
    this.#events = events
  }

  /** The last revision known to be the server's. */
  get revision(): number {
    return this.#base.revision
  }

  get state(): SaveState {
    return this.#state
  }

  /** The newest state that is not acknowledged; null when everything is. */
  get unsaved(): Show | null {
    return this.#pending ?? this.#inDoubt?.show ?? null
  }

  /** Whether the browser has what is unsaved, so that closing the tab would lose nothing. */
  get isKept(): boolean {
    return this.#isKept
  }

  /** Takes over a new state; it is sent within a moment, with what was changed. `whenSaved` runs once it is acknowledged. */
  push(show: Show, whenSaved: (() => void) | null = null, label: string | null = null): void {
    this.#pending = show
    this.#label = label
    if (whenSaved !== null) this.#whenSaved.push(whenSaved)
    this.#keep()
    if (!this.#isStale) this.#say({ kind: 'saving' })
    if (!this.#isBusy) this.#nextIn(GATHER_MS)
  }

  /** The page is going: gives back what the browser holds for the next edit. */
  release(): void {
    if (this.unsaved === null) this.#keeper.dropAnchor()
  }

  /** Sends now, for example because the connection is back. */
  flush(): void {
    if (this.unsaved !== null && !this.#isBusy) void this.#next()
  }

  /** Sends now; resolves when everything is acknowledged, or cannot be for the time being. */
  settle(): Promise<void> {
    if (this.unsaved === null) return Promise.resolve()
    return new Promise((resolve) => {
      this.#whenSettled.push(resolve)
      this.flush()
    })
  }

  /**
   * Learns what the server has. With nothing unsaved it is simply the base from now on; otherwise what was typed goes on top of
   * it if it builds on it, and is filed as a copy if not. Says whether the show to work on is now the stored one.
   */
  rebase(stored: StoredState): boolean {
    // Asked for before a save of this tab was stored, answered after it.
    if (stored.revision < this.#base.revision) return false
    if (this.unsaved === null) {
      this.#base = stored
      return true
    }
    if (this.#inDoubt !== null && this.#inDoubt.saveId === stored.saveId) {
      this.#base = { revision: stored.revision, show: this.#inDoubt.show }
      this.#inDoubt = null
      this.#keep()
      if (this.#pending === null) this.#done()
      return false
    }
    if (stored.revision !== this.#base.revision) {
      this.#isStale = true
      this.flush()
    }
    return false
  }

  async #next(): Promise<void> {
    this.#clearTimer()
    if (this.#isBusy || this.unsaved === null) return
    this.#isBusy = true
    try {
      if (this.#isStale) await this.#file()
      else await this.#send()
    } catch (error) {
      this.#failed(this.#host.judge(error))
    } finally {
      this.#isBusy = false
    }
    if (this.unsaved === null) return this.#done()
    // Typed meanwhile, or found stale: go on at once. A failure has set its own time.
    if (this.#timer === null && this.#state.kind !== 'refused') void this.#next()
  }

  async #send(): Promise<void> {
    this.#inDoubt ??= { saveId: this.#host.makeId(), show: this.#pending!, label: this.#label }
    if (this.#inDoubt.show === this.#pending) this.#pending = null
    this.#keep()
    const { show, saveId, label } = this.#inDoubt
    this.#base = { revision: await this.#host.put(this.#showId, this.#base, show, saveId, label), show }
    this.#inDoubt = null
    if (this.#pending !== null) this.#keep()
  }

  /** The show changed elsewhere: files what was typed here as a copy, then takes what the server has. */
  async #file(): Promise<void> {
    this.#say({ kind: 'filing' })
    const mine = this.unsaved!
    if (this.#filed !== mine) {
      await this.#host.fileCopy(this.#copyIdOf(mine), mine)
      this.#filed = mine
    }
    // Typed while the copy was made: that goes into a copy of its own.
    if (this.unsaved !== mine) return this.#keep()
    const stored = await this.#host.get(this.#showId)
    if (this.unsaved !== mine) return this.#keep()
    this.#isStale = false
    this.#pending = null
    this.#inDoubt = null
    this.#base = stored
    this.#events.onReplaced(stored)
  }

  #failed(verdict: Verdict): void {
    if (verdict === 'stale') {
      this.#isStale = true
    } else if (verdict === 'offline') {
      this.#say({ kind: this.#isKept ? 'offline' : 'unkept' })
      this.#nextIn(RETRY_MS)
      this.#tellSettled()
    } else {
      // Nothing was stored. The next edit may put it right.
      this.#pending ??= this.#inDoubt?.show ?? null
      this.#inDoubt = null
      this.#keep()
      this.#say({ kind: 'refused', why: verdict.refused })
      this.#tellSettled()
    }
  }

  #done(): void {
    this.#clearTimer()
    this.#keeper.forget()
    this.#isKept = true
    this.#say({ kind: 'saved' })
    for (const run of this.#whenSaved.splice(0)) run()
    this.#tellSettled()
  }

  #tellSettled(): void {
    for (const resolve of this.#whenSettled.splice(0)) resolve()
  }

  #say(state: SaveState): void {
    this.#state = state
    this.#events.onState(state)
  }

  #nextIn(delayMs: number): void {
    this.#clearTimer()
    this.#timer = this.#host.setTimer(() => void this.#next(), delayMs)
  }

  #clearTimer(): void {
    if (this.#timer !== null) this.#host.clearTimer(this.#timer)
    this.#timer = null
  }

  #copyIdOf(show: Show): string {
    if (this.#copy?.show !== show) this.#copy = { id: this.#host.makeId(), show }
    return this.#copy.id
  }

  #keep(): void {
    const show = this.unsaved
    if (show === null) return
    this.#isKept = this.#keeper.keep({
      baseRevision: this.#base.revision,
      show,
      saveId: this.#inDoubt?.saveId ?? null,
      copyId: this.#copyIdOf(show),
      keptAtMs: this.#host.nowMs(),
    })
  }
}
