import { describe, expect, it } from 'vitest'
import { differenceOf } from '../../tests/support/pictures.ts'
import { picturesFor, showCase, SHOW_SEEDS } from '../../tests/support/random-shows.ts'
import { isSceneLayer } from '../layers/scene.ts'
import { contentIdOf } from '../layers/index.ts'
import { layersOf } from '../layers/tree.ts'
import { renderReference } from '../render/render-reference.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { updateLayer } from './edits.ts'
import { readShow } from './migrate.ts'
import type { Show } from './show.ts'
import { unlinkScene } from './unlink-scene.ts'

let count = 0
const makeId = () => `u${(count += 1)}`

const fitModes = ['fit', 'fill', 'stretch'] as const

/** Shows whose first scene shows another one. */
const cases = SHOW_SEEDS.map((seed) => [seed, showCase(seed)] as const).flatMap(([seed, { show, infos, inputs }]) => {
  const linked = layersOf(show.scenes[0]!).find(isSceneLayer)
  return linked === undefined ? [] : [{ seed, show, infos, inputs, linked }]
})

describe('a layer that shows a scene, made a copy', () => {
  it('has cases to be tried on', () => expect(cases.length).toBeGreaterThan(3))

  it.each(cases.flatMap((one) => fitModes.map((fit) => ({ ...one, fit }))))('looks as it did: seed $seed, $fit', ({ show, infos, inputs, linked, fit }) => {
    const scene = show.scenes[0]!
    // Of other proportions than the canvas, so that each way to fit does something.
    const before = updateLayer(show, scene.id, linked.id, (layer) => ({
      ...layer,
      placement: { ...layer.placement, width: layer.placement.width * 1.25, fit },
    }))
    const after = unlinkScene(before, scene.id, linked.id, makeId)
    expect(readShow(structuredClone(after))).toEqual(after)
    const drawn = (from: Show) => {
      const plan = planFrame(from, { scene: from.scenes[0]! }, 0, infos)
      return renderReference(plan, picturesFor({ inputs }, plan)).data
    }
    const { max, shareAbove } = differenceOf(drawn(before), drawn(after), 1 / 255)
    // A filled box reads a little beyond its edge, a cropped picture ends there.
    if (fit === 'fill') expect(shareAbove).toBeLessThan(0.01)
    else expect(max).toBeLessThan(1.5 / 255)
  })

  it('follows the scene no more, and shares nothing with it', () => {
    const { show, linked } = cases[0]!
    const scene = show.scenes[0]!
    const after = unlinkScene(show, scene.id, linked.id, makeId)
    const group = layersOf(after.scenes[0]!).find(({ id }) => id === linked.id)!
    expect(group.kind).toBe('group')
    const shown = show.scenes.find(({ id }) => id === linked.sceneId)!
    const [own, theirs] = [layersOf({ layers: [group] }).map(contentIdOf), layersOf(shown).map(contentIdOf)].map((ids) => ids.filter((id) => id !== null))
    expect(own!.filter((id) => theirs!.includes(id))).toEqual([])
    expect(after.scenes.slice(1)).toEqual(show.scenes.slice(1))
  })

  it('is nothing else: other layers and unknown ids change nothing', () => {
    const { show } = cases[0]!
    const scene = show.scenes[0]!
    const plain = layersOf(scene).find((layer) => !isSceneLayer(layer))!
    expect(unlinkScene(show, scene.id, plain.id, makeId)).toBe(show)
    expect(unlinkScene(show, scene.id, 'nobody', makeId)).toBe(show)
    expect(unlinkScene(show, 'nowhere', plain.id, makeId)).toBe(show)
  })
})
