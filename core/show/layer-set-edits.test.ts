import { textOf, newTextLayer } from '../layers/text.ts'
import { contentIdOf } from '../layers/index.ts'
import { describe, expect, it } from 'vitest'
import { showCase } from '../../tests/support/random-shows.ts'
import { boxRound } from '../box/placement.ts'
import { addLayer, placeLayer, updateLayer } from './edits.ts'
import { addContents } from './contents.ts'
import { duplicateLayers, moveLayersBy, removeLayers } from './layer-set-edits.ts'
import { RANGES } from '../schema/limits.ts'
import type { Show } from './show.ts'

let count = 0
const makeId = () => `set${(count += 1)}`

/** A show whose first scene has three texts, at 0, 100 and 200 px. */
function withTexts(): { show: Show; sceneId: string; ids: readonly string[] } {
  let { show } = showCase(301)
  const sceneId = show.scenes[0]!.id
  show = { ...show, scenes: show.scenes.map((scene) => (scene.id === sceneId ? { ...scene, layers: [] } : scene)), contents: [] }
  const ids = [0, 100, 200].map((x) => {
    const { layer, contents } = newTextLayer(`Text ${x}`, 'Words', show.canvas, makeId)
    show = placeLayer(addLayer(addContents(show, contents), sceneId, layer), sceneId, layer.id, { x, y: 0 })
    return layer.id
  })
  return { show, sceneId, ids }
}

const layersOfFirst = (show: Show) => show.scenes[0]!.layers
const xs = (show: Show) => layersOfFirst(show).map(({ placement }) => placement.x)

describe('moveLayersBy', () => {
  it('moves some by as much, and leaves what is locked', () => {
    const { show, sceneId, ids } = withTexts()
    expect(xs(moveLayersBy(show, sceneId, ids.slice(1), 7, 0))).toEqual([0, 107, 207])
    const locked = updateLayer(show, sceneId, ids[1]!, (layer) => ({ ...layer, locked: true }))
    expect(xs(moveLayersBy(locked, sceneId, ids, 7, 0))).toEqual([7, 100, 207])
    expect(moveLayersBy(show, sceneId, ['nobody'], 7, 7)).toBe(show)
    expect(moveLayersBy(show, sceneId, ids, 0, 0)).toBe(show)
  })

  it('keeps them as they lie to each other: all stop where one would leave its range', () => {
    const { show, sceneId, ids } = withTexts()
    const { max, min } = RANGES.position
    expect(xs(moveLayersBy(show, sceneId, ids, 1e9, 0))).toEqual([max - 200, max - 100, max])
    expect(xs(moveLayersBy(show, sceneId, ids, -1e9, 0))).toEqual([min, min + 100, min + 200])
  })
})

describe('duplicateLayers', () => {
  it('puts copies in front of the frontmost, each with words of its own', () => {
    const { show, sceneId, ids } = withTexts()
    const { show: next, copyIds } = duplicateLayers(show, sceneId, [ids[1]!, ids[0]!], makeId)
    expect(layersOfFirst(next).map(({ id }) => id)).toEqual([ids[0], ids[1], ...copyIds, ids[2]])
    const [first, , copy] = layersOfFirst(next)
    expect(contentIdOf(copy!)).not.toBe(contentIdOf(first!))
    expect(textOf(next, copy as never)).toEqual(textOf(next, first as never))
    expect(duplicateLayers(show, sceneId, ['nobody'], makeId)).toEqual({ show, copyIds: [] })
  })
})

describe('removeLayers', () => {
  it('takes them out with what nobody else shows', () => {
    const { show, sceneId, ids } = withTexts()
    const next = removeLayers(show, sceneId, ids.slice(0, 2))
    expect(layersOfFirst(next).map(({ id }) => id)).toEqual([ids[2]])
    expect(next.contents).toHaveLength(1)
  })
})

describe('boxRound', () => {
  it('is the smallest upright box, of turned ones too', () => {
    const at = (x: number, y: number, width: number, height: number, angleDeg = 0) => ({ x, y, width, height, angleDeg, fit: 'fit' as const })
    expect(boxRound([])).toBeNull()
    expect(boxRound([at(10, 20, 30, 40), at(-5, 50, 10, 100)])).toEqual({ x: -5, y: 20, width: 45, height: 130 })
    // A quarter turn swaps the sides; an eighth of a square reaches √2 as far.
    const quarter = boxRound([at(0, 0, 100, 40, 90)])!
    expect([quarter.x, quarter.y, quarter.width, quarter.height].map((value) => Math.round(value * 1e9) / 1e9)).toEqual([30, -30, 40, 100])
    expect(boxRound([at(0, 0, 100, 100, 45)])!.width).toBeCloseTo(100 * Math.SQRT2, 9)
  })
})
