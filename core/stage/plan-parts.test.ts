import { describe, expect, it } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import { contentIdOf } from '../layers/index.ts'
import { newSceneLayer } from '../layers/scene.ts'
import { newTextLayer } from '../layers/text.ts'
import { findLayer } from '../layers/tree.ts'
import { addContents, updateText } from '../show/contents.ts'
import { addLayer, renameShow, setPresenter, updateInput, updateLayer, updateScene } from '../show/edits.ts'
import type { Show } from '../show/show.ts'
import { areSameParts, layerParts, planParts } from './plan-parts.ts'

let count = 0
const makeId = () => `p${(count += 1)}`

/** Three scenes: the first shows the second and a text; the third has a text of its own. */
function threeScenes() {
  const base = testShow()
  const [first, second, third] = base.scenes
  const shared = newTextLayer('Title', 'Shown in the first', base.canvas, makeId)
  const own = newTextLayer('Note', 'Shown in the third', base.canvas, makeId)
  const withTexts = addLayer(addContents(base, [...shared.contents, ...own.contents]), first!.id, shared.layer)
  const show = addLayer(addLayer(withTexts, third!.id, own.layer), first!.id, newSceneLayer(second!, base.canvas, makeId))
  return { show, ids: [first!.id, second!.id, third!.id] as const, textIds: [shared.contents[0]!.id, own.contents[0]!.id] as const }
}

const isStale = (before: Show, after: Show, sceneId: string) => {
  const partsOf = (show: Show) =>
    planParts(
      show,
      show.scenes.find(({ id }) => id === sceneId)!,
    )
  return !areSameParts(partsOf(before), partsOf(after))
}

describe('planParts', () => {
  it.each([
    ['a text of the first', 0, [true, false, false]],
    ['a text of the third', 1, [false, false, true]],
  ] as const)('%s makes its own scene stale and no other', (_name, text, expected) => {
    const { show, ids, textIds } = threeScenes()
    const after = updateText(show, textIds[text], (content) => ({ ...content, align: 'end' }))
    expect(ids.map((id) => isStale(show, after, id))).toEqual(expected)
  })

  it('a scene that another one shows makes both stale', () => {
    const { show, ids } = threeScenes()
    const after = updateScene(show, ids[1], (scene) => ({ ...scene, layers: scene.layers.slice(1) }))
    expect(ids.map((id) => isStale(show, after, id))).toEqual([true, true, false])
  })

  it('a layer by itself is stale when it changes, or its words, and not with its neighbours', () => {
    const { show, ids, textIds } = threeScenes()
    const text = show.scenes[0]!.layers.find((layer) => contentIdOf(layer) === textIds[0])!
    const isLayerStale = (after: Show) => !areSameParts(layerParts(show, text), layerParts(after, findLayer(after.scenes[0]!, text.id)))
    expect(isLayerStale(updateText(show, textIds[0], (content) => ({ ...content, align: 'end' })))).toBe(true)
    expect(isLayerStale(updateLayer(show, ids[0], text.id, (layer) => ({ ...layer, opacity: 0.5 })))).toBe(true)
    expect(isLayerStale(updateLayer(show, ids[0], show.scenes[0]!.layers[0]!.id, (layer) => ({ ...layer, opacity: 0.5 })))).toBe(false)
    expect(isLayerStale(updateText(show, textIds[1], (content) => ({ ...content, align: 'end' })))).toBe(false)
  })

  it('inputs, the canvas and who presents make all stale; the name of the show none', () => {
    const { show, ids } = threeScenes()
    const all = (after: Show) => ids.map((id) => isStale(show, after, id))
    expect(all(updateInput(show, show.inputs[0]!.id, (input) => ({ ...input, name: 'Other' })))).toEqual([true, true, true])
    expect(all({ ...show, canvas: { ...show.canvas, widthPx: 640 } })).toEqual([true, true, true])
    expect(all(setPresenter(show, { name: 'Ada' }))).toEqual([true, true, true])
    expect(all(renameShow(show, 'Other'))).toEqual([false, false, false])
  })
})
