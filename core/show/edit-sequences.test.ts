// Whatever edits make of a show: it can be stored, planned and drawn, and going back leads to exactly what there was.
import { newTextLayer } from '../layers/text.ts'
import { newStep } from '../steps/treatment.ts'
import { newSceneLayer } from '../layers/scene.ts'
import { newOutlineLayer, newShapeLayer } from '../layers/shape.ts'
import { newInputLayer } from '../layers/input.ts'
import { newGroupLayer } from '../layers/group.ts'
import { contentIdOf } from '../layers/index.ts'
import jsonPatch from 'fast-json-patch'
import { describe, expect, it } from 'vitest'
import { picturesFor, SHOW_SEEDS, showCase } from '../../tests/support/random-shows.ts'
import { patched, patchOf } from '../patch/patch.ts'
import { seededRandom } from '../random/seeded.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { areSameParts, planParts } from '../stage/plan-parts.ts'
import { renderReference } from '../render/render-reference.ts'
import { steps } from '../steps/index.ts'
import { addContents, makeOwn, makeSame, updateFill, updateOutline, updateText, withOwnContents } from './contents.ts'
import { copyLayer, copyScene, newScene } from './create.ts'
import {
  addInput,
  addLayer,
  addScene,
  addStep,
  fitToCanvas,
  moveLayer,
  moveScene,
  placeLayer,
  removeInput,
  removeScene,
  toggleFavourite,
  updateLayer,
} from './edits.ts'
import { groupLayers, ungroup } from './group-edits.ts'
import { setPairTransition, setSceneTransition, setUsualTransition } from './show-transitions.ts'
import { usualTransitions, type Transition } from '../transitions/index.ts'
import { bringInOneByOne, duplicateLayers, moveLayersBy, removeLayers, updateLayers } from './layer-set-edits.ts'
import { layersOf, sceneCircle } from '../layers/tree.ts'
import { LIMITS } from '../schema/limits.ts'
import { readShow } from './migrate.ts'
import type { Layer, Scene, Show } from './show.ts'

const EDITS = 60
const COMES = { kind: 'fade', durationMs: 300, delayMs: 0, easing: { kind: 'linear' }, side: 'left' } as const

/** Transitions of every kind; the one that needs a picture takes any input. */
const ways = ({ inputs }: Show): readonly Transition[] => [
  ...Object.values(usualTransitions),
  { ...usualTransitions.dissolve, kind: 'pictureWipe', inputId: inputs.at(-1)!.id, softness: 0.2 },
]

/** One edit of any sort; null where the dice chose one that the interface would not offer. */
function edited(show: Show, random: () => number, makeId: () => string): Show | null {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const scene: Scene = pick(show.scenes)
  const layers = layersOf(scene)
  const layer: Layer | undefined = layers.length === 0 ? undefined : pick(layers)
  const hasRoom = scene.layers.length < 12 && show.scenes.length < 8
  const added = (made: { readonly layer: Layer; readonly contents: readonly Show['contents'][number][] }) =>
    hasRoom ? addLayer(addContents(show, made.contents), scene.id, made.layer) : null
  const edits: readonly (() => Show | null)[] = [
    () => added(newTextLayer('Text', 'Words {time}', show.canvas, makeId)),
    () => added(newShapeLayer('Shape', 'ellipse', show.canvas, makeId)),
    () => added(newOutlineLayer('Arrow', 'arrow', show.canvas, makeId)),
    () => added({ layer: newInputLayer(pick(show.inputs), show.canvas, makeId), contents: [] }),
    () => {
      const next = addLayer(show, scene.id, newSceneLayer(pick(show.scenes), show.canvas, makeId))
      return hasRoom && sceneCircle(next.scenes, scene.id) === null ? next : null
    },
    () => (hasRoom ? addScene(show, newScene('Scene', makeId)) : null),
    () => {
      if (!hasRoom) return null
      const own = withOwnContents(show, scene.layers, makeId)
      return addScene(addContents(show, own.contents), copyScene({ ...scene, layers: own.layers }, 'Copy', makeId))
    },
    () => (show.scenes.length > 1 ? removeScene(show, scene.id) : null),
    () => moveScene(show, scene.id, Math.floor(random() * show.scenes.length)),
    () => (show.inputs.length > 2 && random() < 0.2 ? removeInput(show, pick(show.inputs).id) : null),
    () => (show.inputs.length < 6 ? addInput(show, { id: makeId(), kind: 'colour', name: 'Colour', colour: '#123456', treatment: [] }) : null),
    () => setUsualTransition(show, pick(ways(show))),
    () => setSceneTransition(show, scene.id, random() < 0.3 ? null : pick(ways(show))),
    () => setPairTransition(show, pick(show.scenes).id, scene.id, random() < 0.3 ? null : pick(ways(show))),
    () => toggleFavourite(show, random() < 0.5 ? { type: 'drawn', name: pick(['folds', 'dunes']) } : { type: 'input', inputId: pick(show.inputs).id }),
    () =>
      bringInOneByOne(
        show,
        scene.id,
        layers.slice(0, 3).map(({ id }) => id),
        random() * 900,
        COMES,
      ),
    ...(layer === undefined ? [] : layerEdits(show, scene, layer, random, makeId)),
  ]
  return pick(edits)()
}

function layerEdits(show: Show, scene: Scene, layer: Layer, random: () => number, makeId: () => string): readonly (() => Show | null)[] {
  const contentId = contentIdOf(layer)
  const list = scene.layers.map(({ id }) => id)
  return [
    () => removeLayers(show, scene.id, [layer.id]),
    () => moveLayer(show, scene.id, layer.id, Math.floor(random() * 5)),
    () => placeLayer(show, scene.id, layer.id, { x: (random() - 0.5) * 1e5, width: random() * 300, angleDeg: random() * 900 - 450 }),
    () => fitToCanvas(show, scene.id, layer.id, 'fill'),
    () => updateLayer(show, scene.id, layer.id, (one) => ({ ...one, opacity: random(), visible: random() < 0.8, blend: random() < 0.5 ? 'screen' : 'normal' })),
    () => addStep(show, { type: 'layer', sceneId: scene.id, layerId: layer.id }, newStep(steps[Math.floor(random() * steps.length)]!.kind, makeId)),
    () => {
      const own = withOwnContents(show, [copyLayer(layer, makeId)], makeId)
      return scene.layers.length < 12 ? addLayer(addContents(show, own.contents), scene.id, own.layers[0]!) : null
    },
    // The same thing once more.
    () => (scene.layers.length < 12 && layer.kind !== 'scene' ? addLayer(show, scene.id, copyLayer(layer, makeId)) : null),
    () => makeOwn(show, scene.id, layer.id, makeId),
    () => (contentId === null ? null : makeSame(show, scene.id, layer.id, show.contents[Math.floor(random() * show.contents.length)]!.id)),
    () =>
      contentId === null
        ? null
        : updateText(show, contentId, (text) => ({ ...text, align: 'end', blocks: text.blocks.map((block) => ({ ...block, text: `${random()}` })) })),
    () => (contentId === null ? null : updateFill(show, contentId, () => ({ kind: 'plain', colour: '#445566', opacity: random() }))),
    () =>
      contentId === null
        ? null
        : updateOutline(show, contentId, (outline) => ({ ...outline, stroke: { widthPx: 1 + random() * 30, colour: '#778899', opacity: random() } })),
    () => (list.includes(layer.id) && depthOf(scene.layers) < LIMITS.depth ? groupLayers(show, scene.id, list.slice(0, 2), 'Group', makeId) : null),
    () => ungroup(show, scene.id, layer.id, makeId),
    () => moveLayersBy(show, scene.id, list.slice(0, 3), (random() - 0.5) * 5e4, (random() - 0.5) * 50),
    () => (scene.layers.length < 10 ? duplicateLayers(show, scene.id, list.slice(-2), makeId).show : null),
    () => (random() < 0.3 ? removeLayers(show, scene.id, list.slice(1, 3)) : null),
    () => updateLayers(show, scene.id, list.slice(0, 2), (one) => ({ ...one, locked: random() < 0.3 })),
    () => (layer.kind === 'group' ? placeLayer(show, scene.id, layer.id, { width: 20 + random() * 200, height: 20 + random() * 100 }) : null),
  ]
}

function depthOf(layers: readonly Layer[]): number {
  return Math.max(0, ...layers.map((layer) => (layer.kind === 'group' ? 1 + depthOf(layer.layers) : 0)))
}

/** Both ways, against another implementation of RFC 6902 (fast-json-patch, which changes in place what it is given), and with every part that did not change left as it is. */
function expectPatch(before: Show, after: Show): void {
  for (const [from, to] of [
    [before, after],
    [after, before],
  ] as const) {
    const patch = structuredClone(patchOf(from, to))
    expect(jsonPatch.applyPatch(JSON.parse(JSON.stringify(from)) as Show, patch as never, true).newDocument).toEqual(to)
    const made = patched(from, patch)
    expect(made).toEqual(to)
    for (const list of ['inputs', 'scenes', 'contents'] as const) {
      if (from[list] === to[list]) expect(made[list]).toBe(from[list])
      for (const [index, item] of to[list].entries()) if ((from[list] as readonly unknown[]).includes(item)) expect(made[list][index]).toBe(item)
    }
  }
}

describe('random edits', () => {
  it.each(SHOW_SEEDS)('seed %i: each makes a show that is stored, planned and drawn; going back leads to the first, to the byte', (seed) => {
    const random = seededRandom(seed + 7000)
    let count = 0
    const makeId = () => `e${(count += 1)}`
    const one = showCase(seed)
    const past: { readonly show: Show; readonly json: string }[] = [{ show: one.show, json: JSON.stringify(one.show) }]
    let made = 0
    let kept = 0
    while (made < EDITS) {
      const { show } = past.at(-1)!
      const next = edited(show, random, makeId)
      made += 1
      if (next === null || next === show) continue
      past.push({ show: next, json: JSON.stringify(next) })
      expect(readShow(JSON.parse(past.at(-1)!.json))).toEqual(next)
      expectPatch(show, next)
      const used = new Set(next.scenes.flatMap(layersOf).map(contentIdOf))
      expect(
        next.contents.filter(({ id }) => !used.has(id)).map(({ id }) => id),
        'contents that nobody shows',
      ).toEqual([])
      for (const scene of next.scenes) {
        const before = show.scenes.find(({ id }) => id === scene.id)
        const plan = planFrame(next, { scene }, 0, one.infos)
        // What an edit did not touch, a kept plan still shows.
        if (before === undefined || !areSameParts(planParts(show, before), planParts(next, scene))) continue
        kept += 1
        expect(planFrame(show, { scene: before }, 0, one.infos)).toEqual(plan)
      }
    }
    expect(past.length).toBeGreaterThan(EDITS / 3)
    expect(kept, 'scenes that an edit did not touch').toBeGreaterThan(0)
    const last = past.at(-1)!.show
    const plan = planFrame(last, { scene: last.scenes[0]! }, 0, one.infos, { scale: 0.1 })
    expect(renderReference(plan, picturesFor(one, plan)).data.every(Number.isFinite)).toBe(true)
    // Undo gives back the show of before; no edit may have changed one in place.
    for (const { show, json } of past.toReversed()) expect(JSON.stringify(show)).toBe(json)
  })

  it('a layer that is grouped and taken out of its group again is the show of before', () => {
    const { show } = showCase(301)
    const scene = show.scenes[0]!
    const ids = scene.layers.slice(0, 2).map(({ id }) => id)
    expect(
      ungroup(
        groupLayers(show, scene.id, ids, 'Group', () => 'group'),
        scene.id,
        'group',
        () => 'own',
      ),
    ).toEqual(show)
    expect(newGroupLayer('Empty', [], show.canvas, () => 'empty').layers).toEqual([])
  })
})
