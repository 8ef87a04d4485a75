import { newClip } from '../inputs/clip.ts'
import { newTextLayer } from '../layers/text.ts'
import { newShapeLayer } from '../layers/shape.ts'
import { newInputLayer } from '../layers/input.ts'
import { newCamera } from '../inputs/camera.ts'
import { describe, expect, it } from 'vitest'
import { allInfos, sceneNamed, testShow } from '../../tests/support/shows.ts'
import { newScene } from '../show/create.ts'
import { addContents } from '../show/contents.ts'
import { addInput, addLayer, addScene } from '../show/edits.ts'
import type { Input, Layer, Show } from '../show/show.ts'
import { arrivalOf, placeOfMark } from './arrival.ts'
import { headInBox, USUAL_HEAD } from './arrange/head.ts'

let count = 0
const makeId = () => `a${(count += 1)}`
const bare = testShow()
const facts = { infos: allInfos(bare), heads: new Map() }
const screen: Input = { id: 'screen', kind: 'screen', name: 'Screen', source: { type: 'standin' }, frameRate: 30, treatment: [] }
const uncut: Input = { ...newCamera('Uncut', { type: 'standin', standin: 'table' }, bare.canvas, makeId) }
const show: Show = addInput(addInput(bare, screen), uncut)
const inputNamed = (name: string) => show.inputs.find((input) => input.name === name)!

/** Names of a scene's layers after one has arrived, from the back, and where it came. */
function arrived(layers: readonly Layer[], layer: Layer, contents: Parameters<typeof addContents>[1] = []) {
  const scene = { ...newScene('Tried', makeId), layers }
  const full = addScene(addContents(show, contents), scene)
  const arrival = arrivalOf(full, scene, layer, facts)
  const after = addLayer(full, scene.id, arrival.layer, arrival.index)
  return { names: after.scenes.at(-1)!.layers.map(({ name }) => name), placement: arrival.layer.placement, frame: arrival.layer.frame }
}

const layerOf = (name: string): Layer => {
  const layer = newInputLayer(inputNamed(name), show.canvas, makeId)
  return name === 'Apiary wall' ? { ...layer, placement: { ...layer.placement, fit: 'fill' } } : layer
}
const title = sceneNamed(show, 'Welcome').layers.find(({ kind }) => kind === 'text')!
const welcome = sceneNamed(show, 'Welcome').layers

describe('a new layer', () => {
  it('a page comes behind a presenter who is cut out, before the wall', () => {
    expect(arrived(welcome, layerOf('Screen')).names).toEqual(['Apiary wall', 'Screen', 'Desk camera', 'Class title', 'Society mark'])
  })

  it('a clip that fills comes in front of a picture that fills, fitted or filled, and behind people; a colour comes behind both', () => {
    const clip: Input = newClip('Clip', 'c'.repeat(64), () => 'clip')
    const colour: Input = { id: 'colour', kind: 'colour', name: 'Colour', colour: '#204060', treatment: [] }
    const withBoth = addInput(addInput(show, clip), colour)
    const fill = (input: Input): Layer => ({
      ...newInputLayer(input, show.canvas, makeId),
      placement: { ...newInputLayer(input, show.canvas, makeId).placement, fit: 'fill' },
    })
    for (const fit of ['fit', 'fill'] as const) {
      const picture = { ...layerOf('Apiary wall'), placement: { ...layerOf('Apiary wall').placement, fit } }
      const scene = { ...newScene('Tried', makeId), layers: [picture, layerOf('Desk camera')] }
      const full = addScene(withBoth, scene)
      expect(arrivalOf(full, scene, fill(clip), facts).index, fit).toBe(1)
      if (fit === 'fit') expect(arrivalOf(full, scene, fill(colour), facts).index).toBe(0)
    }
  })

  it('beside the head of one who is not, and not over it', () => {
    const { names, placement } = arrived([layerOf('Uncut'), title], layerOf('Screen'))
    expect(names).toEqual(['Uncut', 'Screen', 'Class title'])
    const head = headInBox(USUAL_HEAD, null, { x: 0, y: 0, width: 1280, height: 720 })
    expect(placement.x >= head.x + head.width || placement.x + placement.width <= head.x).toBe(true)
    expect(placement.width).toBeGreaterThan(1280 / 5)
  })

  it('a camera comes in front of pages, behind words; a second one into a corner', () => {
    expect(arrived([layerOf('Screen'), title], layerOf('Desk camera'))).toMatchObject({
      names: ['Screen', 'Desk camera', 'Class title'],
      placement: { x: 0, y: 0, width: 1280, height: 720 },
    })
    const second = arrived(welcome, layerOf('Uncut'))
    expect(second.names.indexOf('Uncut')).toBe(second.names.indexOf('Desk camera') + 1)
    expect(second.placement.width).toBeLessThan(400)
    expect(second.placement.x + second.placement.width).toBeLessThan(1280)
  })

  it('a camera comes in front of one that is small, behind words', () => {
    const small = { ...layerOf('Desk camera'), placement: { x: 900, y: 400, width: 300, height: 250, angleDeg: 0, fit: 'fill' as const } }
    expect(arrived([layerOf('Screen'), small, title], layerOf('Uncut')).names).toEqual(['Screen', 'Desk camera', 'Uncut', 'Class title'])
  })

  it('a colour comes over the wall and behind all else, so that it is seen', () => {
    expect(arrived(welcome, layerOf('Paper')).names.slice(0, 3)).toEqual(['Apiary wall', 'Paper', 'Desk camera'])
  })

  it('a form lies over no head and no title; alone it lies in the middle', () => {
    const { layer, contents } = newShapeLayer('Box', 'ellipse', show.canvas, makeId)
    const { names, placement } = arrived(welcome, layer, contents)
    expect(names.at(-1)).toBe('Box')
    const head = headInBox(USUAL_HEAD, null, { x: 0, y: 0, width: 1280, height: 720 })
    for (const box of [head, title.placement]) {
      const apart =
        placement.x >= box.x + box.width ||
        placement.x + placement.width <= box.x ||
        placement.y >= box.y + box.height ||
        placement.y + placement.height <= box.y
      expect(apart).toBe(true)
    }
    expect(arrived([], layer, contents).placement).toEqual(layer.placement)
  })

  it('a second title does not lie on the first', () => {
    const { layer, contents } = newTextLayer('Second', 'Words', show.canvas, makeId)
    const { placement } = arrived([{ ...title, placement: layer.placement }], layer, contents)
    expect(placement.y + placement.height <= layer.placement.y || placement.x >= layer.placement.x + layer.placement.width).toBe(true)
  })

  it('a small picture is a mark: as large as it is, in the upper right of the title-safe area; a larger one is fitted', () => {
    expect(placeOfMark({ widthPx: 200, heightPx: 160 }, show.canvas)).toEqual({ x: 1016, y: 36, width: 200, height: 160 })
    expect(placeOfMark({ widthPx: 640, heightPx: 100 }, show.canvas)).toEqual({})
    expect(placeOfMark({ widthPx: 100, heightPx: 300 }, show.canvas)).toEqual({})
  })
})
