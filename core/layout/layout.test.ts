import { describe, expect, it } from 'vitest'
import { allInfos, sceneNamed, testShow } from '../../tests/support/shows.ts'
import { moveLayer, placeLayer, updateLayer } from '../show/edits.ts'
import { groupLayers } from '../show/group-edits.ts'
import { fitRects } from '../box/fit.ts'
import { hiddenLayers } from './hidden-layers.ts'
import { layerAt } from './hit-test.ts'
import { boxToCanvas, mappedBounds } from '../box/placement.ts'
import { mapPoint } from '../composite/affine.ts'

const show = testShow()
const welcome = sceneNamed(show, 'Welcome')
const [wall, camera, title, mark] = welcome.layers.map((layer) => layer.id) as [string, string, string, string]

describe('fitRects', () => {
  it('fits a tall picture with room at the sides', () => {
    expect(fitRects('fit', 100, 200, 400, 400)).toEqual({ source: { x: 0, y: 0, width: 100, height: 200 }, target: { x: 100, y: 0, width: 200, height: 400 } })
  })
  it('fills a third of the canvas with the middle of a wide picture: 640 of 1920 off each side (common practice, no source)', () => {
    expect(fitRects('fill', 1920, 1080, 640, 1080)).toEqual({
      source: { x: 640, y: 0, width: 640, height: 1080 },
      target: { x: 0, y: 0, width: 640, height: 1080 },
    })
  })
  it('stretches without cutting', () => {
    expect(fitRects('stretch', 10, 20, 400, 300)).toEqual({ source: { x: 0, y: 0, width: 10, height: 20 }, target: { x: 0, y: 0, width: 400, height: 300 } })
  })
})

describe('placement', () => {
  it('turns about the centre, clockwise', () => {
    const map = boxToCanvas({ x: 100, y: 100, width: 200, height: 100, angleDeg: 90, fit: 'fit' })
    expect(mapPoint(map, 100, 50)).toEqual([200, 150])
    expect(mapPoint(map, 0, 0)).toEqual([250, 50])
  })
  it('has whole-pixel bounds that hold every touched pixel and no more', () => {
    const at = (x: number) => mappedBounds(boxToCanvas({ x, y: 10, width: 20, height: 20, angleDeg: 0, fit: 'fit' }), 20, 20, 100, 100)
    expect(at(10)).toEqual({ left: 10, top: 10, right: 30, bottom: 30 })
    expect(at(10.3)).toEqual({ left: 9, top: 10, right: 31, bottom: 30 })
    expect(at(-15)).toEqual({ left: 0, top: 10, right: 5, bottom: 30 })
  })
})

describe('hiddenLayers', () => {
  it('finds no fault with the demo, where only the title covers a little', () => {
    for (const hidden of hiddenLayers(show, welcome, allInfos(show))) expect(hidden.hiddenShare).toBeLessThan(0.1)
  })

  it('says that a picture in front hides the camera, and which', () => {
    const covered = moveLayer(show, welcome.id, wall, 3)
    const found = hiddenLayers(covered, sceneNamed(covered, 'Welcome'), allInfos(show))
    expect(found.find((hidden) => hidden.layerId === camera)).toEqual({ layerId: camera, hiddenShare: 1, coreShare: 1, coveredBy: wall })
  })

  it('does not blame layers that are keyed, faint or hidden', () => {
    const front = moveLayer(show, welcome.id, camera, 3)
    expect(hiddenLayers(front, sceneNamed(front, 'Welcome'), allInfos(show)).some((hidden) => hidden.coveredBy === camera)).toBe(false)
    const faint = updateLayer(moveLayer(show, welcome.id, wall, 3), welcome.id, wall, (layer) => ({ ...layer, opacity: 0.5 }))
    expect(hiddenLayers(faint, sceneNamed(faint, 'Welcome'), allInfos(show)).some((hidden) => hidden.coveredBy === wall)).toBe(false)
  })
})

describe('layerAt', () => {
  it('a group is where its layers are, not everywhere in its box; moved and shrunk, too', () => {
    const titleOnly = groupLayers(show, welcome.id, [welcome.layers[2]!.id], 'Group', () => 'group')
    const at = (which: typeof show, x: number, y: number) => layerAt(sceneNamed(which, 'Welcome').layers, show.canvas, x, y)?.id
    expect(at(titleOnly, 100, 600)).toBe('group')
    expect(at(titleOnly, 640, 300)).toBe(welcome.layers[1]!.id)
    const moved = placeLayer(titleOnly, welcome.id, 'group', { x: 640, y: 360, width: 640, height: 360 })
    expect(at(moved, 640 + 50, 360 + 300)).toBe('group')
    expect(at(moved, 100, 600)).toBe(welcome.layers[1]!.id)
  })

  it('finds the frontmost layer under a point', () => {
    expect(layerAt(welcome.layers, show.canvas, 100, 600)?.id).toBe(title)
    expect(layerAt(welcome.layers, show.canvas, 1180, 90)?.id).toBe(mark)
    expect(layerAt(welcome.layers, show.canvas, 640, 300)?.id).toBe(camera)
    expect(layerAt(welcome.layers, show.canvas, -5, 300)).toBeNull()
  })
  it('respects turning', () => {
    const turned = placeLayer(show, welcome.id, title, { angleDeg: 90 })
    expect(layerAt(sceneNamed(turned, 'Welcome').layers, show.canvas, 80, 614)?.id).toBe(camera)
    expect(layerAt(sceneNamed(turned, 'Welcome').layers, show.canvas, 344, 400)?.id).toBe(title)
  })
})
