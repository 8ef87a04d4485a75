import { createPinia, disposePinia, setActivePinia, type Pinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { nextTick, reactive, shallowReactive } from 'vue'
import { removeScene, updateScene } from '../../core/show/edits.ts'
import type { Show } from '../../core/show/show.ts'
import { FakeWorker } from '../../tests/support/fake-worker.ts'
import { testShow } from '../../tests/support/shows.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useAirStore } from './air.store.ts'

const show = testShow()
const [first, second] = show.scenes.map(({ id }) => id) as [string, string]
const showStore = shallowReactive({
  showId: 'a' as string | null,
  show: show as Show | null,
  isEditor: true,
  onAirId: first as string | null,
  setOnAir: (id: string) => (showStore.onAirId = id),
})
const feeds: [hasTrack: boolean, isAgain: boolean][] = []
const voices: (string | null)[] = []
const stored = reactive({ answer: (): Promise<unknown> => Promise.reject(new Error('no server')) })
let taken: () => void = () => undefined
let pinia: Pinia

vi.mock('../engine/engine-files.ts', () => ({
  engineFiles: { makeWorker: () => new FakeWorker(), wasmUrl: '', loadFonts: () => Promise.resolve([]), personFiles: {}, assetUrlPrefix: '/' },
}))
vi.mock('../show/show.store.ts', () => ({ useShowStore: () => showStore }))
vi.mock('../link/link.store.ts', () => ({ useLinkStore: () => ({ signalling: {}, onReached: () => undefined }) }))
vi.mock('../sites/sites.store.ts', () => ({ useSitesStore: () => ({ transport: {} }) }))
vi.mock('../sound/voice.store.ts', () => ({ useVoiceStore: () => ({ setOnAirShow: (next: Show | null) => voices.push(next?.name ?? null) }) }))
vi.mock('../show/api.ts', async (original) => ({ ...(await original<object>()), api: { getShow: () => stored.answer() } }))
vi.mock('./use-feed-hosts.ts', () => ({
  useFeedHosts: (_transports: unknown, _voice: unknown, _format: unknown, onTaken: () => void) => {
    taken = onTaken
    return { meetingCount: 0, setFeed: (track: unknown, isAgain = false) => feeds.push([track !== null, isAgain]), announce: () => undefined }
  },
}))

/** As when the page is loaded: no store of before is left. */
function load(): void {
  pinia = createPinia()
  setActivePinia(pinia)
}

beforeEach(() => {
  load()
  sessionStorage.clear()
  FakeWorker.made = []
  feeds.length = 0
  voices.length = 0
  Object.assign(showStore, { showId: 'a', show, isEditor: true, onAirId: first })
  vi.stubGlobal(
    'MediaStreamTrackGenerator',
    class {
      readonly writable = {}
      contentHint = ''
      stop(): void {
        return undefined
      }
    },
  )
  vi.stubGlobal('MediaStreamTrackProcessor', class {})
})

// Stores that are left alone would go on watching, and make their own the ones in use.
afterEach(() => disposePinia(pinia))

const takes = () =>
  FakeWorker.made
    .at(-1)!
    .all('programme')
    .map(({ message }) => message)
const lastTake = () => takes().findLast((message) => (message as { type: string }).type === 'take')

it('starts with the first scene, says so to the engine, the meetings and the voice, and stops', async () => {
  const air = useAirStore()
  expect([air.isFeedOn, air.onAirName]).toEqual([false, ''])
  air.startFeed()
  expect([air.isFeedOn, air.isFeedNew, air.onAirId, air.onAirName]).toEqual([true, true, first, 'Welcome'])
  expect(feeds).toEqual([[true, false]])
  expect(voices.at(-1)).toBe(show.name)
  await nextTick()
  expect(lastTake()).toMatchObject({ scene: { showId: 'a', sceneId: first } })
  air.stopFeed()
  expect([air.isFeedOn, air.isFeedNew, feeds.at(-1), voices.at(-1)]).toEqual([false, false, [false, false], null])
  expect(FakeWorker.made[0]!.all('closeOutput')).toHaveLength(1)
})

it('lets only the tab that edits start it', () => {
  showStore.isEditor = false
  const air = useAirStore()
  air.startFeed()
  expect([air.isFeedOn, feeds]).toEqual([false, []])
})

it('a number key chooses what comes first while nothing is on air, and takes it when something is', async () => {
  const air = useAirStore()
  air.takeOnAir(second)
  expect([showStore.onAirId, air.isFeedOn]).toEqual([second, false])
  air.startFeed()
  air.takeOnAir(first)
  await nextTick()
  expect([air.onAirId, showStore.onAirId]).toEqual([first, second])
  expect(lastTake()).toMatchObject({ scene: { sceneId: first } })
})

it('the card covers the scene until another is taken', async () => {
  const air = useAirStore()
  air.toggleCard()
  expect(air.isCardWanted).toBe(false)
  air.startFeed()
  air.toggleCard()
  await nextTick()
  expect(air.showsCard).toBe(true)
  expect(takes().at(-1)).toEqual({ type: 'card', isShown: true })
  air.takeOnAir(second)
  await nextTick()
  expect(air.showsCard).toBe(false)
  expect(takes()).toContainEqual({ type: 'card', isShown: false })
})

it('another show, or the loss of the scene, leaves on air what was there; edits of it are seen', async () => {
  const air = useAirStore()
  air.startFeed()
  showStore.show = updateScene(show, first, (scene) => ({ ...scene, name: 'Hello' }))
  expect(air.onAirName).toBe('Hello')
  showStore.show = removeScene(showStore.show, first)
  expect([air.isOnAirHere, air.onAirId, air.onAirName, air.isOnAirShowOpen]).toEqual([false, null, 'Hello', true])
  Object.assign(showStore, { showId: 'b', show: { ...show, name: 'Other' }, onAirId: second })
  await nextTick()
  expect([air.isOnAirShowOpen, air.onAirShow?.name, air.onAirSceneId]).toEqual([false, show.name, first])
  expect(FakeWorker.made[0]!.all('document').map(({ showId }) => showId)).toContain('b')
  // The scene comes back with its show.
  Object.assign(showStore, { showId: 'a', show })
  expect([air.isOnAirHere, air.onAirName]).toEqual([true, 'Welcome'])
})

it('another tab that takes the feed over is told of, and stays so until the feed starts anew', () => {
  const air = useAirStore()
  air.startFeed()
  taken()
  expect([air.isFeedOn, air.isFeedTaken, feeds.at(-1)]).toEqual([false, true, [false, false]])
  air.startFeed()
  expect(air.isFeedTaken).toBe(false)
})

it('a new engine gets the show and the scene on air again, and the feed goes on', async () => {
  const air = useAirStore()
  air.startFeed()
  air.takeOnAir(second)
  await nextTick()
  useEngineStore().restart()
  const anew = FakeWorker.made[1]!
  expect(anew.types.filter((type) => ['document', 'openShow', 'programme', 'openOutput'].includes(type))).toEqual([
    'document',
    'openShow',
    'programme',
    'programme',
    'openOutput',
  ])
  expect(lastTake()).toMatchObject({ scene: { showId: 'a', sceneId: second } })
  expect(feeds.at(-1)).toEqual([true, false])
})

it('a page that is loaded anew goes on with what it had on air, once the server answers', async () => {
  vi.useFakeTimers()
  try {
    useAirStore().startFeed()
    await vi.advanceTimersByTimeAsync(0)
    disposePinia(pinia)
    load()
    feeds.length = 0
    stored.answer = () => Promise.reject(new Error('no server'))
    const air = useAirStore()
    await vi.advanceTimersByTimeAsync(1000)
    expect(air.isFeedOn).toBe(false)
    stored.answer = () => Promise.resolve({ show })
    await vi.advanceTimersByTimeAsync(1500)
    expect([air.isFeedOn, air.onAirSceneId, feeds]).toEqual([true, first, [[true, true]]])
  } finally {
    vi.useRealTimers()
  }
})

it('does not go on with a scene that the show has lost meanwhile', async () => {
  useAirStore().startFeed()
  await nextTick()
  disposePinia(pinia)
  load()
  stored.answer = () => Promise.resolve({ show: removeScene(show, first) })
  const air = useAirStore()
  await new Promise((resolve) => setTimeout(resolve))
  expect(air.isFeedOn).toBe(false)
})
