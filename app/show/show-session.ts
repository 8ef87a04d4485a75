// One open show in one tab: whether this tab may edit it, what it works on, and what other tabs left unsaved.
import type { Show } from '../../core/show/show.ts'
import { findKept, forgetFound, looseAnchors, type FoundShow } from './kept-shows.ts'
import { ShowSaver, type SaveHost, type SaveState, type StoredState } from './show-saver.ts'

/**
 * `asking`: just opened; `watching`: another tab edits; `claiming`: this tab is to edit, and waits until it has the newest
 * state; `editing`.
 */
export type Role = 'asking' | 'watching' | 'claiming' | 'editing'

/** Why another state took the place of the one on show. */
export type ShowChange =
  /** Another tab saved it. */
  | 'caughtUp'
  /** It had been typed and never saved. */
  | 'recovered'
  /** What was typed here is a copy now. */
  | 'filed'

export type SessionNotice =
  /** What another tab left unsaved is a show of its own now. */
  | { readonly kind: 'recoveredCopy' }
  /** What another tab left unsaved stays in the browser: the server will not have it. */
  | { readonly kind: 'leftUnsaved'; readonly why: string }

export interface SessionHost extends SaveHost {
  readonly tabId: string
  /** Whether the tab that kept something is still open, and will save it itself. */
  readonly isTabAlive: (tabId: string) => Promise<boolean>
  /** Resolves when that tab is gone; at once if it is. */
  readonly untilTabGone: (tabId: string) => Promise<void>
}

export interface SessionEvents {
  readonly onShow: (show: Show, why: ShowChange) => void
  readonly onSaveState: (state: SaveState) => void
  readonly onRole: (role: Role) => void
  readonly onNotice: (notice: SessionNotice) => void
  /** Everything typed is saved, or cannot be for now: another tab may edit. */
  readonly onYield: () => void
}

const RETRY_MS = 1500

export class ShowSession {
  readonly showId: string
  readonly saver: ShowSaver
  readonly #host: SessionHost
  readonly #events: SessionEvents
  #role: Role = 'asking'
  #waiting: (() => void)[] = []
  /** Grows with every change of role, so that what was begun under an earlier one ends. */
  #turn = 0
  #isClosed = false
  /** Open tabs whose end is awaited: what they leave unsaved is then taken up. */
  readonly #awaited = new Set<string>()

  constructor(host: SessionHost, showId: string, stored: StoredState, events: SessionEvents) {
    this.showId = showId
    this.#host = host
    this.#events = events
    this.saver = new ShowSaver(host, showId, host.tabId, stored, {
      onState: (state) => this.#isClosed || events.onSaveState(state),
      onReplaced: ({ show }) => this.#isClosed || events.onShow(show, 'filed'),
    })
  }

  get role(): Role {
    return this.#role
  }

  /** Runs an edit now, or as soon as this tab may edit. False when another tab edits: nothing happens then. */
  whenEditing(run: () => void): boolean {
    if (this.#role === 'watching') return false
    if (this.#role === 'editing') run()
    else this.#waiting.push(run)
    return true
  }

  /** This tab is to take over. */
  claim(): void {
    if (this.#role !== 'editing') this.#setRole('claiming')
  }

  /** Hears who edits. A tab that becomes the editor first gets the newest state, then what was left unsaved. */
  setEditor(isEditor: boolean): void {
    if (isEditor) void this.#becomeEditor()
    else void this.#stopEditing()
  }

  /** Shows again, and asks anew who edits. */
  reopen(): void {
    this.#isClosed = false
    this.#setRole('asking')
  }

  /** Stops showing; what is unsaved is saved in the background. */
  close(): void {
    this.#isClosed = true
    this.#turn += 1
    this.#waiting = []
    this.saver.flush()
    this.saver.release()
  }

  async #stopEditing(): Promise<void> {
    const wasEditing = this.#role === 'editing'
    this.#setRole('watching')
    this.#waiting = []
    if (!wasEditing) return
    const turn = this.#turn
    await this.saver.settle()
    if (turn === this.#turn) this.#events.onYield()
  }

  async #becomeEditor(): Promise<void> {
    // A tab that edits already goes on meanwhile: its line to the server was broken, and may be back in a changed world.
    if (this.#role !== 'editing') this.#setRole('claiming')
    else this.#turn += 1
    const turn = this.#turn
    const stored = await this.#insist(turn, () => this.#host.get(this.showId))
    if (stored === null) return
    const wasAt = this.saver.revision
    if (this.saver.rebase(stored) && stored.revision !== wasAt) this.#events.onShow(stored.show, 'caughtUp')
    const open = await this.#recover(turn, stored)
    if (turn !== this.#turn) return
    this.#setRole('editing')
    for (const run of this.#waiting.splice(0)) run()
    for (const tabId of open) void this.#recoverWhenGone(tabId)
    await this.#sweep()
  }

  /** Takes up what tabs that are gone left unsaved. Returns the tabs that are open still and have something unsaved. */
  async #recover(turn: number, stored: StoredState): Promise<string[]> {
    const open: string[] = []
    for (const found of findKept(this.#host.storage, this.showId, this.#host.tabId)) {
      const isAlive = await this.#host.isTabAlive(found.tabId)
      if (turn !== this.#turn) return []
      if (isAlive) open.push(found.tabId)
      else await this.#takeUp(turn, found, stored)
    }
    return open
  }

  /** Gives back the room that tabs which are gone took for edits that were saved. */
  async #sweep(): Promise<void> {
    for (const { key, tabId } of looseAnchors(this.#host.storage)) {
      if (tabId !== this.#host.tabId && !(await this.#host.isTabAlive(tabId))) this.#host.storage.removeItem(key)
    }
  }

  /** A tab that is closing seems open for a moment longer than its line to the server. */
  async #recoverWhenGone(tabId: string): Promise<void> {
    if (this.#awaited.has(tabId)) return
    this.#awaited.add(tabId)
    await this.#host.untilTabGone(tabId)
    this.#awaited.delete(tabId)
    if (this.#isClosed || this.#role !== 'editing') return
    const turn = this.#turn
    const stored = await this.#insist(turn, () => this.#host.get(this.showId))
    const found = findKept(this.#host.storage, this.showId, this.#host.tabId).find((one) => one.tabId === tabId)
    if (stored !== null && found !== undefined) await this.#takeUp(turn, found, stored)
  }

  /** On top of the show if it builds on it, as a copy if not. */
  async #takeUp(turn: number, found: FoundShow, stored: StoredState): Promise<void> {
    const { kept } = found
    const forget = () => forgetFound(this.#host.storage, found)
    const buildsOnIt = kept.baseRevision === stored.revision || (kept.saveId !== null && kept.saveId === stored.saveId)
    if (isSame(kept.show, stored.show)) {
      forget()
    } else if (buildsOnIt && this.saver.unsaved === null && this.saver.revision === stored.revision) {
      this.#events.onShow(kept.show, 'recovered')
      this.saver.push(kept.show, forget)
    } else {
      await this.#fileLeftover(turn, found, forget)
    }
  }

  async #fileLeftover(turn: number, { kept }: FoundShow, forget: () => void): Promise<void> {
    const isFiled = await this.#insist(turn, () => this.#host.fileCopy(kept.copyId, kept.show).then(() => true))
    if (isFiled === null) return
    forget()
    this.#events.onNotice({ kind: 'recoveredCopy' })
  }

  /** Tries again while the server cannot be reached; null when the turn is over or the server refuses. */
  async #insist<T>(turn: number, call: () => Promise<T>): Promise<T | null> {
    while (turn === this.#turn) {
      try {
        const result = await call()
        return turn === this.#turn ? result : null
      } catch (error) {
        const verdict = this.#host.judge(error)
        if (verdict !== 'offline') {
          this.#events.onNotice({ kind: 'leftUnsaved', why: verdict === 'stale' ? '' : verdict.refused })
          return null
        }
        await new Promise<void>((resolve) => this.#host.setTimer(resolve, RETRY_MS))
      }
    }
    return null
  }

  #setRole(role: Role): void {
    this.#role = role
    this.#turn += 1
    if (!this.#isClosed) this.#events.onRole(role)
  }
}

function isSame(first: unknown, second: unknown): boolean {
  return canonical(first) === canonical(second)
}

/** JSON with keys in order. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_key, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part) ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1))) : part,
  )
}
