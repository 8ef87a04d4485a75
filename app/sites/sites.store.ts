// Which sites may have the feed, and which pages hold its devices open.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { SiteGate, type OpenSite, type SiteDecision } from '../../webcam/host/site-gate.ts'
import { api, type Site } from '../show/api.ts'
import { openExtensionLink } from './extension-link.ts'

const FIND_GONE_EVERY_MS = 3000
/** What was decided for single pages outlives a reload of this tab, as the feed does. */
const ONCE_KEY = 'green-room:sites-once'

function recallOnce(): [string, 'allowed' | 'refused'][] {
  try {
    const stored: unknown = JSON.parse(sessionStorage.getItem(ONCE_KEY) ?? '[]')
    return Array.isArray(stored)
      ? stored.filter((pair) => Array.isArray(pair) && typeof pair[0] === 'string' && (pair[1] === 'allowed' || pair[1] === 'refused'))
      : []
  } catch {
    return []
  }
}

export const useSitesStore = defineStore('sites', () => {
  const decided = shallowRef<readonly Site[]>([])
  const open = shallowRef<readonly OpenSite[]>([])
  /** The extension's version; null while none was heard of. */
  const extensionVersion = ref<string | null>(null)
  /** Why a decision could not be kept. */
  const failure = ref<string | null>(null)

  const gate = new SiteGate(
    { send: (documentId, message) => link.send(documentId, message), announce: (isFeedOn) => link.announce(isFeedOn) },
    (sites) => {
      open.value = sites
      sessionStorage.setItem(ONCE_KEY, JSON.stringify(gate.decidedOnce))
    },
    recallOnce(),
  )
  const link = openExtensionLink({
    onThere: (version, isNew) => {
      extensionVersion.value = version
      if (isNew) gate.announce()
    },
    onMessage: (documentId, origin, message) => gate.receive(documentId, origin, message),
    onGone: (documentId) => gate.gone(documentId),
  })
  // An extension that was there before this page hears of it now.
  gate.announce()

  function take(sites: readonly Site[]): void {
    decided.value = sites
    gate.setDecisions(new Map(sites.map(({ origin, decision }) => [origin, decision])))
  }

  /** Reads the decisions anew, which another tab may have changed. */
  async function refresh(): Promise<void> {
    await keep(() => api.listSites())
  }

  /** Decides for a site for good. Until that is kept it holds for its open pages. */
  async function decide(origin: string, decision: SiteDecision): Promise<void> {
    for (const site of open.value) if (site.origin === origin) gate.decideOnce(site.documentId, decision === 'always')
    await keep(() => api.decideSite(origin, decision))
  }

  /** Takes back what was decided for a site: it loses the feed at once and has to ask anew. */
  async function forget(origin: string): Promise<void> {
    take(decided.value.filter((site) => site.origin !== origin))
    gate.forget(origin)
    await keep(() => api.forgetSite(origin))
  }

  async function keep(ask: () => Promise<readonly Site[]>): Promise<void> {
    try {
      take(await ask())
      failure.value = null
    } catch (error) {
      failure.value = error instanceof Error ? error.message : String(error)
    }
  }

  // A question of a page that has gone must not stand before that of one which waits.
  window.setInterval(() => gate.findGone(), FIND_GONE_EVERY_MS)
  void refresh()
  document.addEventListener('visibilitychange', () => {
    if (!document.hidden) void refresh()
  })

  return {
    decided,
    open,
    extensionVersion,
    failure,
    /** Pages that wait for an answer. */
    asking: computed(() => open.value.filter(({ state }) => state === 'asking')),
    transport: gate.transport,
    decide,
    decideOnce: (documentId: string, isAllowed: boolean) => gate.decideOnce(documentId, isAllowed),
    forget,
  }
})
