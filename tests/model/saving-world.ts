// A small world for saving: a server, a browser's storage, tabs and the line between them, all of it in the test's hands.
// One file, though long: every part of it knows the others.
import type { KeptStorage } from '../../app/show/kept-shows.ts'
import { ShowSession, type SessionHost } from '../../app/show/show-session.ts'
import type { SaveState, StoredState, Verdict } from '../../app/show/show-saver.ts'
import { patched, patchOf, type Patch } from '../../core/patch/patch.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import type { Show } from '../../core/show/show.ts'
import { EditorRoles } from '../../server/signal/editor-roles.ts'

export type { SaveState }
export type SessionHostError = Exclude<Verdict, 'offline' | 'stale'>

/** A show here is a list of what was typed; saving never looks inside. */
interface Doc {
  readonly tokens: readonly string[]
}
const asShow = (doc: Doc) => doc as unknown as Show
const asDoc = (show: Show) => show as unknown as Doc

interface Stored {
  revision: number
  saveId: string | null
  doc: Doc
}

export interface Tab {
  readonly id: string
  readonly session: ShowSession
  current: Doc
  isAlive: boolean
  /** The browser may go on taking a tab for open for a while after its line to the server has ended. */
  seemsOpen: boolean
  isConnected: boolean
  isEditor: boolean
  /** Everything typed here, in order. */
  readonly typed: string[]
}

const SHOW_ID = 'show-1'

export class World {
  network: 'up' | 'down' | 'loseAnswers' | 'copiesFail' | 'flaky' = 'up'
  isStorageFull = false
  refusal: SessionHostError | null = null
  puts = 0
  /** What saves were made on top of, as the tabs had it. */
  readonly bases: { readonly revision: number; readonly tokens: readonly string[] }[] = []
  /** What each revision held. */
  readonly revisions = new Map<number, readonly string[]>([[1, []]])
  readonly typed: string[] = []
  readonly excusablyLost = new Set<string>()
  readonly statesAtLoss: SaveState[] = []
  readonly events: string[] = []
  readonly said: { readonly state: SaveState; readonly typed: readonly string[]; readonly stored: ReadonlySet<string> }[] = []
  readonly #random: () => number
  readonly #shows = new Map<string, Stored>([[SHOW_ID, { revision: 1, saveId: null, doc: { tokens: [] } }]])
  readonly #storage = new Map<string, string>()
  readonly #timers = new Map<number, { readonly tab: Tab | null; readonly run: () => void }>()
  readonly #tabs: Tab[] = []
  readonly #awaitingEnd: { readonly tabId: string; readonly resolve: () => void }[] = []
  #roles: EditorRoles<Tab>
  #ids = 0

  constructor(seed: number) {
    this.#random = seededRandom(seed)
    this.#roles = this.#newRoles()
  }

  main(): Doc {
    return this.#shows.get(SHOW_ID)!.doc
  }

  /** Everything that any show of the server holds. */
  storedTokens(): Set<string> {
    return new Set([...this.#shows.values()].flatMap(({ doc }) => doc.tokens))
  }

  showCount(): number {
    return this.#shows.size
  }

  /** What the browser keeps of edits. */
  leftInStorage(): string[] {
    return [...this.#storage.keys()].filter((key) => key.startsWith('green-room:pending:'))
  }

  /** Tabs whose shows are kept for their next edit. */
  anchoredTabs(): string[] {
    return [...this.#storage.keys()].flatMap((key) => (key.startsWith('green-room:anchor:') ? [key.split(':')[3]!] : []))
  }

  /** Another program saves the show. */
  serverEdit(token: string): void {
    const stored = this.#shows.get(SHOW_ID)!
    stored.doc = { tokens: [...stored.doc.tokens, token] }
    stored.revision += 1
    this.revisions.set(stored.revision, stored.doc.tokens)
    stored.saveId = null
  }

  async openTab(): Promise<Tab> {
    const id = this.#id()
    const made: { tab: Tab | null } = { tab: null }
    const host = this.#hostOf(id, () => made.tab)
    const first = this.#shows.get(SHOW_ID)!
    const session = new ShowSession(host, SHOW_ID, this.#copyOf(first), {
      onShow: (show, why) => {
        made.tab!.current = asDoc(show)
        this.events.push(why)
      },
      onSaveState: (state) => this.said.push({ state, typed: [...made.tab!.typed], stored: this.storedTokens() }),
      onRole: () => undefined,
      onNotice: ({ kind }) => this.events.push(kind),
      onYield: () => {
        this.events.push('yield')
        if (made.tab!.isAlive && made.tab!.isConnected) this.#roles.yield(made.tab!, SHOW_ID)
      },
    })
    const tab: Tab = { id, session, current: first.doc, isAlive: true, seemsOpen: true, isConnected: true, isEditor: false, typed: [] }
    made.tab = tab
    this.#tabs.push(tab)
    this.ask(tab, false)
    await this.settle()
    return tab
  }

  ask(tab: Tab, takeOver: boolean): void {
    if (tab.isAlive && tab.isConnected) this.#roles.ask(tab, SHOW_ID, { takeOver, isAgain: tab.isEditor })
  }

  /** What typing does: the tab's state changes and is pushed. */
  type(tab: Tab, token: string): void {
    tab.current = { tokens: [...tab.current.tokens, token] }
    tab.typed.push(token)
    this.typed.push(token)
    tab.session.saver.push(asShow(tab.current))
  }

  async edit(tab: Tab, token = `t${this.typed.length}`): Promise<void> {
    if (tab.isAlive) tab.session.whenEditing(() => this.type(tab, token))
    await this.settle()
  }

  /** The tab's process ends without a word. */
  crash(tab: Tab, isNoticed: 'now' | 'later' | 'never' = this.#random() < 0.5 ? 'now' : 'later'): void {
    if (!tab.isAlive) return
    tab.isAlive = false
    this.events.push('crash')
    const { unsaved, isKept, state } = tab.session.saver
    if (unsaved !== null && !isKept) {
      this.statesAtLoss.push(state)
      const stored = this.storedTokens()
      for (const token of tab.typed) if (!stored.has(token)) this.excusablyLost.add(token)
    }
    if (tab.isConnected) this.#roles.leave(tab)
    if (isNoticed === 'now') this.noticeEnd(tab)
    else if (isNoticed === 'later') this.#setTimer(null, () => this.noticeEnd(tab))
  }

  /** The browser notices that a crashed tab is gone. */
  noticeEnd(tab: Tab): void {
    tab.seemsOpen = false
    for (const { resolve } of this.#awaitingEnd.filter((one) => one.tabId === tab.id)) resolve()
  }

  async act(): Promise<void> {
    const alive = this.#tabs.filter((tab) => tab.isAlive)
    const tab = alive[Math.floor(this.#random() * alive.length)]
    const dice = this.#random()
    if (tab === undefined || (dice < 0.04 && alive.length < 4)) await this.openTab()
    else if (dice < 0.4) await this.edit(tab)
    else if (dice < 0.66) await this.#runOneTimer()
    else if (dice < 0.76) this.network = this.#pick(['up', 'up', 'down', 'loseAnswers', 'flaky'])
    else if (dice < 0.8) this.isStorageFull = this.#random() < 0.3
    else if (dice < 0.84) this.crash(tab)
    else if (dice < 0.9) this.#takeOver(tab)
    else if (dice < 0.96) this.dropOrReconnect(tab)
    else this.#restartServer()
    await this.settle()
  }

  /** Everything works again, every tab crashes, and one that is opened then finds what they left. */
  async heal(): Promise<void> {
    this.network = 'up'
    this.isStorageFull = false
    for (const tab of this.#tabs) if (tab.isAlive && !tab.isConnected) this.dropOrReconnect(tab)
    for (const tab of this.#tabs) if (this.#random() < 0.5) this.crash(tab)
    await this.runTimers()
    for (const tab of this.#tabs) this.crash(tab)
    await this.openTab()
    await this.runTimers()
  }

  /** Runs timers until none is due, or for as long as anything could take. */
  async runTimers(): Promise<void> {
    for (let i = 0; i < 40 && this.#timers.size > 0; i += 1) {
      for (const timer of [...this.#timers.keys()]) this.#run(timer)
      await this.settle()
    }
  }

  /** Lets every promise that is ready go on. */
  settle(): Promise<void> {
    return new Promise((resolve) => setImmediate(resolve))
  }

  #takeOver(tab: Tab): void {
    this.events.push('takeOver')
    tab.session.claim()
    this.ask(tab, true)
  }

  /** The tab loses its line to the server, or has it back. */
  dropOrReconnect(tab: Tab): void {
    tab.isConnected = !tab.isConnected
    if (tab.isConnected) this.ask(tab, false)
    else this.#roles.leave(tab)
  }

  #restartServer(): void {
    this.#roles = this.#newRoles()
    for (const tab of [...this.#tabs].sort(() => this.#random() - 0.5)) this.ask(tab, false)
  }

  #newRoles(): EditorRoles<Tab> {
    return new EditorRoles<Tab>({
      tell: (tab, _showId, isEditor) => {
        if (!tab.isAlive || !tab.isConnected) return
        tab.isEditor = isEditor
        tab.session.setEditor(isEditor)
      },
      setTimer: (run) => this.#setTimer(null, run),
      clearTimer: (timer) => this.#timers.delete(timer as number),
    })
  }

  #hostOf(tabId: string, tab: () => Tab | null): SessionHost {
    const storage: KeptStorage = {
      getItem: (key) => this.#storage.get(key) ?? null,
      setItem: (key, value) => {
        if (this.isStorageFull) throw new DOMException('full', 'QuotaExceededError')
        if (tab()?.isAlive !== false) this.#storage.set(key, value)
      },
      removeItem: (key) => {
        if (tab()?.isAlive !== false) this.#storage.delete(key)
      },
      key: (index) => [...this.#storage.keys()][index] ?? null,
      get length() {
        return 0
      },
    }
    Object.defineProperty(storage, 'length', { get: () => this.#storage.size })
    return {
      tabId,
      storage,
      put: (_showId, base, show, saveId) => {
        this.puts += 1
        const patch = structuredClone(patchOf(base.show, show))
        this.bases.push({ revision: base.revision, tokens: asDoc(base.show).tokens })
        return this.#call(tab, () => this.#put(base.revision, patch, saveId))
      },
      get: () => this.#call(tab, () => this.#copyOf(this.#shows.get(SHOW_ID)!)),
      fileCopy: (copyId, show) =>
        this.#call(tab, () => {
          if (this.network === 'copiesFail') throw 'offline'
          if (!this.#shows.has(copyId)) this.#shows.set(copyId, { revision: 1, saveId: null, doc: asDoc(show) })
        }),
      judge: (error) => error as Verdict,
      isTabAlive: async (id) => this.#seemsOpen(id),
      untilTabGone: (id) => (this.#seemsOpen(id) ? new Promise((resolve) => this.#awaitingEnd.push({ tabId: id, resolve })) : Promise.resolve()),
      makeId: () => this.#id(),
      nowMs: () => (this.#ids += 1),
      setTimer: (run) => this.#setTimer(tab(), run),
      clearTimer: (timer) => this.#timers.delete(timer),
    }
  }

  #seemsOpen(tabId: string): boolean {
    return this.#tabs.some((tab) => tab.id === tabId && tab.seemsOpen)
  }

  /** A call over the network: it may be lost on the way there or on the way back. A dead tab hears nothing. */
  async #call<T>(tab: () => Tab | null, run: () => T): Promise<T> {
    await Promise.resolve()
    const isDown = this.network === 'down' || (this.network === 'flaky' && this.#random() < 0.4)
    if (tab()?.isAlive === false) return new Promise(() => undefined)
    if (isDown) throw 'offline' satisfies Verdict
    const result = run()
    await Promise.resolve()
    if (tab()?.isAlive === false) return new Promise(() => undefined)
    if (this.network === 'loseAnswers' || (this.network === 'flaky' && this.#random() < 0.4)) {
      this.events.push('lostAnswer')
      throw 'offline' satisfies Verdict
    }
    return result
  }

  /** As server/shows/show-store.ts saves: what was changed, put on its own state. */
  #put(base: number, patch: Patch, saveId: string): number {
    if (this.refusal !== null) throw this.refusal
    const stored = this.#shows.get(SHOW_ID)!
    if (stored.saveId === saveId) return stored.revision
    if (stored.revision !== base) throw 'stale' satisfies Verdict
    stored.revision += 1
    stored.saveId = saveId
    stored.doc = patched(stored.doc, patch)
    this.revisions.set(stored.revision, stored.doc.tokens)
    return stored.revision
  }

  #copyOf({ revision, saveId, doc }: Stored): StoredState {
    return { revision, saveId, show: asShow(doc) }
  }

  #setTimer(tab: Tab | null, run: () => void): number {
    this.#ids += 1
    this.#timers.set(this.#ids, { tab, run })
    return this.#ids
  }

  async #runOneTimer(): Promise<void> {
    const timers = [...this.#timers.keys()]
    if (timers.length > 0) this.#run(timers[Math.floor(this.#random() * timers.length)]!)
  }

  #run(id: number): void {
    const timer = this.#timers.get(id)
    this.#timers.delete(id)
    if (timer !== undefined && timer.tab?.isAlive !== false) timer.run()
  }

  #id(): string {
    this.#ids += 1
    return `id${this.#ids}`
  }

  #pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.#random() * list.length)]!
  }
}
