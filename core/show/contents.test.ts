import { newShapeLayer } from '../layers/shape.ts'
import { newGroupLayer } from '../layers/group.ts'
import { textOf, newTextLayer } from '../layers/text.ts'
import { contentIdOf } from '../layers/index.ts'
import { describe, expect, it } from 'vitest'
import { sceneNamed, testShow } from '../../tests/support/shows.ts'
import { addContents, fillOf, layersShowing, makeOwn, makeSame, updateFill, updateText, withOwnContents, withoutUnusedContents } from './contents.ts'
import { copyLayer, copyScene } from './create.ts'
import { addLayer, addScene, removeScene } from './edits.ts'
import { removeLayers } from './layer-set-edits.ts'
import { ungroup } from './group-edits.ts'
import { findLayer, layersOf } from '../layers/tree.ts'
import { readShow } from './migrate.ts'
import type { Layer, Show, TextLayer } from './show.ts'

let count = 0
const makeId = () => `c${(count += 1)}`
const show = testShow()
const welcome = sceneNamed(show, 'Welcome')
const points = sceneNamed(show, 'Key points')
const title = welcome.layers[2] as TextLayer
/** The title twice: the same thing in another scene. */
const again = { ...copyLayer(title, makeId), id: 'again' } as TextLayer
const shared = addLayer(show, points.id, again)
const words = (of: Show, sceneId: string, layerId: string) =>
  textOf(
    of,
    findLayer(
      of.scenes.find(({ id }) => id === sceneId)!,
      layerId,
    ) as TextLayer,
  ).blocks[0]!.text
const renamed = (of: Show, contentId: string, text: string) =>
  updateText(of, contentId, (content) => ({ ...content, blocks: content.blocks.map((block) => ({ ...block, text })) }))

describe('the same thing', () => {
  it('says the same wherever it is shown, whatever becomes of it', () => {
    expect(layersShowing(shared, title.contentId).map(({ id }) => id)).toEqual([title.id, 'again'])
    const changed = renamed(shared, title.contentId, 'Swarms')
    expect([words(changed, welcome.id, title.id), words(changed, points.id, 'again')]).toEqual(['Swarms', 'Swarms'])
  })

  it('goes on when one of those that show it is taken out, and is gone with the last', () => {
    const less = removeLayers(shared, welcome.id, [title.id])
    expect(words(less, points.id, 'again')).toBe(words(show, welcome.id, title.id))
    const none = removeLayers(less, points.id, ['again'])
    expect(none.contents.some(({ id }) => id === title.contentId)).toBe(false)
    expect(removeScene(shared, points.id).contents.map(({ id }) => id)).toContain(title.contentId)
    expect(withoutUnusedContents(show)).toBe(show)
  })

  it('can be its own, and the same again', () => {
    const own = makeOwn(shared, points.id, 'again', makeId)
    const changed = renamed(own, title.contentId, 'Swarms')
    expect(words(changed, points.id, 'again')).toBe(words(show, welcome.id, title.id))
    expect(makeOwn(own, points.id, 'again', makeId)).toBe(own)
    const same = makeSame(changed, points.id, 'again', title.contentId)
    expect(words(same, points.id, 'again')).toBe('Swarms')
    // Its own copy is shown by nobody now.
    expect(same.contents).toHaveLength(show.contents.length)
    expect(() => readShow(structuredClone(same))).not.toThrow()
  })

  it('is of the layer’s own kind, or nothing changes', () => {
    const shape = newShapeLayer('Box', 'box', show.canvas, makeId)
    const both = addLayer(addContents(show, shape.contents), welcome.id, shape.layer)
    expect(makeSame(both, welcome.id, title.id, shape.layer.contentId)).toBe(both)
    expect(makeSame(both, welcome.id, title.id, 'nobody')).toBe(both)
    expect(makeOwn(both, welcome.id, 'nobody', makeId)).toBe(both)
    expect(() => textOf(both, { contentId: shape.layer.contentId })).toThrow('no text')
    expect(() => fillOf(both, title)).toThrow('no shape')
    const filled = updateFill(both, shape.layer.contentId, () => ({ kind: 'plain', colour: '#123456', opacity: 1 }))
    expect(fillOf(filled, shape.layer)).toMatchObject({ colour: '#123456' })
    expect(updateFill(both, title.contentId, () => ({ kind: 'plain', colour: '#123456', opacity: 1 }))).toEqual(both)
  })
})

describe('its own copy', () => {
  it('of a scene changes by itself; what its layers share with each other they go on sharing', () => {
    const twice = addLayer(show, welcome.id, { ...copyLayer(title, makeId), id: 'twice' })
    const { layers, contents } = withOwnContents(twice, sceneNamed(twice, 'Welcome').layers, makeId)
    const copy = copyScene({ ...welcome, layers }, 'Copy', makeId)
    const both = addScene(addContents(twice, contents), copy)
    const ids = layersOf(copy).flatMap((layer: Layer) => contentIdOf(layer) ?? [])
    expect(new Set(ids).size).toBe(1)
    const changed = renamed(both, ids[0]!, 'Swarms')
    expect(words(changed, welcome.id, title.id)).toBe('Reading a brood frame')
    expect(words(changed, copy.id, copy.layers[2]!.id)).toBe('Swarms')
    expect(() => readShow(structuredClone(changed))).not.toThrow()
  })

  it('is what a shrunk group leaves of a text that is shown elsewhere, at the size it had in the group', () => {
    const text = newTextLayer('Words', 'Words', show.canvas, makeId)
    const group = {
      ...newGroupLayer('Group', [text.layer], show.canvas, () => 'group'),
      placement: { x: 0, y: 0, width: 640, height: 360, angleDeg: 0, fit: 'stretch' as const },
    }
    const outside = { ...copyLayer(text.layer, makeId), id: 'outside' }
    const both = addLayer(addLayer(addContents(show, text.contents), welcome.id, group), points.id, outside)
    const apart = ungroup(both, welcome.id, 'group', makeId)
    const sizeOf = (sceneId: string, layerId: string) =>
      textOf(
        apart,
        findLayer(
          apart.scenes.find(({ id }) => id === sceneId)!,
          layerId,
        ) as TextLayer,
      ).blocks[0]!.sizePx
    expect([sizeOf(welcome.id, text.layer.id), sizeOf(points.id, 'outside')]).toEqual([20, 40])
    expect(() => readShow(structuredClone(apart))).not.toThrow()
  })
})

it('a show whose layer names no content, or one of another kind, is refused by name', () => {
  const lost = { ...show, contents: [] }
  expect(() => readShow(structuredClone(lost))).toThrow(`must name a text among the contents of the show, got \\"${title.contentId}\\"`)
  const twice = { ...show, contents: [...show.contents, show.contents[0]!] }
  expect(() => readShow(structuredClone(twice))).toThrow('must be unique')
})
