// What saving needs of this browser and of the server.
import { patchOf } from '../../core/patch/patch.ts'
import { api, ApiError } from './api.ts'
import { errorWords } from './error-words.ts'
import { makeId } from './make-id.ts'
import type { SaveHost } from './show-saver.ts'
import type { SessionHost } from './show-session.ts'

/** As the server has it. */
const MOST_OPERATIONS = 5000

/** A name for this page load. Its lock lasts as long as the page, so that others can tell whether it still lives. */
const tabId = makeId()
const lockOf = (id: string) => `green-room:tab:${id}`

/** Holds this tab's lock until the page goes. */
export function holdTabLock(): void {
  // A browser without locks takes every other tab for gone: what they keep may then be saved twice, never lost.
  void navigator.locks?.request(lockOf(tabId), () => new Promise(() => undefined))
}

/** Saves what was changed since `base`. Where that cannot be put on, or is more than the show, the whole of it. */
const savedRevision: SaveHost['put'] = async (id, base, show, saveId, label) => {
  const patch = patchOf(base.show, show)
  if (patch.length <= MOST_OPERATIONS) {
    try {
      return (await api.patchShow(id, base.revision, patch, saveId, label)).revision
    } catch (error) {
      if (!(error instanceof ApiError) || error.code !== 'patch-does-not-fit') throw error
    }
  }
  return (await api.saveShow(id, base.revision, show, saveId, label)).revision
}

/** `copyName` names a copy of a show that changed elsewhere. */
export function browserHost(copyName: (name: string) => string): SessionHost {
  return {
    tabId,
    put: savedRevision,
    get: (id) => api.getShow(id),
    fileCopy: async (copyId, show) => {
      await api.createShow({ ...show, name: copyName(show.name).slice(0, 80) }, copyId)
    },
    judge: (error) => {
      if (!(error instanceof ApiError)) return 'offline'
      if (error.code === 'stale') return 'stale'
      // What the server could not do now, it may do later; what it will not have, it never will.
      return error.status >= 500 || error.status === 408 || error.status === 429 ? 'offline' : { refused: errorWords(error) }
    },
    isTabAlive: async (id) => {
      const { held = [] } = (await navigator.locks?.query()) ?? {}
      return held.some((lock) => lock.name === lockOf(id))
    },
    untilTabGone: async (id) => {
      await navigator.locks?.request(lockOf(id), { mode: 'shared' }, () => undefined)
    },
    storage: localStorage,
    makeId,
    nowMs: () => Date.now(),
    setTimer: (run, delayMs) => window.setTimeout(run, delayMs),
    clearTimer: (timer) => window.clearTimeout(timer),
  }
}
