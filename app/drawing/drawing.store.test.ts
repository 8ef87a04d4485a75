// The pens and what they did: steps back, fading, keeping, a show that is closed, a tab that is loaded again.
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { shallowReactive } from 'vue'
import { addDeckScenes } from '../../core/decks/deck-scenes.ts'
import type { Stroke } from '../../core/drawing/stroke.ts'
import { FADE_MS, pageSurface, sceneSurface } from '../../core/drawing/surface.ts'
import { isDeck, newDeck } from '../../core/inputs/deck.ts'
import type { DrawingMessage } from '../../core/programme/live-drawing.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import type { Scene, Show } from '../../core/show/show.ts'
import { testShow } from '../../tests/support/shows.ts'
import { FADES_AFTER_MS, useDrawingStore } from './drawing.store.ts'
import { usePen } from './use-pen.ts'

let ids = 0
const makeId = () => `t${(ids += 1)}`
const page = { id: 'p1', asset: 'a'.repeat(64), widthPx: 160, heightPx: 90, number: 1, title: '', notes: '', skipped: false, strokes: [] }
const deck = newDeck('Bees', 'b.pdf', [page], makeId)
const words = { scene: (style: string) => style, divider: 'Divider', ink: 'Ink' }
const first = addDeckScenes(testShow(), deck, ['whole'], 0, { infos: new Map(), heads: new Map() }, words, makeId)
const scene = first.scenes.find(({ layers }) => layers.some((layer) => 'inputId' in layer && layer.inputId === deck.id))!
const [onPage, onScene] = [pageSurface(deck.id, 'p1'), sceneSurface(scene.id)]

let isRefusing = false
const showStore = shallowReactive({
  showId: 'a' as string | null,
  show: first as Show | null,
  scene: scene as Scene | null,
  sceneId: scene.id as string | null,
  edit: (_label: string, make: (show: Show) => Show) => {
    if (!isRefusing) showStore.show = make(showStore.show!)
    return true
  },
})
const air = shallowReactive({ onAirId: null as string | null, focus: { now: null } })
const told: DrawingMessage[] = []
let restart: () => void = () => undefined
vi.mock('../show/show.store.ts', () => ({ useShowStore: () => showStore }))
vi.mock('../air/air.store.ts', () => ({ useAirStore: () => air }))
vi.mock('../decks/decks.store.ts', () => ({ useDecksStore: () => ({ decks: [deck] }) }))
vi.mock('../engine/engine.store.ts', () => ({
  useEngineStore: () => ({
    calls: () => ({ programme: { draw: (message: DrawingMessage) => told.push(message), point: () => undefined } }),
    listen: ({ onStarted }: { onStarted: () => void }) => (restart = onStarted),
  }),
}))

const stroke = (id: string): Stroke => ({ id, tool: 'line', colour: '#102030', width: 0.01, points: [0.1, 0.1, 0.5, 0.9, 0.9, 0.5] })
const idsOn = (drawing: ReturnType<typeof useDrawingStore>, surface = onPage) => drawing.on(surface).map((one) => one.stroke.id)
/** As when the page is loaded. */
function load() {
  setActivePinia(createPinia())
  return useDrawingStore()
}

beforeEach(() => {
  sessionStorage.clear()
  isRefusing = false
  Object.assign(showStore, { showId: 'a', show: first, scene, sceneId: scene.id })
  told.length = 0
  vi.useFakeTimers()
})
afterEach(() => void vi.useRealTimers())

describe('strokes', () => {
  it('go back and forth one by one, and a new one ends what could come back', () => {
    const drawing = load()
    for (const id of ['a', 'b']) drawing.add(onPage, stroke(id))
    drawing.erase(onPage, ['a'])
    const seen = [idsOn(drawing).join()]
    while (drawing.undo()) seen.push(idsOn(drawing).join())
    expect(seen).toEqual(['b', 'a,b', 'a', ''])
    expect(told.at(-1)).toMatchObject({ type: 'setStrokes', surface: onPage, strokes: [] })
    drawing.redo()
    drawing.add(onPage, stroke('c'))
    expect([idsOn(drawing), drawing.redo()]).toEqual([['a', 'c'], false])
  })

  it('are forgotten once they have faded, also when one was brought back', () => {
    const drawing = load()
    drawing.fades = true
    drawing.add(onPage, stroke('a'))
    drawing.clear()
    vi.advanceTimersByTime(FADES_AFTER_MS / 2)
    drawing.undo()
    expect(idsOn(drawing)).toEqual(['a'])
    vi.advanceTimersByTime(FADES_AFTER_MS + FADE_MS)
    expect([idsOn(drawing), drawing.isAnyDrawn, drawing.canUndo]).toEqual([[], false, false])
  })

  it('stop where a surface is full, and the one too many is taken off the air again', () => {
    const drawing = load()
    for (let i = 0; i < LIMITS.strokes; i += 1) drawing.add(onPage, stroke(`s${i}`))
    expect(drawing.add(onPage, stroke('more'))).toBe(false)
    expect(told.at(-1)).toMatchObject({ type: 'eraseStrokes', ids: ['more'] })
  })

  it('are there after a reload and told to an engine that starts again, but for what fades; nonsense in the memory is passed over', () => {
    const before = load()
    before.add(onPage, stroke('a'))
    before.fades = true
    before.add(onScene, stroke('b'))
    told.length = 0
    const drawing = load()
    expect([idsOn(drawing), idsOn(drawing, onScene)]).toEqual([['a'], []])
    restart()
    expect(told.filter(({ type }) => type === 'setStrokes')).toHaveLength(2)
    sessionStorage.setItem('green-room:drawings', JSON.stringify([['a nonsense', [stroke('x')]], [`a ${onPage}`, [{ id: 'x' }]], 7]))
    expect(idsOn(load())).toEqual([])
  })
})

describe('keeping', () => {
  const kept = () => showStore.show!.inputs.find(isDeck)!.pages[0]!.strokes.map(({ id }) => id)

  it('moves what lasts into the show, and what fades goes on fading', () => {
    const drawing = load()
    drawing.add(onPage, stroke('a'))
    drawing.add(onScene, stroke('b'))
    drawing.fades = true
    drawing.add(onPage, stroke('c'))
    expect(drawing.keep('keep', 'Drawing')).toBe('kept')
    expect([kept(), idsOn(drawing), idsOn(drawing, onScene), drawing.canUndo]).toEqual([['a'], ['c'], [], false])
    expect(showStore.show!.scenes.find(({ id }) => id === scene.id)!.layers.at(-1)!.name).toBe('Drawing')
  })

  it('loses nothing where the show refuses, or the page has no room', () => {
    const drawing = load()
    drawing.add(onPage, stroke('a'))
    isRefusing = true
    expect([drawing.keep('keep', 'Drawing'), idsOn(drawing)]).toEqual(['nothing', ['a']])
    isRefusing = false
    const full = Array.from({ length: LIMITS.strokes }, (_, i) => stroke(`k${i}`))
    const inputs = first.inputs.map((input) => (input.id === deck.id ? { ...deck, pages: [{ ...page, strokes: full }] } : input))
    showStore.show = { ...first, inputs }
    expect([drawing.keep('keep', 'Drawing'), idsOn(drawing), kept().length]).toEqual(['full', ['a'], LIMITS.strokes])
  })
})

describe('the hand', () => {
  const at = (x: number, y: number) => ({ x, y, pressure: 0.5 })

  it('draws a form of two corners and a line in eighths of a turn; a press without a way draws no form', () => {
    const drawing = load()
    const pen = usePen(() => undefined)
    drawing.tool = 'rectangle'
    pen.down(at(100, 100))
    pen.move([at(200, 150), at(300, 200)], true)
    pen.up()
    const [x0, y0, , x1, y1] = drawing.on(onPage)[0]!.stroke.points as [number, number, number, number, number]
    const { widthPx, heightPx } = first.canvas
    expect((x1 - x0) * widthPx).toBeCloseTo((y1 - y0) * heightPx, 0)
    pen.down(at(10, 10))
    pen.up()
    expect(drawing.on(onPage)).toHaveLength(1)
    expect(told.at(-1)).toMatchObject({ type: 'eraseStrokes', surface: onPage })
  })

  it('drops a stroke of a show that was closed while it was drawn', () => {
    const drawing = load()
    const pen = usePen(() => undefined)
    pen.down(at(100, 100))
    pen.move([at(200, 150)], false)
    showStore.showId = 'b'
    pen.up()
    expect(told.at(-1)).toMatchObject({ type: 'eraseStrokes', showId: 'a' })
    expect(idsOn(drawing)).toEqual([])
  })
})
