// Saves the newest state of a show, one request at a time. Until the server has acknowledged it, the
// state also lies in the browser's storage, so that neither a dead server nor a closed tab loses it.
import type { Show } from '../../core/show/show.ts'

export type SaveState = { readonly kind: 'saved' | 'saving' | 'offline' | 'stale' } | { readonly kind: 'refused'; readonly why: string }

export interface SaveHost {
  /** Saves and returns the new revision. */
  readonly put: (showId: string, baseRevision: number, show: Show) => Promise<number>
  /** What a failure of `put` means. */
  readonly judge: (error: unknown) => 'offline' | 'stale' | { readonly refused: string }
  readonly storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>
  readonly setTimer: (run: () => void, delayMs: number) => number
  readonly clearTimer: (timer: number) => void
}

/** A state that was never acknowledged, as found in storage. */
export interface PendingShow {
  readonly baseRevision: number
  readonly show: Show
}

const GATHER_MS = 120
const RETRY_MS = 1500

export class SaveQueue {
  readonly #host: SaveHost
  readonly #showId: string
  readonly #onState: (state: SaveState) => void
  #revision: number
  #pending: Show | null = null
  #isBusy = false
  #timer: number | null = null
  #isClosed = false

  constructor(host: SaveHost, showId: string, revision: number, onState: (state: SaveState) => void) {
    this.#host = host
    this.#showId = showId
    this.#revision = revision
    this.#onState = onState
  }

  /** The last revision the server acknowledged. */
  get revision(): number {
    return this.#revision
  }

  /** Whether anything waits to be acknowledged. */
  get hasPending(): boolean {
    return this.#pending !== null || this.#isBusy
  }

  /** Takes over a new state; it is sent within a moment. */
  push(show: Show): void {
    this.#pending = show
    this.#keep(show)
    this.#onState({ kind: 'saving' })
    if (!this.#isBusy) this.#sendIn(GATHER_MS)
  }

  /** Sends now, for example because the connection is back. */
  flush(): void {
    if (this.#pending !== null && !this.#isBusy) void this.#send()
  }

  /** Saves the newest state over whatever is stored, after `revision` was loaded. */
  overwrite(revision: number, show: Show): void {
    this.#revision = revision
    this.push(show)
  }

  close(): void {
    this.#isClosed = true
    if (this.#timer !== null) this.#host.clearTimer(this.#timer)
  }

  async #send(): Promise<void> {
    if (this.#timer !== null) this.#host.clearTimer(this.#timer)
    this.#timer = null
    const show = this.#pending
    if (show === null || this.#isClosed) return
    this.#isBusy = true
    this.#pending = null
    try {
      this.#revision = await this.#host.put(this.#showId, this.#revision, show)
      this.#isBusy = false
      if (this.#pending === null) {
        this.#host.storage.removeItem(pendingKey(this.#showId))
        this.#onState({ kind: 'saved' })
      } else {
        this.#keep(this.#pending)
        void this.#send()
      }
    } catch (error) {
      this.#isBusy = false
      this.#pending ??= show
      this.#failed(this.#host.judge(error))
    }
  }

  #failed(verdict: ReturnType<SaveHost['judge']>): void {
    if (verdict === 'offline') {
      this.#onState({ kind: 'offline' })
      this.#sendIn(RETRY_MS)
    } else if (verdict === 'stale') {
      this.#onState({ kind: 'stale' })
    } else {
      this.#onState({ kind: 'refused', why: verdict.refused })
    }
  }

  #sendIn(delayMs: number): void {
    if (this.#timer !== null) this.#host.clearTimer(this.#timer)
    if (!this.#isClosed) this.#timer = this.#host.setTimer(() => void this.#send(), delayMs)
  }

  #keep(show: Show): void {
    this.#host.storage.setItem(pendingKey(this.#showId), JSON.stringify({ baseRevision: this.#revision, show } satisfies PendingShow))
  }
}

function pendingKey(showId: string): string {
  return `green-room:pending:${showId}`
}

/** Takes a state that was never acknowledged out of storage; null when there is none. */
export function takePending(storage: SaveHost['storage'], showId: string): PendingShow | null {
  const text = storage.getItem(pendingKey(showId))
  if (text === null) return null
  storage.removeItem(pendingKey(showId))
  try {
    return JSON.parse(text) as PendingShow
  } catch {
    return null
  }
}
