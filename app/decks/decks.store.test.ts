import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, shallowReactive } from 'vue'
import { addDeckScenes } from '../../core/decks/deck-scenes.ts'
import { setPage, skipPage } from '../../core/decks/deck-edits.ts'
import { newDeck } from '../../core/inputs/deck.ts'
import { inputIdOf } from '../../core/layers/index.ts'
import type { Layer, Scene, Show } from '../../core/show/show.ts'
import { testShow } from '../../tests/support/shows.ts'
import { useDecksStore } from './decks.store.ts'

const pagesOf = (name: string, count: number) =>
  Array.from({ length: count }, (_, index) => ({
    ...{ id: `${name}${index + 1}`, asset: String(index).repeat(64).slice(0, 64), widthPx: 16, heightPx: 9 },
    ...{ number: index + 1, title: '', notes: '', skipped: false, strokes: [] },
  }))
let ids = 0
const makeId = () => `t${(ids += 1)}`
const [bees, honey] = [newDeck('Bees', 'b.pdf', pagesOf('b', 4), makeId), newDeck('Honey', 'h.pdf', pagesOf('h', 2), makeId)]
const words = { scene: (style: string) => style, divider: 'Divider', ink: 'Ink' }
const facts = { infos: new Map(), heads: new Map() }
const withBees = addDeckScenes(testShow(), bees, ['whole'], 0, facts, words, makeId)
const show = addDeckScenes(withBees, honey, ['whole'], 1, facts, words, makeId)
const [plain, beeScene, honeyScene] = show.scenes as [Scene, Scene, Scene]
const layerOf = (scene: Scene) => scene.layers.find((layer) => [bees.id, honey.id].includes(inputIdOf(layer) ?? ''))!

const showStore = shallowReactive({ showId: 'a' as string | null, show: show as Show | null, scene: plain as Scene | null, layer: null as Layer | null })
const air = shallowReactive({ onAirId: null as string | null })
const told: string[] = []
let restart: () => void = () => undefined
vi.mock('../show/show.store.ts', () => ({ useShowStore: () => showStore }))
vi.mock('../air/air.store.ts', () => ({ useAirStore: () => air }))
vi.mock('../engine/engine.store.ts', () => ({
  useEngineStore: () => ({
    calls: () => ({ programme: { turnDeck: ({ showId, inputId, pageId }: Record<string, string>) => told.push(`${showId} ${inputId} ${pageId}`) } }),
    listen: ({ onStarted }: { onStarted: () => void }) => (restart = onStarted),
  }),
}))

/** As when the page is loaded. */
function load() {
  setActivePinia(createPinia())
  return useDecksStore()
}

beforeEach(() => {
  sessionStorage.clear()
  told.length = 0
  Object.assign(showStore, { showId: 'a', show, scene: plain, layer: null })
  air.onAirId = null
})

describe('the deck that keys turn', () => {
  it('is the one that is selected, else the one on air, else the one on the stage', async () => {
    const decks = load()
    expect([decks.current, decks.turn(1)]).toEqual([null, false])
    showStore.scene = beeScene
    expect(decks.current?.deck.id).toBe(bees.id)
    air.onAirId = honeyScene.id
    expect(decks.current?.deck.id).toBe(honey.id)
    // On air there are no slides: then those on the stage.
    air.onAirId = plain.id
    expect(decks.current?.deck.id).toBe(bees.id)
    showStore.layer = layerOf(honeyScene)
    await nextTick()
    expect(decks.current?.deck.id).toBe(honey.id)
  })

  it('is none that stays at a page, or is hidden', () => {
    const decks = load()
    const stays = setPage(show, beeScene.id, layerOf(beeScene).id, 'b2')
    Object.assign(showStore, { show: stays, scene: stays.scenes[1]! })
    expect(decks.current).toBeNull()
    Object.assign(showStore, { show, scene: { ...beeScene, layers: beeScene.layers.map((layer) => ({ ...layer, visible: false })) } })
    expect(decks.current).toBeNull()
  })

  it('is on air by the layer that shows it there', () => {
    const decks = load()
    showStore.scene = beeScene
    expect(decks.layerOnAir).toBeNull()
    air.onAirId = beeScene.id
    expect(decks.layerOnAir).toBe(layerOf(beeScene).id)
  })
})

describe('turning', () => {
  it('goes page by page, tells the engine, and stops at either end', () => {
    const decks = load()
    showStore.scene = beeScene
    expect([decks.turn(-1), decks.turn(1), decks.turn(1)]).toEqual([false, true, true])
    expect([decks.current?.page.id, decks.current?.index, decks.current?.next?.id]).toEqual(['b3', 2, 'b4'])
    expect(decks.turn(1000)).toBe(true)
    expect([decks.current?.next, decks.turn(1)]).toEqual([null, false])
    expect(told).toEqual(['b2', 'b3', 'b4'].map((pageId) => `a ${bees.id} ${pageId}`))
  })

  it('passes over what is skipped, and counts what is shown', () => {
    const decks = load()
    const skips = skipPage(show, bees.id, 'b2', true)
    Object.assign(showStore, { show: skips, scene: beeScene })
    decks.turn(1)
    expect([decks.current?.page.id, decks.current?.index, decks.current?.shown.length]).toEqual(['b3', 1, 3])
    decks.goTo(bees.id, 'b2')
    expect(decks.current?.index).toBe(-1)
  })

  it('is remembered by the tab, of each show by itself, and told again to an engine that was started anew', () => {
    const decks = load()
    showStore.scene = beeScene
    decks.turn(2)
    told.length = 0
    const again = load()
    expect([again.current?.page.id, told]).toEqual(['b3', [`a ${bees.id} b3`]])
    restart()
    expect(told).toHaveLength(2)
    showStore.showId = 'b'
    expect(again.current?.page.id).toBe('b1')
  })

  it('begins anew where what was remembered is spoiled, or the page is gone', () => {
    sessionStorage.setItem('green-room:pages', 'spoiled')
    showStore.scene = beeScene
    expect(load().current?.page.id).toBe('b1')
    sessionStorage.setItem('green-room:pages', JSON.stringify([[`a ${bees.id}`, 'gone'], 'x', [1, 2]]))
    expect(load().current?.page.id).toBe('b1')
  })
})
