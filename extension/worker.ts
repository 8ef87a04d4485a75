// Routes signalling between meeting pages and the studio. It may be stopped at any time and keeps nothing in memory: who is
// there lies in the session's storage, and who speaks is told by the browser.
import type { FromSite } from '../webcam/signal.ts'
import type { FromBridge, FromStudioPage, ToBridge, ToStudioPage } from './messages.ts'

const STUDIO = 'studio:'
const SITE = 'site:'
const SALT = 'salt'

/** Where a page can be reached. */
interface Place {
  readonly tabId: number
  readonly documentId: string
}

interface StudioPlace extends Place {
  readonly isFeedOn: boolean
  readonly at: number
}

interface SitePlace extends Place {
  readonly origin: string
}

const studioMatches = chrome.runtime.getManifest().host_permissions as string[]
const studioOrigins = new Set(studioMatches.map((match) => new URL(match.replace('/*', '')).origin))

chrome.runtime.onMessage.addListener((message: FromBridge | FromStudioPage, sender, answer) => {
  const { documentId, origin, tab } = sender
  if (sender.id !== chrome.runtime.id || documentId === undefined || origin === undefined || tab?.id === undefined) return false
  const place = { tabId: tab.id, documentId }
  // A page of an opaque origin has no name that could be shown, or decided on.
  if (!/^https?:/.test(origin)) return false
  const isStudio = studioOrigins.has(origin)
  if (isStudio && message.to === 'worker') void register(place, message.isFeedOn)
  else if (isStudio && message.to === 'site') void toSite(place, message)
  else if (!isStudio && message.to === 'studio') void toStudio({ ...place, origin }, message.message)
  else if (!isStudio && message.to === 'ids') {
    void idsOf(`${origin} ${message.mark}`).then(answer)
    return true
  }
  return false
})

/** A page of the studio is there, or its feed has begun or ended: every page that holds a device open is told to say so again. */
async function register(place: Place, isFeedOn: boolean): Promise<void> {
  await chrome.storage.session.set({ [STUDIO + place.documentId]: { ...place, isFeedOn, at: Date.now() } satisfies StudioPlace })
  await tell(place, { from: 'worker', type: 'there', version: chrome.runtime.getManifest().version, isNew: false })
  await Promise.all((await placesOf<SitePlace>(SITE)).map((site) => tellSite(site, { type: 'studio', isOpen: true, isFeedOn: false, isNew: true })))
}

async function toStudio(site: SitePlace, message: FromSite): Promise<void> {
  if (message.type === 'close') await chrome.storage.session.remove(SITE + site.documentId)
  else if (message.type === 'open') await chrome.storage.session.set({ [SITE + site.documentId]: site })
  const studios = (await placesOf<StudioPlace>(STUDIO)).sort((first, second) => Number(second.isFeedOn) - Number(first.isFeedOn) || second.at - first.at)
  for (const studio of studios) {
    if (await tell(studio, { from: 'site', documentId: site.documentId, origin: site.origin, message })) return
    await chrome.storage.session.remove(STUDIO + studio.documentId)
  }
  await tellSite(site, { type: 'studio', isOpen: false, isFeedOn: false })
}

async function toSite(studio: Place, { documentId, message }: Extract<FromStudioPage, { to: 'site' }>): Promise<void> {
  const key = SITE + documentId
  const site = ((await chrome.storage.session.get(key)) as Record<string, SitePlace>)[key]
  if (site === undefined || !(await tellSite(site, message))) await tell(studio, { from: 'worker', type: 'gone', documentId })
}

async function tellSite(site: SitePlace, message: ToBridge['message']): Promise<boolean> {
  const isReached = await tell(site, { from: 'studio', message })
  if (!isReached) await chrome.storage.session.remove(SITE + site.documentId)
  return isReached
}

/** Whether a page took the message; one that is gone does not. */
async function tell({ tabId, documentId }: Place, message: ToBridge | ToStudioPage): Promise<boolean> {
  try {
    await chrome.tabs.sendMessage(tabId, message, { documentId })
    return true
  } catch {
    return false
  }
}

async function placesOf<P extends Place>(prefix: string): Promise<P[]> {
  const all = (await chrome.storage.session.get(null)) as Record<string, P>
  return Object.entries(all).flatMap(([key, place]) => (key.startsWith(prefix) ? [place] : []))
}

/** Ids that differ from site to site and from installation to installation, and last as long as the site's own data does. */
async function idsOf(site: string): Promise<{ camera: string; microphone: string; group: string }> {
  const known = (await chrome.storage.local.get(SALT)) as { [SALT]?: string }
  const salt = known[SALT] ?? hexOf(crypto.getRandomValues(new Uint8Array(32)))
  if (known[SALT] === undefined) await chrome.storage.local.set({ [SALT]: salt })
  const idOf = async (kind: string) => hexOf(new Uint8Array(await crypto.subtle.digest('SHA-256', new TextEncoder().encode(`${salt} ${site} ${kind}`))))
  return { camera: await idOf('camera'), microphone: await idOf('microphone'), group: await idOf('group') }
}

const hexOf = (bytes: Uint8Array) => [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')

// A tab that was closed takes its pages with it, also those that had no time to say so.
chrome.tabs.onRemoved.addListener((tabId) => {
  void placesOf<SitePlace>(SITE).then((sites) => Promise.all(sites.filter((site) => site.tabId === tabId).map((site) => toStudio(site, { type: 'close' }))))
})

// A studio that is open already hears at once that the extension was loaded.
chrome.runtime.onInstalled.addListener(() => {
  void chrome.tabs.query({ url: studioMatches }).then((tabs) => {
    for (const { id } of tabs) if (id !== undefined) void chrome.scripting.executeScript({ target: { tabId: id }, files: ['studio.js'] }).catch(() => undefined)
  })
})
