// Edits of scenes and of several scenes at once: locks, copies, the same thing everywhere, another canvas.
import { newStep } from '../steps/treatment.ts'
import { newInputLayer } from '../layers/input.ts'
import { contentIdOf } from '../layers/index.ts'
import { describe, expect, it } from 'vitest'
import { showCase } from '../../tests/support/random-shows.ts'
import { allInfos, sceneNamed, testShow } from '../../tests/support/shows.ts'
import { arrangeScene } from '../layout/arrange/arrange-scene.ts'
import { castOf } from '../layout/arrange/cast.ts'
import { followCanvas, layoutOf } from '../layout/arrange/follow-canvas.ts'
import { placeAlike, putInAllScenes, siblingsOf } from './all-scenes.ts'
import { setCanvas } from './canvas-edits.ts'
import { addInput, addLayer, placeLayer, removeScene, updateLayer, updateScene } from './edits.ts'
import { reorderLayers } from './layer-set-edits.ts'
import { layersOf } from '../layers/tree.ts'
import { brokenLock } from './locks.ts'
import { readShow } from './migrate.ts'
import { copyLayers, pasteLayers, readCopied } from './paste.ts'
import type { Input, Layer, Show } from './show.ts'

let count = 0
const makeId = () => `c${(count += 1)}`
const show = testShow()
const welcome = sceneNamed(show, 'Welcome')
const title = welcome.layers.find(({ kind }) => kind === 'text')!
const mark = welcome.layers.find(({ name }) => name === 'Society mark')!
const stored = (one: Show) => readShow(JSON.parse(JSON.stringify(one)))

describe('a locked scene', () => {
  const locked = updateScene(show, welcome.id, (scene) => ({ ...scene, locked: true }))
  it('lets no layer change, and does not go; its name and notes may change, and it may be unlocked', () => {
    expect(brokenLock(locked, placeLayer(locked, welcome.id, title.id, { x: 3 }))?.id).toBe(welcome.id)
    expect(brokenLock(locked, removeScene(locked, welcome.id))?.id).toBe(welcome.id)
    expect(
      brokenLock(
        locked,
        updateScene(locked, welcome.id, (scene) => ({ ...scene, name: 'Other', notes: 'Say hello' })),
      ),
    ).toBeNull()
    expect(
      brokenLock(
        locked,
        updateScene(locked, welcome.id, (scene) => ({ ...scene, locked: false, layers: [] })),
      ),
    ).toBeNull()
    expect(brokenLock(show, placeLayer(show, welcome.id, title.id, { x: 3 }))).toBeNull()
  })
})

describe('layers that were copied', () => {
  const copied = copyLayers(show, welcome.id, [title.id, mark.id])

  it('are pasted as their own, or as the same thing; what they show comes along', () => {
    const own = pasteLayers(show, show.scenes[1]!.id, copied, 'own', makeId)
    const same = pasteLayers(show, show.scenes[1]!.id, copied, 'same', makeId)
    const contentsOf = (one: typeof own) =>
      layersOf(one.show.scenes[1]!)
        .filter(({ id }) => one.layerIds.includes(id))
        .flatMap((layer) => contentIdOf(layer) ?? [])
    expect(contentsOf(same)).toEqual([contentIdOf(title)])
    expect(contentsOf(own)).not.toEqual([contentIdOf(title)])
    for (const one of [own, same]) expect(stored(one.show)).toEqual(one.show)
  })

  it('can be put into another show, with their inputs and words', () => {
    const other: Show = { ...show, inputs: [], contents: [], scenes: [{ ...welcome, id: 'other', layers: [] }] }
    const made = pasteLayers(other, 'other', copied, 'same', makeId).show
    expect(stored(made)).toEqual(made)
    expect(made.inputs.map(({ name }) => name)).toEqual(['Society mark'])
    expect(made.contents).toHaveLength(1)
  })

  it('come through the clipboard as text; other text is none', () => {
    expect(readCopied(JSON.stringify(copied))).toEqual(copied)
    for (const text of ['', 'hello', '{"format":"green-room-layers"', '{"format":"other"}']) expect(readCopied(text)).toBeNull()
  })

  it('random ones, groups too, stay shows wherever they are pasted', () => {
    for (const seed of [301, 305, 311]) {
      const { show: random } = showCase(seed)
      for (const scene of random.scenes.slice(1)) {
        const some = copyLayers(
          random,
          scene.id,
          scene.layers.map(({ id }) => id),
        )
        for (const sharing of ['own', 'same'] as const) {
          const made = pasteLayers(random, random.scenes[0]!.id, some, sharing, makeId).show
          expect(stored(made)).toEqual(made)
        }
      }
    }
  })
})

describe('order', () => {
  const names = (one: Show) => one.scenes[0]!.layers.map(({ name }) => name)
  it('to the ends, and past one at a time; several keep their order', () => {
    const [wall, camera] = welcome.layers
    expect(names(reorderLayers(show, welcome.id, [wall!.id], 'front')).at(-1)).toBe('Apiary wall')
    expect(names(reorderLayers(show, welcome.id, [wall!.id], 'forward'))).toEqual(['Desk camera', 'Apiary wall', 'Class title', 'Society mark'])
    expect(names(reorderLayers(show, welcome.id, [mark.id], 'backward'))).toEqual(['Apiary wall', 'Desk camera', 'Society mark', 'Class title'])
    expect(names(reorderLayers(show, welcome.id, [title.id, wall!.id], 'front'))).toEqual(['Desk camera', 'Society mark', 'Apiary wall', 'Class title'])
    expect(names(reorderLayers(show, welcome.id, [mark.id, camera!.id], 'back'))).toEqual(['Desk camera', 'Society mark', 'Apiary wall', 'Class title'])
    expect(names(reorderLayers(show, welcome.id, [mark.id], 'forward'))).toEqual(names(show))
  })
})

describe('the same thing in all scenes', () => {
  it('is put once into each, and moved everywhere at once; locked scenes stay', () => {
    const everywhere = putInAllScenes(show, welcome.id, mark.id, makeId)
    expect(everywhere.scenes.every((scene) => scene.layers.filter(({ name }) => name === 'Society mark').length === 1)).toBe(true)
    expect(putInAllScenes(everywhere, welcome.id, mark.id, makeId)).toEqual(everywhere)
    expect(stored(everywhere)).toEqual(everywhere)
    const siblings = siblingsOf(everywhere, welcome.id, mark)
    // The closing card had it before, in another place.
    expect(siblings.map(({ isAlike }) => isAlike)).toEqual([true, true, false])
    const moved = placeLayer(everywhere, welcome.id, mark.id, { x: 40, y: 50 })
    const locked = updateScene(moved, moved.scenes[1]!.id, (scene) => ({ ...scene, locked: true }))
    const layer = locked.scenes[0]!.layers.find(({ id }) => id === mark.id)!
    const places = placeAlike(locked, layer, siblings).scenes.map((scene) => scene.layers.find(({ name }) => name === 'Society mark')!.placement.x)
    expect(places).toEqual([40, mark.placement.x, 40, 40])
  })
})

describe('another canvas', () => {
  const sizes = [
    [1920, 1080],
    [960, 720],
    [1080, 1080],
    [720, 1280],
  ] as const

  it.each(sizes)('%i × %i: the demo stays a show, everything keeps its share, grounds stay whole', (widthPx, heightPx) => {
    const next = setCanvas(show, { widthPx, heightPx, frameRate: 30 })
    expect(stored(next)).toEqual(next)
    for (const [i, scene] of show.scenes.entries()) {
      for (const [j, layer] of scene.layers.entries()) {
        const now = next.scenes[i]!.layers[j]!.placement
        expect((now.x + now.width / 2) / widthPx).toBeCloseTo((layer.placement.x + layer.placement.width / 2) / 1280, 6)
        if (layer.placement.width === 1280) expect([now.x, now.y, now.width, now.height]).toEqual([0, 0, widthPx, heightPx])
      }
    }
    expect(setCanvas(show, show.canvas)).toBe(show)
  })

  it.each(sizes)('%i × %i: a scene with a layout has that layout there', (widthPx, heightPx) => {
    const screen: Input = { id: 'screen', kind: 'screen', name: 'Screen', source: { type: 'standin' }, frameRate: 30, treatment: [] }
    const facts = { infos: allInfos(addInput(show, screen)), heads: new Map() }
    const full = addLayer(addInput(show, screen), welcome.id, newInputLayer(screen, show.canvas, makeId))
    const names = { divider: 'Divider', ink: 'Ink' }
    for (const name of ['third', 'shoulder', 'cornerTop', 'frames'] as const) {
      const laid = arrangeScene(full, welcome.id, { name, side: 'right' }, castOf(full, full.scenes[0]!), facts, names, makeId)
      const next = followCanvas(laid, { widthPx, heightPx, frameRate: 30 }, facts, makeId)
      expect(stored(next)).toEqual(next)
      expect(layoutOf(next, next.scenes[0]!, facts)?.name).toBe(name)
    }
  })

  it('a scene that shows another part of the presenter has no layout; a head that moved changes nothing', () => {
    const facts = { infos: allInfos(show), heads: new Map() }
    const cast = castOf(show, show.scenes[0]!)
    const laid = arrangeScene(show, welcome.id, { name: 'solo', side: 'left' }, cast, facts, { divider: 'Divider', ink: 'Ink' }, makeId)
    const presenter = cast.presenters[0]!
    const laidWith = (change: Partial<Layer>) => {
      const changed = updateLayer(laid, welcome.id, presenter, (layer) => ({ ...layer, ...change }) as Layer)
      return layoutOf(changed, changed.scenes[0]!, facts)?.name ?? null
    }
    expect(laidWith({})).toBe('solo')
    expect(laidWith({ crop: { left: 0.04, top: 0.02, right: 0.02, bottom: 0.04 } })).toBe('solo')
    expect(laidWith({ crop: { left: 0.5, top: 0.5, right: 0, bottom: 0 } })).toBeNull()
    expect(laidWith({ crop: { left: 0, top: 0, right: 0.45, bottom: 0.45 } })).toBeNull()
    // What cleans them only here is theirs, in every layout.
    expect(laidWith({ treatment: [newStep('tone', makeId)] })).toBe('solo')
  })
})
