import { inputSourceId } from '../inputs/source-ids.ts'
import { activeSteps } from '../steps/treatment.ts'
import { newInputLayer } from '../layers/input.ts'
import { describe, expect, it } from 'vitest'
import { mapPoint } from '../composite/affine.ts'
import { addLayer, placeLayer, updateLayer } from '../show/edits.ts'
import { allInfos, sceneNamed, testShow } from '../../tests/support/shows.ts'
import type { Paint } from '../plan/frame-plan.ts'
import { planFrame, planInput } from './plan-frame.ts'
import { nodeOf, rootOf, treatedNodes } from '../plan/read-plan.ts'

const show = testShow()
const welcome = sceneNamed(show, 'Welcome')
const camera = show.inputs[0]!

describe('planFrame', () => {
  it('draws visible layers from back to front', () => {
    const plan = planFrame(show, { scene: welcome }, 0, allInfos(show))
    expect(rootOf(plan).items.map((item) => item.layerId)).toEqual(welcome.layers.map((layer) => layer.id))
    expect(plan.texts).toHaveLength(1)
    expect(plan.missing).toEqual([])
  })

  it('leaves out what is hidden or has no opacity', () => {
    const changed = updateLayer(show, welcome.id, welcome.layers[1]!.id, (layer) => ({ ...layer, visible: false }))
    const faded = updateLayer(changed, welcome.id, welcome.layers[2]!.id, (layer) => ({ ...layer, opacity: 0 }))
    expect(rootOf(planFrame(faded, { scene: sceneNamed(faded, 'Welcome') }, 0, allInfos(show))).items).toHaveLength(2)
  })

  it('leaves out everything under an opaque layer that fills the canvas', () => {
    const wall = show.inputs.find((input) => input.name === 'Apiary wall')!
    const layer = {
      ...newInputLayer(wall, show.canvas, () => 'cover'),
      placement: { ...newInputLayer(wall, show.canvas, () => 'x').placement, fit: 'fill' as const },
    }
    const covered = addLayer(show, welcome.id, layer)
    expect(rootOf(planFrame(covered, { scene: sceneNamed(covered, 'Welcome') }, 0, allInfos(show))).items.map((item) => item.layerId)).toEqual(['cover'])
  })

  it('keeps what lies under a keyed camera or a turned picture', () => {
    const wall = welcome.layers[0]!
    const turned = placeLayer(show, welcome.id, wall.id, { angleDeg: 3 })
    expect(rootOf(planFrame(turned, { scene: sceneNamed(turned, 'Welcome') }, 0, allInfos(show))).items).toHaveLength(4)
  })

  it('names the inputs that have no picture', () => {
    const infos = allInfos(show)
    infos.delete(inputSourceId(camera.id))
    const plan = planFrame(show, { scene: welcome }, 0, infos)
    expect(plan.missing).toEqual([expect.objectContaining({ sourceId: inputSourceId(camera.id) })])
    expect(rootOf(plan).items).toHaveLength(3)
  })

  it('treats an input once for all layers that use it alike', () => {
    const layer = newInputLayer(camera, show.canvas, () => 'again')
    const twice = addLayer(show, welcome.id, layer)
    const plan = planFrame(twice, { scene: sceneNamed(twice, 'Welcome') }, 0, allInfos(show))
    const keys = rootOf(plan).items.flatMap((item) => {
      const node = nodeOf(plan, item)
      return node?.kind === 'treated' && node.sourceId === inputSourceId(camera.id) ? [node.key] : []
    })
    expect(keys).toHaveLength(2)
    expect(new Set(keys).size).toBe(1)
  })

  it('maps canvas corners of an unscaled camera onto themselves', () => {
    const item = rootOf(planFrame(show, { scene: welcome }, 0, allInfos(show))).items[1]!
    const { toNode } = item.paint as Extract<Paint, { kind: 'node' }>
    expect(mapPoint(toNode, 0, 0)).toEqual([0, 0])
    expect(mapPoint(toNode, 1280, 720)).toEqual([1280, 720])
    expect(item.bounds).toEqual({ left: 0, top: 0, right: 1280, bottom: 720 })
  })

  it('halves a big picture while four pixels are left to fall on one, two in a thumbnail', () => {
    const mark = welcome.layers[3]!
    const small = placeLayer(show, welcome.id, mark.id, { width: 40, height: 40 })
    const infos = allInfos(show).set(inputSourceId((mark as { inputId: string }).inputId), { widthPx: 400, heightPx: 400, isOpaque: false })
    const plan = planFrame(small, { scene: sceneNamed(small, 'Welcome') }, 0, infos)
    expect(nodeOf(plan, rootOf(plan).items[3]!)).toMatchObject({ mipLevel: 1 })
    const thumbnail = planFrame(small, { scene: sceneNamed(small, 'Welcome') }, 0, infos, { scale: 0.25 })
    expect(nodeOf(thumbnail, rootOf(thumbnail).items[3]!)).toMatchObject({ mipLevel: 4 })
  })

  it('is plain data and the same for the same show', () => {
    const plan = planFrame(show, { scene: welcome }, 0, allInfos(show))
    expect(structuredClone(plan)).toEqual(plan)
    expect(planFrame(show, { scene: welcome }, 0, allInfos(show))).toEqual(plan)
  })
})

it('plans one input alone over nothing', () => {
  const plan = planInput(camera.id, { widthPx: 1280, heightPx: 720, isOpaque: true }, activeSteps(camera.treatment), 160, 90)
  expect(rootOf(plan).ground).toBe('clear')
  const [node] = treatedNodes(plan)
  expect(node!.steps.map((step) => step.kind)).toEqual(['crop', 'balance', 'tone', 'chromaKey'])
  expect(node!.mipLevel).toBe(1)
})

it('plans a scene at a scale with its texts and corners', () => {
  const rounded = updateLayer(show, welcome.id, welcome.layers[2]!.id, (layer) => ({ ...layer, frame: { ...layer.frame, cornerRadiusPx: 20 } }))
  const plan = planFrame(rounded, { scene: sceneNamed(rounded, 'Welcome') }, 0, allInfos(show), { scale: 0.25 })
  expect(rootOf(plan)).toMatchObject({ widthPx: 320, heightPx: 180 })
  expect(rootOf(plan).items[2]!.coverage.shape).toMatchObject({ width: 140, cornerRadius: 5 })
  expect(plan.texts[0]).toMatchObject({ widthPx: 140, content: { blocks: [{ sizePx: 10.5 }, {}] } })
})

it('plans nothing that is covered: no picture of it is asked for', () => {
  const wall = show.inputs.find((input) => input.name === 'Apiary wall')!
  const covered = addLayer(show, welcome.id, {
    ...newInputLayer(wall, show.canvas, () => 'cover'),
    placement: { x: 0, y: 0, width: 1280, height: 720, angleDeg: 0, fit: 'fill' },
  })
  const plan = planFrame(covered, { scene: sceneNamed(covered, 'Welcome') }, 0, allInfos(show))
  expect(treatedNodes(plan)).toHaveLength(1)
  expect(plan.texts).toEqual([])
})
