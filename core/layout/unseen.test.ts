import { newTextLayer } from '../layers/text.ts'
import { newStep } from '../steps/treatment.ts'
import { newInputLayer } from '../layers/input.ts'
import { newGroupLayer } from '../layers/group.ts'
import { describe, expect, it } from 'vitest'
import { allInfos, sceneNamed, testShow } from '../../tests/support/shows.ts'
import { addContents } from '../show/contents.ts'
import { addInput, addLayer, updateInput, updateLayer } from '../show/edits.ts'
import type { Input, Layer, Show, Step } from '../show/show.ts'
import { depthAdvice } from './depth-advice.ts'
import { hiddenLayers } from './hidden-layers.ts'
import { cured, curesFor, mended, unseen, type UnseenReason } from './unseen.ts'

let count = 0
const makeId = () => `u${(count += 1)}`
const screen: Input = { id: 'screen', kind: 'screen', name: 'Screen', source: { type: 'standin' }, frameRate: 30, treatment: [] }
const show = addInput(testShow(), screen)
const scene = sceneNamed(show, 'Welcome')
const [wall, camera] = scene.layers as [Layer, Layer]
const facts = { infos: allInfos(show), heads: new Map() }
const sceneOf = (one: Show) => one.scenes.find(({ id }) => id === scene.id)!
const layerOf = (one: Show, id: string) => sceneOf(one).layers.find((layer) => layer.id === id)!
const withCamera = (part: Partial<Layer>) => updateLayer(show, scene.id, camera.id, (layer) => ({ ...layer, ...part }) as Layer)
const crop = (params: Partial<Extract<Step, { kind: 'crop' }>['params']>): Step => {
  const step = newStep('crop', makeId) as Extract<Step, { kind: 'crop' }>
  return { ...step, params: { ...step.params, ...params } }
}
const page = newInputLayer(screen, show.canvas, makeId)
const onTop: Layer = { ...page, placement: { ...page.placement, fit: 'fill' } }
const words = newTextLayer('Nothing', ' ', show.canvas, makeId)
const bare = words.contents.map((content) => (content.kind === 'text' ? { ...content, text: { ...content.text, plate: null } } : content))

const cases: readonly (readonly [reason: UnseenReason, show: Show, layerId: string])[] = [
  ['hidden', withCamera({ visible: false }), camera.id],
  ['clear', withCamera({ opacity: 0 }), camera.id],
  ['outside', withCamera({ placement: { ...camera.placement, x: 1280 } }), camera.id],
  ['outside', withCamera({ placement: { x: -400, y: 800, width: 300, height: 200, angleDeg: 30, fit: 'fill' } }), camera.id],
  ['outside', withCamera({ placement: { x: -500, y: 100, width: 300, height: 200, angleDeg: 0, fit: 'fill' } }), camera.id],
  ['croppedAway', withCamera({ treatment: [crop({ left: 60, right: 40 })] }), camera.id],
  ['croppedAway', updateInput(withCamera({ treatment: [crop({ top: 50 })] }), 'd1', (input) => ({ ...input, treatment: [crop({ bottom: 50 })] })), camera.id],
  ['empty', addLayer(addContents(show, bare), scene.id, words.layer), words.layer.id],
  [
    'empty',
    addLayer(
      show,
      scene.id,
      newGroupLayer('Group', [], show.canvas, () => 'group'),
    ),
    'group',
  ],
  ['covered', addLayer(show, scene.id, onTop), camera.id],
]

describe('a layer that is not seen', () => {
  it.each(cases)('%s: is told, and one edit mends it where an edit can', (reason, made, layerId) => {
    const found = unseen(made, sceneOf(made), layerOf(made, layerId), facts.infos)
    expect(found).toMatchObject({ layerId, reason })
    const next = mended(made, scene.id, found!, facts)
    if (reason === 'empty') return expect(next).toBeNull()
    expect(unseen(next!, sceneOf(next!), layerOf(next!, layerId), facts.infos)).toBeNull()
    return undefined
  })

  it('covered by a picture: comes just in front of that, and stays behind the presenter and the words', () => {
    const covered: Layer = { ...newInputLayer(screen, show.canvas, makeId), placement: { ...wall.placement, fit: 'fill' } }
    const layers = [covered, ...scene.layers]
    const made: Show = { ...show, scenes: show.scenes.map((one) => (one.id === scene.id ? { ...one, layers } : one)) }
    const found = unseen(made, sceneOf(made), covered, facts.infos)
    expect(found).toMatchObject({ reason: 'covered', by: wall.id })
    const next = mended(made, scene.id, found!, facts)!
    expect(sceneOf(next).layers.map(({ id }) => id)).toEqual([wall.id, covered.id, ...scene.layers.slice(1).map(({ id }) => id)])
  })

  it('missing: nothing that an edit could mend', () => {
    const found = unseen(show, scene, camera, new Map([...facts.infos].filter(([id]) => !id.endsWith('d1'))))
    expect(found).toEqual({ layerId: camera.id, reason: 'missing', by: null })
    expect(mended(show, scene.id, found!, facts)).toBeNull()
  })

  it('what is seen has no reason: every layer of the demo', () => {
    for (const one of show.scenes) for (const layer of one.layers) expect(unseen(show, one, layer, facts.infos), layer.name).toBeNull()
  })

  it('names the layer that covers it', () => {
    const made = addLayer(show, scene.id, onTop)
    expect(unseen(made, sceneOf(made), layerOf(made, wall.id), facts.infos)).toMatchObject({ reason: 'covered', by: onTop.id })
  })
})

describe('what covers the presenter', () => {
  const made = addLayer(show, scene.id, onTop)
  const advice = depthAdvice(made, sceneOf(made), facts.infos).find(({ layerId }) => layerId === camera.id)!

  it('can be made smaller, beside the head, or lose its paper', () => {
    expect(curesFor(made, sceneOf(made), advice)).toEqual(['smaller', 'dropWhite'])
    for (const cure of ['smaller', 'dropWhite'] as const) {
      const next = cured(made, scene.id, advice, cure, facts, makeId)
      const left = hiddenLayers(next, sceneOf(next), facts.infos).find(({ layerId, coveredBy }) => layerId === camera.id && coveredBy === onTop.id)
      expect(left?.hiddenShare ?? 0).toBeLessThan(0.3)
      expect(depthAdvice(next, sceneOf(next), facts.infos).some(({ layerId, coveredBy }) => layerId === camera.id && coveredBy === onTop.id)).toBe(false)
    }
  })

  it('but not when it is locked', () => {
    const locked = updateLayer(made, scene.id, onTop.id, (layer) => ({ ...layer, locked: true }))
    expect(curesFor(locked, sceneOf(locked), advice)).toEqual([])
  })
})
