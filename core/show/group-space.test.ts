// Working inside groups: places are those on the scene's canvas, held to where the plan draws.
import { PLAIN_FRAME } from '../box/frame.ts'
import { newGroupLayer } from '../layers/group.ts'
import { inputSourceId } from '../inputs/source-ids.ts'
import { describe, expect, it } from 'vitest'
import { sceneNamed, testShow } from '../../tests/support/shows.ts'
import type { RgbaPicture } from '../picture/picture.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { renderReference } from '../render/render-reference.ts'
import { seededRandom } from '../random/seeded.ts'
import { fitToCanvas, placeLayer, updateLayer } from './edits.ts'
import { fromSceneCanvas, groupsRound, listAround, toSceneCanvas } from './group-space.ts'
import { canGroup, groupLayers } from './group-edits.ts'
import { LIMITS, RANGES } from '../schema/limits.ts'
import { bringInFrontOf, duplicateLayers, moveLayersBy, placeLayers, removeLayers, reorderLayers } from './layer-set-edits.ts'
import { findLayer } from '../layers/tree.ts'
import { copyLayers, pasteLayers } from './paste.ts'
import { showSchema } from './schema.ts'
import type { GroupLayer, Layer, Placement, Show } from './show.ts'

let count = 0
const makeId = () => `space${(count += 1)}`
const base = testShow()
const sceneId = sceneNamed(base, 'Welcome').id
const wallId = base.inputs.find(({ name }) => name === 'Apiary wall')!.id
const otherId = base.inputs.find(({ name }) => name === 'Society mark')!.id
const place = (x: number, y: number, width: number, height: number, angleDeg = 0): Placement => ({ x, y, width, height, angleDeg, fit: 'stretch' })

/** A scene with a group at a place, that holds three layers of the wall's picture; the wall itself lies behind. */
function withGroup(outer: Placement, inner: readonly Placement[] = [place(100, 50, 200, 100), place(300, 60, 100, 80), place(500, 70, 60, 60)]) {
  const wall = sceneNamed(base, 'Welcome').layers[0]!
  const layers = inner.map(
    (placement, i): Layer =>
      ({ ...wall, inputId: otherId, treatment: [], id: `in${i}`, name: `Inner ${i}`, placement, frame: PLAIN_FRAME, crop: null, part: null }) as Layer,
  )
  const group: GroupLayer = { ...newGroupLayer('Group', layers, base.canvas, () => 'group'), placement: outer }
  const show: Show = { ...base, scenes: base.scenes.map((scene) => (scene.id === sceneId ? { ...scene, layers: [wall, group] } : scene)) }
  return { show, scene: show.scenes.find(({ id }) => id === sceneId)!, group, wall }
}

const plain = (code: number): RgbaPicture => ({ format: 'rgba', widthPx: 4, heightPx: 4, data: new Uint8Array(64).map((_, i) => (i % 4 === 3 ? 255 : code)) })
const layerIn = (show: Show, id: string) =>
  findLayer(
    show.scenes.find((scene) => scene.id === sceneId)!,
    id,
  )!
const onCanvas = (show: Show, id: string) =>
  toSceneCanvas(
    layerIn(show, id).placement,
    groupsRound(
      show.scenes.find((scene) => scene.id === sceneId)!,
      id,
    ),
    show.canvas,
  )
const HALF = place(200, 100, 640, 360)

describe('where a layer in a group lies', () => {
  it('says which groups it lies in, the outermost first, and its list', () => {
    const { scene, group } = withGroup(HALF)
    const nested = { layers: [newGroupLayer('Outer', scene.layers, base.canvas, () => 'outer')] }
    expect(groupsRound(nested, 'in1').map(({ id }) => id)).toEqual(['outer', 'group'])
    expect(groupsRound(nested, 'outer')).toEqual([])
    expect(groupsRound(nested, 'nobody')).toEqual([])
    expect(listAround(nested, 'in1')).toBe(group.layers)
    expect(listAround(scene, 'group')).toBe(scene.layers)
    expect(listAround(scene, 'nobody')).toBeUndefined()
  })

  it.each([
    ['at half size', HALF],
    ['moved and turned', place(-40, 90, 640, 360, 25)],
    ['stretched', place(30, 20, 900, 300)],
    ['larger than the canvas', place(-500, -300, 2560, 1440, -90)],
  ])('is where the plan draws it: a group %s', (_name, outer) => {
    const { show, scene, group } = withGroup(outer, [place(500, 250, 200, 100), place(600, 300, 100, 80, outer.width / outer.height === 16 / 9 ? 30 : 0)])
    const freed = group.layers.map((layer) => ({ ...layer, placement: toSceneCanvas(layer.placement, [group], show.canvas) }))
    const apart = { ...scene, layers: [scene.layers[0]!, ...freed] }
    const [black, white] = [plain(0), plain(255)]
    const pictures = new Map(show.inputs.map((input) => [inputSourceId(input.id), input.id === wallId ? black : white]))
    const infos = new Map([...pictures.keys()].map((id) => [id, { widthPx: 4, heightPx: 4, isOpaque: true }]))
    const drawn = (one: typeof scene) => renderReference(planFrame(show, { scene: one }, 0, infos, { scale: 0.25 }), pictures).data
    const [together, single] = [drawn(scene), drawn(apart)]
    const whites = single.filter((value, i) => i % 4 === 0 && value > 0.5).length
    expect(whites).toBeGreaterThan(200)
    // A pixel on an edge may be less than half covered in one and more in the other: what is half a pixel off would be seen by hundreds.
    expect(together.filter((value, i) => i % 4 === 0 && Math.abs(value - single[i]!) > 0.6)).toHaveLength(0)
  })

  it('is the same number there and back, through three groups, stretched and turned', () => {
    const random = seededRandom(77)
    for (let round = 0; round < 300; round += 1) {
      const number = (least: number, most: number) => Math.round(least + random() * (most - least))
      const box = () => place(number(-400, 400), number(-300, 300), number(40, 1500), number(40, 900), number(-90, 90))
      const groups = Array.from({ length: 1 + (round % 3) }, () => ({ ...newGroupLayer('G', [], base.canvas, makeId), placement: box() }))
      const inner = box()
      const back = fromSceneCanvas(toSceneCanvas(inner, groups, base.canvas), groups, base.canvas)
      for (const key of ['x', 'y', 'width', 'height', 'angleDeg'] as const) expect(back[key]).toBeCloseTo(inner[key], 3)
    }
    expect(toSceneCanvas(HALF, [], base.canvas)).toBe(HALF)
  })
})

describe('edits inside a group', () => {
  it('place, move and align by pixels of the scene’s canvas', () => {
    const { show } = withGroup(HALF)
    expect(onCanvas(show, 'in0')).toEqual(place(250, 125, 100, 50))
    const placed = placeLayer(show, sceneId, 'in0', { x: 260 })
    expect(onCanvas(placed, 'in0')).toEqual(place(260, 125, 100, 50))
    expect(layerIn(placed, 'in0').placement).toEqual(place(120, 50, 200, 100))
    const moved = moveLayersBy(show, sceneId, ['in0', 'in1'], 7, -3)
    expect(onCanvas(moved, 'in0')).toEqual(place(257, 122, 100, 50))
    expect(onCanvas(moved, 'in1')).toEqual(place(357, 127, 50, 40))
    expect(onCanvas(moved, 'in2')).toEqual(onCanvas(show, 'in2'))
    const aligned = placeLayers(show, sceneId, ['in0', 'in1'], (places) => places.map((one) => ({ ...one, y: 10 })))
    expect(['in0', 'in1'].map((id) => onCanvas(aligned, id).y)).toEqual([10, 10])
    expect(onCanvas(fitToCanvas(show, sceneId, 'in0', 'fill'), 'in0')).toEqual({ ...place(0, 0, 1280, 720), fit: 'fill' })
    const locked = updateLayer(show, sceneId, 'in0', (layer) => ({ ...layer, locked: true }))
    expect(onCanvas(moveLayersBy(locked, sceneId, ['in0', 'in1'], 7, 0), 'in0')).toEqual(onCanvas(show, 'in0'))
  })

  it('order and copies stay in the group', () => {
    const { show } = withGroup(HALF)
    const inner = (one: Show) => (layerIn(one, 'group') as GroupLayer).layers.map(({ id }) => id)
    expect(inner(reorderLayers(show, sceneId, ['in0'], 'forward'))).toEqual(['in1', 'in0', 'in2'])
    expect(inner(reorderLayers(show, sceneId, ['in2', 'in1'], 'back'))).toEqual(['in1', 'in2', 'in0'])
    const { show: copied, copyIds } = duplicateLayers(show, sceneId, ['in1', 'in0'], makeId)
    expect(inner(copied)).toEqual(['in0', 'in1', ...copyIds, 'in2'])
  })

  it('what is copied comes out of the group where it is seen, and goes back in front of what it is a copy of', () => {
    const { show, wall } = withGroup(place(-40, 90, 640, 360, 25))
    const pasted = pasteLayers(show, sceneId, copyLayers(show, sceneId, ['in1']), 'own', makeId)
    const [copyId] = pasted.layerIds
    expect(
      groupsRound(
        pasted.show.scenes.find(({ id }) => id === sceneId)!,
        copyId!,
      ),
    ).toEqual([])
    expect(layerIn(pasted.show, copyId!).placement).toEqual(onCanvas(show, 'in1'))
    const brought = bringInFrontOf(pasted.show, sceneId, [copyId!], ['in1'])
    expect((layerIn(brought, 'group') as GroupLayer).layers.map(({ id }) => id)).toEqual(['in0', 'in1', copyId, 'in2'])
    expect(layerIn(brought, copyId!).placement).toEqual(layerIn(show, 'in1').placement)
    // In front of one of the scene's own it stays in the scene; of nobody, where it is.
    const beside = bringInFrontOf(pasted.show, sceneId, [copyId!], [wall.id])
    expect(beside.scenes.find(({ id }) => id === sceneId)!.layers.map(({ id }) => id)).toEqual([wall.id, copyId, 'group'])
    expect(bringInFrontOf(pasted.show, sceneId, [copyId!], ['nobody']).scenes.find(({ id }) => id === sceneId)!.layers).toHaveLength(3)
  })

  it('what comes into a group that is a speck is as large as a show may say, and can be saved', () => {
    const { show, wall } = withGroup(place(600, 300, 4, 2))
    const pasted = pasteLayers(show, sceneId, copyLayers(show, sceneId, [wall.id]), 'own', makeId)
    const brought = bringInFrontOf(pasted.show, sceneId, pasted.layerIds, ['in2'])
    expect(layerIn(brought, pasted.layerIds[0]!).placement.width).toBe(RANGES.size.max)
    expect(showSchema.safeParse(brought).error).toBeUndefined()
  })

  it('no deeper than a show may have them: what would be too deep stays as it is', () => {
    let { show } = withGroup(HALF)
    let inner: readonly string[] = ['in0', 'in1']
    for (let depth = 1; depth < LIMITS.depth; depth += 1) {
      expect(
        canGroup(
          show.scenes.find(({ id }) => id === sceneId)!,
          inner,
        ),
      ).toBe(true)
      show = groupLayers(show, sceneId, inner, `Deep ${depth}`, () => `deep${depth}`)
      expect(showSchema.safeParse(show).error).toBeUndefined()
    }
    expect(
      groupsRound(
        show.scenes.find(({ id }) => id === sceneId)!,
        'in0',
      ),
    ).toHaveLength(LIMITS.depth)
    expect(groupLayers(show, sceneId, inner, 'Too deep', makeId)).toBe(show)
    // Round the outermost it would be as deep.
    inner = ['group']
    expect(
      canGroup(
        show.scenes.find(({ id }) => id === sceneId)!,
        inner,
      ),
    ).toBe(false)
    expect(groupLayers(show, sceneId, inner, 'Too deep', makeId)).toBe(show)
    // The other way would be refused when it is saved.
    const tooDeep = { ...show, scenes: show.scenes.map((scene) => ({ ...scene, layers: [newGroupLayer('Too deep', scene.layers, base.canvas, makeId)] })) }
    expect(showSchema.safeParse(tooDeep).success).toBe(false)
  })

  it('a group that nothing is left in goes with the last of it, and the group round it', () => {
    const { show } = withGroup(HALF)
    const ids = (one: Show) => one.scenes.find(({ id }) => id === sceneId)!.layers.map(({ id }) => id)
    expect(ids(removeLayers(show, sceneId, ['in0', 'in1']))).toContain('group')
    expect(ids(removeLayers(show, sceneId, ['in0', 'in1', 'in2']))).not.toContain('group')
    const { group, wall } = withGroup(HALF)
    const outer = newGroupLayer('Outer', [group], base.canvas, () => 'outer')
    const deep = { ...show, scenes: show.scenes.map((scene) => (scene.id === sceneId ? { ...scene, layers: [wall, outer] } : scene)) }
    expect(ids(removeLayers(deep, sceneId, ['in0', 'in1', 'in2']))).toEqual([wall.id])
    // One that was empty before is the presenter's own affair.
    const empty = updateLayer(show, sceneId, 'group', (layer) => ({ ...layer, layers: [] }) as Layer)
    expect(ids(removeLayers(empty, sceneId, [wall.id]))).toEqual(['group'])
    expect(showSchema.safeParse(removeLayers(deep, sceneId, ['in0'])).error).toBeUndefined()
  })
})
