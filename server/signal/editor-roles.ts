// Which tab edits which show: one at a time. A tab that takes over waits until the other has saved what was typed there.

/** What a tab hears of a show it asked for. */
export interface RoleEvents<Tab> {
  /** Whether `tab` edits the show. A tab that hears `false` while it edits saves and then yields. */
  readonly tell: (tab: Tab, showId: string, isEditor: boolean) => void
  /** Calls after a while, unless cleared. */
  readonly setTimer: (run: () => void, delayMs: number) => unknown
  readonly clearTimer: (timer: unknown) => void
}

interface Holder<Tab> {
  readonly tab: Tab
  /** Whether it edited before this connection, took over or was next in turn; one that merely came first gives way to such a tab. */
  readonly isFirm: boolean
}

interface TakeOver<Tab> {
  readonly to: Tab
  readonly timer: unknown
}

/** A tab that does not yield within this time is taken for dead. */
const YIELD_MS = 3000

export class EditorRoles<Tab> {
  readonly #events: RoleEvents<Tab>
  readonly #holders = new Map<string, Holder<Tab>>()
  /** Tabs that have a show open, in the order they came. */
  readonly #open = new Map<Tab, string>()
  readonly #takeOvers = new Map<string, TakeOver<Tab>>()

  constructor(events: RoleEvents<Tab>) {
    this.#events = events
  }

  /** A tab opens a show. `isAgain`: it edited the show when its connection broke. `takeOver`: it is to edit although another does. */
  ask(tab: Tab, showId: string, { takeOver, isAgain }: { readonly takeOver: boolean; readonly isAgain: boolean }): void {
    if (this.#open.get(tab) !== showId) this.leave(tab)
    this.#open.set(tab, showId)
    const holder = this.#holders.get(showId)
    if (holder === undefined) return this.#grant(showId, tab, isAgain || takeOver)
    if (holder.tab === tab) return this.#keep(showId, holder)
    if (takeOver || (isAgain && !holder.isFirm)) return this.#startTakeOver(showId, holder.tab, tab)
    this.#events.tell(tab, showId, false)
  }

  /** The editing tab has saved what it had, and lets go. */
  yield(tab: Tab, showId: string): void {
    if (this.#holders.get(showId)?.tab === tab) this.#finishTakeOver(showId)
  }

  /** A tab closes its show, or is gone; the longest waiting one becomes its editor. */
  leave(tab: Tab): void {
    const showId = this.#open.get(tab)
    if (showId === undefined) return
    this.#open.delete(tab)
    const takeOver = this.#takeOvers.get(showId)
    const holder = this.#holders.get(showId)
    if (takeOver?.to === tab && holder !== undefined) this.#keep(showId, holder)
    if (holder?.tab !== tab) return
    this.#holders.delete(showId)
    if (takeOver !== undefined && takeOver.to !== tab) return this.#finishTakeOver(showId)
    for (const [other, otherShowId] of this.#open) if (otherShowId === showId) return this.#grant(showId, other, true)
  }

  /** Who was to let go keeps the show after all. */
  #keep(showId: string, holder: Holder<Tab>): void {
    const to = this.#takeOvers.get(showId)?.to
    this.#endTakeOver(showId)
    if (to !== undefined && this.#open.get(to) === showId) this.#events.tell(to, showId, false)
    this.#grant(showId, holder.tab, holder.isFirm)
  }

  #startTakeOver(showId: string, from: Tab, to: Tab): void {
    this.#endTakeOver(showId)
    this.#takeOvers.set(showId, { to, timer: this.#events.setTimer(() => this.#finishTakeOver(showId), YIELD_MS) })
    this.#events.tell(from, showId, false)
  }

  #finishTakeOver(showId: string): void {
    const takeOver = this.#takeOvers.get(showId)
    this.#endTakeOver(showId)
    if (takeOver !== undefined && this.#open.get(takeOver.to) === showId) this.#grant(showId, takeOver.to, true)
  }

  #endTakeOver(showId: string): void {
    const takeOver = this.#takeOvers.get(showId)
    if (takeOver !== undefined) this.#events.clearTimer(takeOver.timer)
    this.#takeOvers.delete(showId)
  }

  #grant(showId: string, tab: Tab, isFirm: boolean): void {
    this.#holders.set(showId, { tab, isFirm })
    this.#events.tell(tab, showId, true)
  }
}
