import { describe, expect, it } from 'vitest'
import { mapPoint } from '../composite/affine.ts'
import { addLayer, placeLayer, updateLayer } from '../show/edits.ts'
import { newInputLayer } from '../show/create.ts'
import { allInfos, sceneNamed, testShow } from '../../tests/support/shows.ts'
import { activeSteps, inputSourceId, planFrame, planInput } from './plan-frame.ts'
import { scaleScene } from './scale-scene.ts'

const show = testShow()
const welcome = sceneNamed(show, 'Welcome')
const camera = show.inputs[0]!

describe('planFrame', () => {
  it('draws visible layers from back to front', () => {
    const plan = planFrame(show, welcome, allInfos(show))
    expect(plan.draws.map((draw) => draw.layerId)).toEqual(welcome.layers.map((layer) => layer.id))
    expect(plan.texts).toHaveLength(1)
    expect(plan.missing).toEqual([])
  })

  it('leaves out what is hidden or has no opacity', () => {
    const changed = updateLayer(show, welcome.id, welcome.layers[1]!.id, (layer) => ({ ...layer, visible: false }))
    const faded = updateLayer(changed, welcome.id, welcome.layers[2]!.id, (layer) => ({ ...layer, opacity: 0 }))
    expect(planFrame(faded, sceneNamed(faded, 'Welcome'), allInfos(show)).draws).toHaveLength(2)
  })

  it('leaves out everything under an opaque layer that fills the canvas', () => {
    const wall = show.inputs.find((input) => input.name === 'Apiary wall')!
    const layer = {
      ...newInputLayer(wall, show.canvas, () => 'cover'),
      placement: { ...newInputLayer(wall, show.canvas, () => 'x').placement, fit: 'fill' as const },
    }
    const covered = addLayer(show, welcome.id, layer)
    expect(planFrame(covered, sceneNamed(covered, 'Welcome'), allInfos(show)).draws.map((draw) => draw.layerId)).toEqual(['cover'])
  })

  it('keeps what lies under a keyed camera or a turned picture', () => {
    const wall = welcome.layers[0]!
    const turned = placeLayer(show, welcome.id, wall.id, { angleDeg: 3 })
    expect(planFrame(turned, sceneNamed(turned, 'Welcome'), allInfos(show)).draws).toHaveLength(4)
  })

  it('names the inputs that have no picture', () => {
    const infos = allInfos(show)
    infos.delete(inputSourceId(camera.id))
    const plan = planFrame(show, welcome, infos)
    expect(plan.missing).toEqual([expect.objectContaining({ sourceId: inputSourceId(camera.id) })])
    expect(plan.draws).toHaveLength(3)
  })

  it('treats an input once for all layers that use it alike', () => {
    const layer = newInputLayer(camera, show.canvas, () => 'again')
    const twice = addLayer(show, welcome.id, layer)
    const keys = planFrame(twice, sceneNamed(twice, 'Welcome'), allInfos(show))
      .draws.filter((draw) => draw.sourceId === inputSourceId(camera.id))
      .map((draw) => draw.treatedKey)
    expect(keys).toHaveLength(2)
    expect(new Set(keys).size).toBe(1)
  })

  it('maps canvas corners of an unscaled camera onto themselves', () => {
    const draw = planFrame(show, welcome, allInfos(show)).draws[1]!
    expect(mapPoint(draw.toSource, 0, 0)).toEqual([0, 0])
    expect(mapPoint(draw.toSource, 1280, 720)).toEqual([1280, 720])
    expect(draw.bounds).toEqual({ left: 0, top: 0, right: 1280, bottom: 720 })
  })

  it('halves a big picture until less than two pixels fall on one', () => {
    const mark = welcome.layers[3]!
    const small = placeLayer(show, welcome.id, mark.id, { width: 40, height: 40 })
    const infos = allInfos(show).set(inputSourceId((mark as { inputId: string }).inputId), { widthPx: 400, heightPx: 400, isOpaque: false })
    expect(planFrame(small, sceneNamed(small, 'Welcome'), infos).draws[3]!.halvings).toBe(3)
  })

  it('is plain data and the same for the same show', () => {
    const plan = planFrame(show, welcome, allInfos(show))
    expect(JSON.parse(JSON.stringify(plan))).toEqual(plan)
    expect(planFrame(show, welcome, allInfos(show))).toEqual(plan)
  })
})

it('plans one input alone over nothing', () => {
  const plan = planInput(camera.id, { widthPx: 1280, heightPx: 720, isOpaque: true }, activeSteps(camera.treatment), 320, 180)
  expect(plan.ground).toBe('clear')
  expect(plan.draws[0]!.steps.map((step) => step.kind)).toEqual(['crop', 'balance', 'tone', 'chromaKey'])
  expect(plan.draws[0]!.halvings).toBe(2)
})

it('scales a scene with its texts and corners', () => {
  const { show: small, scene } = scaleScene(show, welcome, 0.25)
  expect(small.canvas).toMatchObject({ widthPx: 320, heightPx: 180 })
  expect(scene.layers[2]!.placement.width).toBe(140)
  expect(scene.layers[2]!.kind === 'text' && scene.layers[2]!.text.blocks[0]!.sizePx).toBe(10.5)
})
