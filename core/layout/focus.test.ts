import { describe, expect, it } from 'vitest'
import { inputIdOf, layerKindOf } from '../layers/index.ts'
import { newInputLayer } from '../layers/input.ts'
import { isDeck, newDeck } from '../inputs/deck.ts'
import { seededRandom } from '../random/seeded.ts'
import { addInput } from '../show/edits.ts'
import { addDeckScenes } from '../decks/deck-scenes.ts'
import { testShow } from '../../tests/support/shows.ts'
import { canBeFocused, cropCloser, focusedScene, shareAt, spotAt } from './focus.ts'

const page = { id: 'p1', asset: 'a'.repeat(64), widthPx: 1920, heightPx: 1080, number: 1, title: '', notes: '', skipped: false, strokes: [] }
let ids = 0
const makeId = () => `f${(ids += 1)}`
const deck = newDeck('Slides', 's.pdf', [page], makeId)
const words = { scene: (style: string) => style, divider: 'Divider', ink: 'Ink' }
const show = addDeckScenes(testShow(), deck, ['third', 'shoulder', 'inside'], 0, { infos: new Map(), heads: new Map() }, words, makeId)
const [third, shoulder] = show.scenes.slice(1, 3)
const pageIn = (scene: (typeof show.scenes)[number]) => scene.layers.find((layer) => inputIdOf(layer) === deck.id)!

describe('a spot that is looked at closer', () => {
  it('is in the middle of what is seen, as far as the edges allow, and that is as large as it should be', () => {
    const random = seededRandom(7)
    for (let round = 0; round < 500; round += 1) {
      const before = random() < 0.5 ? null : { left: random() * 0.4, right: random() * 0.4, top: random() * 0.4, bottom: random() * 0.4 }
      const [left, width] = before === null ? [0, 1] : [before.left, 1 - before.left - before.right]
      const [x, y, scale] = [random(), random(), 1.2 + random() * 2.8]
      const crop = cropCloser(before, { x, y, scale })
      const seen = 1 - crop.left - crop.right
      expect(seen).toBeCloseTo(width / scale, 9)
      expect(crop.left).toBeGreaterThanOrEqual(left - 1e-9)
      expect(crop.left + seen).toBeLessThanOrEqual(left + width + 1e-9)
      const middle = (crop.left + seen / 2 - left) / width
      const nearest = Math.min(1 - 1 / scale / 2, Math.max(1 / scale / 2, x))
      expect(middle).toBeCloseTo(nearest, 9)
      // What is pressed while it is closer already is what lies there.
      const [u, v] = [random(), random()]
      const again = spotAt({ x, y, scale }, u, v)
      expect(left + again.x * width).toBeCloseTo(crop.left + u * seen, 9)
    }
  })

  it('is found across what a layer shows, between bars too; beside it, the nearest', () => {
    // 16:9 fitted into a square of 800 px: 450 px high, from 175 px down.
    const layer = { ...newInputLayer(deck, show.canvas, makeId), placement: { x: 100, y: 0, width: 800, height: 800, angleDeg: 0, fit: 'fit' as const } }
    const size = { widthPx: 1920, heightPx: 1080 }
    const at = (x: number, y: number) => shareAt(layer, size, x, y).map((share) => Math.round(share * 1000) / 1000)
    expect([at(100, 175), at(500, 400), at(900, 625), at(0, 0), at(700, 700)]).toEqual([
      [0, 0],
      [0.5, 0.5],
      [1, 1],
      [0, 0],
      [0.75, 1],
    ])
    const turned = { ...layer, placement: { ...layer.placement, angleDeg: 90 } }
    expect(shareAt(turned, size, 500, 800)[0]).toBeCloseTo(1, 6)
  })
})

describe('a page that fills the picture', () => {
  it('covers the canvas without frame; who presents and what a layout made gives way, titles and marks stay', () => {
    const title = testShow().scenes[0]!.layers.find((layer) => layerKindOf(layer).isText)!
    const scene = { ...third!, layers: [...third!.layers, title] }
    const context = { ...show, scenes: [scene] }
    const grown = focusedScene(context, scene, { layerId: pageIn(scene).id, fills: true, closer: null })
    expect(pageIn(grown).placement).toMatchObject({ x: 0, y: 0, width: show.canvas.widthPx, height: show.canvas.heightPx, angleDeg: 0 })
    expect(grown.layers.at(-1)).toBe(title)
    const left = grown.layers.slice(grown.layers.indexOf(pageIn(grown)) + 1)
    expect(left.every((layer) => layer.part === null && layerKindOf(layer).role?.(layer, context) !== 'person')).toBe(true)
    expect(scene.layers.length).toBeGreaterThan(grown.layers.length)
    expect(pageIn(scene).placement).toEqual(pageIn(third!).placement)
  })

  it('is looked at closer at the same time; a layer that is gone changes nothing', () => {
    const { id } = pageIn(shoulder!)
    const near = focusedScene(show, shoulder!, { layerId: id, fills: false, closer: { x: 0.5, y: 0.5, scale: 2 } })
    expect(pageIn(near).crop).toEqual({ left: 0.25, top: 0.25, right: 0.25, bottom: 0.25 })
    expect(pageIn(near).placement).toBe(pageIn(shoulder!).placement)
    const both = focusedScene(show, shoulder!, { layerId: id, fills: true, closer: { x: 0, y: 1, scale: 4 } })
    expect(pageIn(both).crop).toEqual({ left: 0, top: 0.75, right: 0.75, bottom: 0 })
    expect(focusedScene(show, shoulder!, { layerId: 'gone', fills: true, closer: null })).toBe(shoulder)
  })

  it('is one with a picture that is seen', () => {
    expect(canBeFocused(show, third!, pageIn(third!).id)).toBe(true)
    expect(canBeFocused(show, { layers: [{ ...pageIn(third!), visible: false }] }, pageIn(third!).id)).toBe(false)
    const title = show.scenes[0]!.layers.find((layer) => layerKindOf(layer).isText)!
    expect(canBeFocused(show, show.scenes[0]!, title.id)).toBe(false)
    expect(canBeFocused(show, third!, 'gone')).toBe(false)
    expect(addInput(show, deck).inputs.filter(isDeck).length).toBeGreaterThan(0)
  })
})
