import { createPinia, disposePinia, setActivePinia, type Pinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { addScene, renameShow, updateScene } from '../../core/show/edits.ts'
import { newScene } from '../../core/show/create.ts'
import type { Show } from '../../core/show/show.ts'
import { testShow } from '../../tests/support/shows.ts'
import { useShowStore } from './show.store.ts'

const show = testShow()
const [first, second] = show.scenes.map(({ id }) => id) as [string, string]
/** The server: shows by id, and what was saved of each, newest last. */
const server = new Map<string, Show>()
const saves: { id: string; show: Show; label: string | null }[] = []
let reach: () => void = () => undefined
let isFull = false
const kept = new Map<string, string>()
const storage = {
  get length() {
    return kept.size
  },
  key: (index: number) => [...kept.keys()][index] ?? null,
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => {
    if (isFull) throw new DOMException('full', 'QuotaExceededError')
    kept.set(key, value)
  },
  removeItem: (key: string) => void kept.delete(key),
}

vi.mock('./api.ts', async (original) => ({
  ...(await original<object>()),
  api: {
    getShow: async (id: string) => ({ id, revision: 1, saveId: null, show: server.get(id)! }),
    restoreVersion: async () => ({ revision: 9, saveId: null, show: server.get('old')! }),
  },
}))
vi.mock('./browser-host.ts', () => ({
  holdTabLock: () => undefined,
  browserHost: () => ({
    tabId: 'tab',
    put: async (id: string, base: { revision: number }, next: Show, _saveId: string, label: string | null) => {
      reach()
      saves.push({ id, show: next, label })
      return base.revision + 1
    },
    get: async (id: string) => ({ revision: 1, saveId: null, show: server.get(id)! }),
    fileCopy: async () => undefined,
    judge: () => 'offline',
    isTabAlive: async () => false,
    untilTabGone: async () => undefined,
    storage,
    makeId: () => crypto.randomUUID(),
    nowMs: () => Date.now(),
    setTimer: (run: () => void, delayMs: number) => window.setTimeout(run, delayMs),
    clearTimer: (timer: number) => window.clearTimeout(timer),
  }),
}))

let pinia: Pinia
beforeEach(() => {
  pinia = createPinia()
  setActivePinia(pinia)
  kept.clear()
  isFull = false
  server.clear()
  server.set('a', show)
  server.set('b', { ...show, name: 'Other' })
  saves.length = 0
  reach = () => undefined
  vi.useFakeTimers()
})
afterEach(() => {
  disposePinia(pinia)
  vi.useRealTimers()
})

const name = (sceneId: string, next: string) => (before: Show) => updateScene(before, sceneId, (scene) => ({ ...scene, name: next }))

async function opened(id = 'a') {
  const store = useShowStore()
  await store.open(id, (given) => `${given} copy`)
  store.setEditor(true)
  await vi.advanceTimersByTimeAsync(0)
  return store
}

it('opens on the first scene, edits once this tab may, and saves under the edit’s name', async () => {
  const store = useShowStore()
  await store.open('a', (given) => given)
  expect([store.sceneId, store.onAirId, store.role]).toEqual([first, first, 'asking'])
  expect(store.edit('Rename scene', name(first, 'Hello'))).toBe(true)
  expect(store.show?.scenes[0]?.name).toBe('Welcome')
  store.setEditor(true)
  await vi.advanceTimersByTimeAsync(500)
  expect(store.show?.scenes[0]?.name).toBe('Hello')
  expect(saves.map(({ id, label }) => [id, label])).toEqual([['a', 'Rename scene']])
  expect(store.saveState.kind).toBe('saved')
})

it('a tab that only watches changes nothing, and says so', async () => {
  const store = useShowStore()
  await store.open('a', (given) => given)
  store.setEditor(false)
  expect(store.edit('Rename scene', name(first, 'Hello'))).toBe(false)
  store.undo()
  expect([store.watchRefusals, store.show]).toEqual([2, show])
})

it('an edit that changes nothing is no step, and one that would change a locked scene is refused by name', async () => {
  const store = await opened()
  expect(store.edit('Nothing', (before) => before)).toBe(false)
  expect(store.undoLabel).toBeNull()
  store.edit('Lock', (before) => updateScene(before, first, (scene) => ({ ...scene, locked: true })))
  expect(store.edit('Empty scene', (before) => updateScene(before, first, (scene) => ({ ...scene, layers: [] })))).toBe(false)
  expect(store.lockRefusal).toEqual({ sceneId: first, name: 'Welcome' })
  expect([store.isStopped(), store.isStopped(second)]).toEqual([true, false])
})

it('more scenes than a show may have are refused, and nothing is lost', async () => {
  const store = await opened()
  const many = (before: Show) =>
    Array.from({ length: 500 }).reduce<Show>(
      (all, _, index) =>
        addScene(
          all,
          newScene(`Scene ${index}`, () => crypto.randomUUID()),
        ),
      before,
    )
  expect(store.edit('Add scenes', many)).toBe(false)
  expect([store.limitRefusal?.thing, store.show]).toEqual(['scenes', show])
})

it('goes back and forth, to the scene where it happened, several steps at once too', async () => {
  const store = await opened()
  store.edit('One', name(first, 'One'))
  store.edit('Two', name(second, 'Two'))
  store.edit('Three', name(first, 'Three'))
  store.selectScene(second)
  expect([store.undoLabel, store.undoScene?.id]).toEqual(['Three', first])
  store.undo()
  expect([store.sceneId, store.show?.scenes[0]?.name, store.redoLabel]).toEqual([first, 'One', 'Three'])
  store.jump(2)
  expect(store.show).toEqual(show)
  expect(store.steps).toEqual({ past: [], future: ['One', 'Two', 'Three'] })
  store.jump(-3)
  expect(store.show?.scenes.slice(0, 2).map((scene) => scene.name)).toEqual(['Three', 'Two'])
  store.jump(-1)
  expect(store.undoLabel).toBe('Three')
})

it('one drag is one step; a fact is none', async () => {
  const store = await opened()
  for (const x of ['1', '2', '3']) store.edit('Drag', name(first, x), 'drag-1')
  expect(store.steps.past).toEqual(['Drag'])
  store.amend((before) => renameShow(before, 'Noted'))
  expect([store.steps.past.length, store.show?.name]).toEqual([1, 'Noted'])
  store.undo()
  expect(store.show?.scenes[0]?.name).toBe('Welcome')
})

it('the first scene on air gives way to another while it is gone', async () => {
  const store = await opened()
  store.setOnAir(second)
  expect(store.onAirId).toBe(second)
  store.edit('Remove', (before) => ({ ...before, scenes: before.scenes.filter(({ id }) => id !== second) }))
  expect(store.onAirId).toBe(first)
  store.undo()
  expect(store.onAirId).toBe(second)
})

it('a show that was closed with something unsaved is saved behind, and goes on from there when it is opened again', async () => {
  const store = await opened()
  reach = () => {
    throw new Error('no server')
  }
  store.edit('Rename scene', name(first, 'Hello'))
  await vi.advanceTimersByTimeAsync(500)
  expect(store.saveState.kind).toBe('offline')
  await store.open('b', (given) => given)
  expect([store.showId, store.show?.name, store.undoLabel]).toEqual(['b', 'Other', null])
  await store.open('a', (given) => given)
  expect(store.show?.scenes[0]?.name).toBe('Hello')
  await store.open('b', (given) => given)
  reach = () => undefined
  await vi.advanceTimersByTimeAsync(5000)
  expect(saves.map(({ id, show: saved }) => [id, saved.scenes[0]?.name])).toEqual([['a', 'Hello']])
})

it('of two shows that are opened at once the last one stays', async () => {
  const store = useShowStore()
  await Promise.all([store.open('a', (given) => given), store.open('b', (given) => given)])
  expect([store.showId, store.show?.name]).toEqual(['b', 'Other'])
})

it('an earlier version takes the place of the newest, which is one step back', async () => {
  const store = await opened()
  server.set('old', renameShow(show, 'Earlier'))
  await store.restoreVersion(3)
  expect(store.show?.name).toBe('Earlier')
  store.undo()
  expect(store.show?.name).toBe(show.name)
})

it('leaving is warned of only while something is neither saved nor kept by the browser', async () => {
  const store = await opened()
  const leave = () => {
    const event = new Event('beforeunload', { cancelable: true })
    window.dispatchEvent(event)
    return event.defaultPrevented
  }
  reach = () => {
    throw new Error('no server')
  }
  expect(leave()).toBe(false)
  store.edit('Rename scene', name(first, 'Hello'))
  await vi.advanceTimersByTimeAsync(500)
  expect(leave()).toBe(false)
  isFull = true
  store.edit('Rename scene', name(first, 'Hello again'))
  await vi.advanceTimersByTimeAsync(500)
  expect([store.saveState.kind, leave()]).toEqual(['unkept', true])
})
