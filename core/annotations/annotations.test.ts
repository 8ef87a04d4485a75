// Where a hand writes, and what a kept drawing looks like: as it did before.
import { describe, expect, it } from 'vitest'
import { randomStrokes } from '../../tests/support/random-drawings.ts'
import { testShow } from '../../tests/support/shows.ts'
import { StrokesCanvas } from '../drawing/strokes-canvas.ts'
import type { Stroke } from '../drawing/stroke.ts'
import { pageSurface, sceneSurface } from '../drawing/surface.ts'
import { isDeck, newBoard, newDeck } from '../inputs/deck.ts'
import { newInputLayer } from '../layers/input.ts'
import { outlinePicture } from '../outline/outline-picture.ts'
import { renderReference } from '../render/render-reference.ts'
import { readShow } from '../show/migrate.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { addSheet } from '../decks/deck-edits.ts'
import { LIMITS } from '../schema/limits.ts'
import { clearPage, hasRoomFor, keepDrawing } from './keep-drawing.ts'
import { surfaceAt, surfacesOf } from './surface-at.ts'

let count = 0
const makeId = () => `a${(count += 1)}`
const CANVAS = { widthPx: 320, heightPx: 180, frameRate: 30 }
const page = (id: string) => ({ id, asset: 'a'.repeat(64), widthPx: 200, heightPx: 100, number: 1, title: '', notes: '', skipped: false, strokes: [] })
const deck = newDeck('Slides', 's.pdf', [page('p1'), page('p2')], makeId)
const base = testShow()
const layer = {
  ...newInputLayer(deck, CANVAS, makeId),
  crop: { left: 0.5, top: 0, right: 0, bottom: 0 },
  placement: { x: 100, y: 20, width: 100, height: 100, angleDeg: 90, fit: 'stretch' as const },
}
const scene = { ...base.scenes[0]!, layers: [layer] }
const show = { ...base, canvas: CANVAS, inputs: [...base.inputs, deck], scenes: [scene] }
const blank = { ...show, scenes: [{ ...scene, layers: [] }] }

describe('where a hand writes', () => {
  it('is the page under it, as it is cropped and turned', () => {
    const { surface, toSurface, heightPx } = surfaceAt(show, scene, 150, 70)
    expect([surface, heightPx]).toEqual([pageSurface(deck.id, 'p1'), 100])
    // In the middle of what is seen, which is the right half of the page.
    expect(toSurface(150, 70)).toEqual([0.75, 0.5])
    // Turned by a quarter to the right: down on the canvas is right on the page, left is down.
    const [u, v] = toSurface(150, 95)
    expect([u, v]).toEqual([expect.closeTo(0.875, 9), expect.closeTo(0.5, 9)])
    expect(toSurface(125, 70)[1]).toBeCloseTo(0.75, 9)
  })

  it('is the scene everywhere else, and on what is hidden', () => {
    expect(surfaceAt(show, scene, 99, 70).surface).toBe(sceneSurface(scene.id))
    expect(surfaceAt(show, { ...scene, layers: [{ ...layer, visible: false }] }, 150, 70).surface).toBe(sceneSurface(scene.id))
    expect(surfacesOf(show, scene)).toEqual([sceneSurface(scene.id), pageSurface(deck.id, 'p1')])
  })
})

describe('a drawing that is kept', () => {
  it.each([1, 2, 3, 4])('looks over a scene as it did before, but for its edges (seed %i)', (seed) => {
    // Within the canvas, since a form may reach beyond it and a surface does not.
    const strokes = randomStrokes(seed, 7).map((one): Stroke => ({
      ...one,
      points: one.points.map((value, index) => (index % 3 === 2 ? value : 0.2 + value * 0.5)),
    }))
    const kept = keepDrawing(blank, sceneSurface(scene.id), strokes, 'Drawing', makeId)
    expect(readShow(JSON.parse(JSON.stringify(kept)))).toMatchObject({ scenes: [{ layers: [{ name: 'Drawing' }] }] })
    const plan = planFrame(kept, { scene: kept.scenes[0]!, ground: 'clear' }, 0, new Map())
    const pictures = new Map(plan.outlines.map(({ sourceId, outline, widthPx, heightPx }) => [sourceId, outlinePicture(outline, widthPx, heightPx)]))
    const { data } = renderReference(plan, pictures as never)
    const canvas = new StrokesCanvas(CANVAS.widthPx, CANVAS.heightPx)
    canvas.show(strokes)
    const { x, y, picture } = canvas.picture()!
    let differ = 0
    for (let at = 0; at < CANVAS.widthPx * CANVAS.heightPx; at += 1) {
      const [column, row] = [(at % CANVAS.widthPx) - x, Math.floor(at / CANVAS.widthPx) - y]
      const isInside = column >= 0 && row >= 0 && column < picture.widthPx && row < picture.heightPx
      const before = isInside ? picture.data[(row * picture.widthPx + column) * 4 + 3]! / 255 : 0
      if (Math.abs(before - data[at * 4 + 3]!) > 0.15) differ += 1
    }
    expect(differ / (CANVAS.widthPx * CANVAS.heightPx)).toBeLessThan(0.002)
  })

  it('is part of its page, is taken away again, and nothing is kept nowhere', () => {
    const strokes = randomStrokes(1, 3)
    const kept = keepDrawing(show, pageSurface(deck.id, 'p2'), strokes, 'Drawing', makeId)
    const pagesOf = (one: typeof show) => one.inputs.find(isDeck)!.pages.map((each) => each.strokes.length)
    expect([pagesOf(kept as typeof show), pagesOf(clearPage(kept, deck.id, 'p2') as typeof show)]).toEqual([
      [0, 3],
      [0, 0],
    ])
    for (const surface of ['nonsense', sceneSurface('gone')]) expect(keepDrawing(show, surface, strokes, 'Drawing', makeId)).toBe(show)
    expect(keepDrawing(show, pageSurface(deck.id, 'p1'), [], 'Drawing', makeId)).toBe(show)
  })

  it('has room up to the very last stroke', () => {
    const room = (more: number) => hasRoomFor(show, pageSurface(deck.id, 'p1'), more)
    expect([room(LIMITS.strokes), room(LIMITS.strokes + 1)]).toEqual([true, false])
  })
})

it('a white board has sheets that differ by their ids alone, and takes one more', () => {
  const board = newBoard('Board', { asset: 'b'.repeat(64), widthPx: 320, heightPx: 180 }, 3, makeId)
  const added = addSheet({ ...show, inputs: [board] }, board.id, makeId).inputs.find(isDeck)!
  expect(added.pages.map(({ number, asset }) => [number, asset[0]])).toEqual([1, 2, 3, 4].map((number) => [number, 'b']))
  expect(new Set(added.pages.map(({ id }) => id)).size).toBe(4)
  expect(addSheet(show, deck.id, makeId).inputs.find(isDeck)!.pages).toHaveLength(2)
})
