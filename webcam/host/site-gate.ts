// Which sites may have the feed. The presenter decides, once or for good, by the origin that the browser vouches for; until
// then, and after a no, a site learns nothing but that there is a studio, and shows the holding card.
import { fromSiteSchema, type FeedFormat, type FromSite, type FromStudio, type ToMeeting, type ToStudio } from '../signal.ts'
import type { Transport } from '../transport/transport.ts'

/** What was decided for a site for good. */
export type SiteDecision = 'always' | 'never'
/** How a page stands: undecided, may have the feed, may not. */
export type SiteState = 'asking' | 'allowed' | 'refused'

/** A page that holds a device of ours open. */
export interface OpenSite {
  readonly documentId: string
  readonly origin: string
  readonly state: SiteState
}

/** The way to pages of other origins. */
export interface SiteLink {
  send(documentId: string, message: ToMeeting): void
  /** The studio says again that it is there, and whether its feed runs. */
  announce(isFeedOn: boolean): void
}

/** Tracks that one page may take at once. */
const MOST_SESSIONS_A_PAGE = 4
/** Questions that the presenter may have before them at once, and those of one site among them. */
const MOST_ASKING = 60
const MOST_ASKING_A_SITE = 4
/** Pages that may wait for such a place; beyond them nothing is remembered of a page that was not allowed. */
const MOST_WAITING = 500
/** The only origins that have a name which a person can trust: a sandboxed page's is "null". */
const NAMED_ORIGIN = /^https?:\/\/[^/]+$/

interface Page {
  readonly origin: string
  readonly sessions: Set<string>
}

export class SiteGate {
  /** For the feed's host: sessions of every page that may have the feed. */
  readonly transport: Transport<FromStudio, ToStudio>
  readonly #link: SiteLink
  readonly #onSites: (sites: readonly OpenSite[]) => void
  readonly #pages = new Map<string, Page>()
  /** Decided for one page, until it is gone. */
  readonly #once: Map<string, SiteState>
  #decisions: ReadonlyMap<string, SiteDecision> = new Map()
  #isFeedOn = false
  #format: FeedFormat | undefined

  /**
   * `onSites` hears whenever the open pages, or how they stand, have changed. `once` is what an earlier gate had decided for
   * single pages (`decidedOnce`).
   */
  constructor(link: SiteLink, onSites: (sites: readonly OpenSite[]) => void, once: Iterable<readonly [string, SiteState]> = []) {
    this.#once = new Map(once)
    this.#link = link
    this.#onSites = onSites
    this.transport = { send: (message) => this.#fromHost(message), onMessage: null, onState: null, close: () => undefined }
  }

  /** What was decided for single pages. */
  get decidedOnce(): readonly (readonly [string, SiteState])[] {
    return [...this.#once]
  }

  /** What was decided for good, by origin. A page whose right ends loses the feed at once. */
  setDecisions(decisions: ReadonlyMap<string, SiteDecision>): void {
    this.#decisions = decisions
    this.#review()
  }

  /** Decides for one page until it is closed. */
  decideOnce(documentId: string, isAllowed: boolean): void {
    this.#once.set(documentId, isAllowed ? 'allowed' : 'refused')
    this.#review()
  }

  /** Takes back what was decided for a site's open pages; they ask anew. */
  forget(origin: string): void {
    for (const [documentId, page] of this.#pages) if (page.origin === origin) this.#once.delete(documentId)
    this.#review()
  }

  /** The extension is there, or is there again. */
  announce(): void {
    this.#link.announce(this.#isFeedOn)
  }

  /** Sends every page that waits for an answer a sign: one that cannot be reached any more is taken for gone by the link. */
  findGone(): void {
    for (const [documentId, page] of this.#pages) if (this.#stateOf(documentId, page) === 'asking') this.#tellState(documentId, false)
  }

  /** A page's message, with the origin that the browser saw. Anything that is none is ignored. */
  receive(documentId: string, origin: string, raw: unknown): void {
    const parsed = fromSiteSchema.safeParse(raw)
    if (!parsed.success || !NAMED_ORIGIN.test(origin)) return
    const message = parsed.data
    if (message.type === 'open') return this.#open(documentId, origin)
    if (message.type === 'close') return this.gone(documentId)
    const page = this.#pages.get(documentId)
    if (page === undefined || page.origin !== origin || this.#stateOf(documentId, page) !== 'allowed') {
      if (message.type === 'want') this.#tellState(documentId, false)
      return
    }
    this.#forward(documentId, page, message)
  }

  /** A page is closed, or cannot be reached any more. */
  gone(documentId: string): void {
    const page = this.#pages.get(documentId)
    this.#pages.delete(documentId)
    this.#once.delete(documentId)
    if (page === undefined) return
    this.#endSessions(documentId, page)
    this.#tellSites()
  }

  #open(documentId: string, origin: string): void {
    const known = this.#pages.get(documentId)
    if (known === undefined || known.origin !== origin) {
      const page = { origin, sessions: new Set<string>() }
      const isUndecided = this.#stateOf(documentId, page) !== 'allowed'
      if (isUndecided && this.#undecided() >= MOST_WAITING) return this.#link.send(documentId, { type: 'studio', isOpen: true, isFeedOn: false })
      this.#pages.set(documentId, page)
    }
    const page = this.#pages.get(documentId)!
    this.#tellState(documentId, this.#stateOf(documentId, page) === 'allowed')
    this.#tellSites()
  }

  #forward(documentId: string, page: Page, message: Exclude<FromSite, { type: 'open' | 'close' }>): void {
    const { session } = message
    if (message.type === 'want') {
      if (page.sessions.size >= MOST_SESSIONS_A_PAGE && !page.sessions.has(session)) return this.#link.send(documentId, { type: 'bye', session })
      page.sessions.add(session)
    }
    if (!page.sessions.has(session)) return
    if (message.type === 'bye') page.sessions.delete(session)
    this.#toHost(documentId, page.origin, message)
  }

  #toHost(documentId: string, origin: string, message: Exclude<FromSite, { type: 'open' | 'close' }>): void {
    this.transport.onMessage?.({ type: 'meeting', origin, message: { ...message, session: `${documentId} ${message.session}` } })
  }

  #fromHost(message: FromStudio): void {
    if (message.type === 'feed') {
      this.#format = message.format
      const isNew = message.isOn !== this.#isFeedOn
      this.#isFeedOn = message.isOn
      if (isNew) this.announce()
      return this.#review()
    }
    const space = message.session.indexOf(' ')
    const documentId = message.session.slice(0, space)
    const session = message.session.slice(space + 1)
    const page = this.#pages.get(documentId)
    if (message.type === 'bye') page?.sessions.delete(session)
    this.#link.send(documentId, { ...message, session })
  }

  /** Tells every page how it stands now; one that may not have the feed loses it. */
  #review(): void {
    for (const [documentId, page] of this.#pages) {
      const isAllowed = this.#stateOf(documentId, page) === 'allowed'
      if (!isAllowed) this.#endSessions(documentId, page, true)
      this.#tellState(documentId, isAllowed)
    }
    this.#tellSites()
  }

  #endSessions(documentId: string, page: Page, tell = false): void {
    for (const session of [...page.sessions]) {
      page.sessions.delete(session)
      this.#toHost(documentId, page.origin, { type: 'bye', session })
      if (tell) this.#link.send(documentId, { type: 'bye', session })
    }
  }

  #stateOf(documentId: string, { origin }: Page): SiteState {
    const decision = this.#decisions.get(origin)
    if (decision === 'never') return 'refused'
    return this.#once.get(documentId) ?? (decision === 'always' ? 'allowed' : 'asking')
  }

  #tellState(documentId: string, isAllowed: boolean): void {
    const format = isAllowed ? this.#format : undefined
    this.#link.send(documentId, { type: 'studio', isOpen: true, isFeedOn: isAllowed && this.#isFeedOn, ...(format === undefined ? {} : { format }) })
  }

  #undecided(): number {
    let count = 0
    for (const [documentId, page] of this.#pages) if (this.#stateOf(documentId, page) !== 'allowed') count += 1
    return count
  }

  /** Tells of every page, but for those that still wait for a place among the questions. They come up when there is one. */
  #tellSites(): void {
    const asking = new Map<string, number>()
    let all = 0
    const sites: OpenSite[] = []
    for (const [documentId, { origin, ...page }] of this.#pages) {
      const state = this.#stateOf(documentId, { origin, ...page })
      const ofSite = asking.get(origin) ?? 0
      if (state === 'asking') {
        if (all >= MOST_ASKING || ofSite >= MOST_ASKING_A_SITE) continue
        asking.set(origin, ofSite + 1)
        all += 1
      }
      sites.push({ documentId, origin, state })
    }
    this.#onSites(sites)
  }
}
