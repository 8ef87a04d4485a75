// Layouts over canvases and inputs of every shape: nothing overlaps that should not, nothing leaves the canvas, heads are inside.
import { newStep } from '../../steps/treatment.ts'
import { newInputLayer } from '../../layers/input.ts'
import { newCamera } from '../../inputs/camera.ts'
import { describe, expect, it } from 'vitest'
import { showCase } from '../../../tests/support/random-shows.ts'
import { allInfos, sceneNamed, testShow } from '../../../tests/support/shows.ts'
import { seededRandom } from '../../random/seeded.ts'
import { updateFill } from '../../show/contents.ts'
import { newScene } from '../../show/create.ts'
import { addInput, addScene, updateScene } from '../../show/edits.ts'
import { readShow } from '../../show/migrate.ts'
import type { Input, Layer, Show } from '../../show/show.ts'
import type { Rect } from '../../box/fit.ts'
import { arrangeScene, floatingFrame } from './arrange-scene.ts'
import { castOf } from './cast.ts'
import { cropRound, headInBox, USUAL_HEAD, type Head } from './head.ts'
import { hiddenParts, withoutIdleParts } from './idle-parts.ts'
import { arrange, dividerPx, layoutNames, presenterSides, type Layout, type ShownPresenter } from './layouts.ts'

const CANVASES = [
  [1920, 1080],
  [1280, 720],
  [1080, 1920],
  [720, 1280],
  [1080, 1080],
  [1440, 1080],
  [1001, 333],
  [160, 120],
] as const
const SHAPES = [
  [1920, 1080],
  [640, 480],
  [1080, 1920],
  [700, 700],
  [3440, 1440],
] as const
const layouts: readonly Layout[] = layoutNames.flatMap((name) => presenterSides.map((side) => ({ name, side })))

function overlap(one: Rect, other: Rect): number {
  const width = Math.min(one.x + one.width, other.x + other.width) - Math.max(one.x, other.x)
  const height = Math.min(one.y + one.height, other.y + other.height) - Math.max(one.y, other.y)
  return Math.max(0, width) * Math.max(0, height)
}

function inside(box: Rect, outer: Rect, tolerance = 1e-6): boolean {
  return (
    box.x >= outer.x - tolerance &&
    box.y >= outer.y - tolerance &&
    box.x + box.width <= outer.x + outer.width + tolerance &&
    box.y + box.height <= outer.y + outer.height + tolerance
  )
}

/** A head somewhere in a picture, of a size that heads have. */
function randomHead(random: () => number): Head {
  const width = 0.08 + random() * 0.25
  const height = 0.15 + random() * 0.4
  return { x: random() * (1 - width), y: random() * (1 - height), width, height }
}

describe.each(CANVASES)('on a canvas of %i × %i', (widthPx, heightPx) => {
  const canvas = { widthPx, heightPx }
  const whole = { x: 0, y: 0, width: widthPx, height: heightPx }

  it.each(layouts)('$name, $side: in the canvas, apart, heads inside', (layout) => {
    const random = seededRandom(widthPx * 7 + heightPx + layoutNames.indexOf(layout.name))
    for (const [pageWidth, pageHeight] of SHAPES) {
      for (let count = 0; count <= 7; count += 1) {
        const presenters: ShownPresenter[] = Array.from({ length: count }, () => {
          const [shownWidth, shownHeight] = SHAPES[Math.floor(random() * SHAPES.length)]!
          return { widthPx: shownWidth, heightPx: shownHeight, head: random() < 0.2 ? null : randomHead(random) }
        })
        const page = random() < 0.8 ? { widthPx: pageWidth, heightPx: pageHeight } : null
        const made = arrange(layout, canvas, presenters, page)
        const pageBox = made.page === null || page === null ? null : made.page
        const boxes = [...made.presenters, ...(pageBox === null ? [] : [pageBox])]
        for (const box of [...boxes, ...(made.divider === null ? [] : [made.divider])]) {
          expect(inside(box, whole), JSON.stringify(box)).toBe(true)
          expect(Math.min(box.width, box.height), JSON.stringify({ box, layout, canvas })).toBeGreaterThan(0)
        }
        const mayOverlap = ['shoulder', 'cornerTop', 'cornerBottom', 'inside'].includes(layout.name)
        boxes.forEach((one, i) => boxes.slice(i + 1).forEach((other) => mayOverlap || expect(overlap(one, other)).toBe(0)))
        made.presenters.forEach((box, i) => {
          const { head, ...size } = presenters[i]!
          const at = head ?? USUAL_HEAD
          const crop = cropRound(at, size.widthPx, size.heightPx, box.width / box.height)
          const seen = { width: 1 - (crop?.left ?? 0) - (crop?.right ?? 0), height: 1 - (crop?.top ?? 0) - (crop?.bottom ?? 0) }
          // What is left has the box's proportion, so that filling cuts nothing more.
          expect((seen.width * size.widthPx) / (seen.height * size.heightPx)).toBeCloseTo(box.width / box.height, 5)
          if (at.width > seen.width || at.height > seen.height) return
          expect(inside(headInBox(at, crop, box), box, 1e-6 * widthPx)).toBe(true)
        })
        const [presenter] = presenters
        if (layout.name === 'shoulder' && pageBox !== null && presenter !== undefined) {
          const at = presenter.head ?? USUAL_HEAD
          const face = headInBox(at, cropRound(at, presenter.widthPx, presenter.heightPx, widthPx / heightPx), whole)
          // A head that leaves no room on any side is the one case in which something must lie over it.
          const room = Math.max(face.x, widthPx - face.x - face.width, face.y, heightPx - face.y - face.height)
          if (room > 0.16 * Math.max(widthPx, heightPx))
            expect(overlap(pageBox, face), JSON.stringify({ face, pageBox })).toBeLessThanOrEqual(face.width + face.height)
        }
      }
    }
  })
})

describe('numbers of the trade', () => {
  const hd = { widthPx: 1920, heightPx: 1080 }
  const camera = { ...hd, head: null }

  it('a third: 640 and 1280 on 1920, 640 px off each side of the camera, a divider of 30 px on the seam (common practice, no source)', () => {
    const made = arrange({ name: 'third', side: 'left' }, hd, [camera], hd)
    expect(made.presenters).toEqual([{ x: 0, y: 0, width: 640, height: 1080 }])
    expect(made.page).toEqual({ x: 640, y: 0, width: 1280, height: 1080 })
    expect(made.divider).toEqual({ x: 625, y: 0, width: 30, height: 1080 })
    const crop = cropRound(USUAL_HEAD, 1920, 1080, 640 / 1080)!
    expect([crop.left * 1920, crop.right * 1920, crop.top, crop.bottom].map((px) => Math.round(px * 1e6) / 1e6)).toEqual([640, 640, 0, 0])
  })

  it.each(CANVASES)('the divider lies in the middle of its seam on %i × %i, on either side', (widthPx, heightPx) => {
    for (const name of ['third', 'halves'] as const) {
      for (const side of presenterSides) {
        const { divider, presenters } = arrange({ name, side }, { widthPx, heightPx }, [camera], hd)
        const [mine] = presenters
        const isWide = widthPx >= heightPx
        const seam = isWide ? (side === 'left' ? mine!.width : mine!.x) : side === 'left' ? mine!.height : mine!.y
        const [from, thick] = isWide ? [divider!.x, divider!.width] : [divider!.y, divider!.height]
        expect(from + thick / 2).toBe(seam)
        expect(thick).toBe(dividerPx({ widthPx, heightPx }))
        expect(Number.isInteger(from)).toBe(true)
      }
    }
  })

  it('the frame of what floats: border 4, corner 30 on 1080 (common practice, no source)', () => {
    expect(floatingFrame({ ...hd, frameRate: 30 })).toMatchObject({ cornerRadiusPx: 30, border: { widthPx: 4 } })
  })

  it('two frames are of one size, at one height, with equal space at either side', () => {
    const { presenters, page } = arrange({ name: 'frames', side: 'left' }, hd, [camera], { widthPx: 1600, heightPx: 900 })
    expect([presenters[0]!.width, presenters[0]!.height, presenters[0]!.y]).toEqual([page!.width, page!.height, page!.y])
    expect(presenters[0]!.x).toBe(1920 - page!.x - page!.width)
  })

  it('four at a table sit two by two on a wide canvas, and on a high one', () => {
    for (const canvas of [hd, { widthPx: 1080, heightPx: 1920 }]) {
      const { presenters } = arrange({ name: 'table', side: 'left' }, canvas, [camera, camera, camera, camera], null)
      expect(new Set(presenters.map(({ x }) => x)).size).toBe(canvas.widthPx > canvas.heightPx ? 2 : 1 + Number(presenters[0]!.x !== presenters[1]!.x))
      expect(new Set(presenters.map(({ width, height }) => `${width} ${height}`)).size).toBe(1)
    }
  })
})

describe('a scene under layouts', () => {
  let count = 0
  const makeId = () => `n${(count += 1)}`
  const names = { divider: 'Divider', ink: 'Ink' }

  /** The demo's show with a scene of some cameras, a picture and what else there is. */
  function sceneWith(cameras: number, hasPage: boolean, random: () => number): { readonly show: Show; readonly sceneId: string } {
    let show = testShow()
    const wall = show.inputs.find(({ name }) => name === 'Apiary wall')!
    const page: Input = { id: makeId(), kind: 'screen', name: 'Screen', source: { type: 'standin' }, frameRate: 30, treatment: [] }
    if (hasPage) show = addInput(show, page)
    const layers: Layer[] = [{ ...newInputLayer(wall, show.canvas, makeId), placement: { ...newInputLayer(wall, show.canvas, makeId).placement, fit: 'fill' } }]
    if (hasPage) layers.push(newInputLayer(page, show.canvas, makeId))
    for (let i = 0; i < cameras; i += 1) {
      const camera = {
        ...newCamera(`Camera ${i}`, { type: 'standin', standin: 'cloth' }, show.canvas, makeId),
        treatment: random() < 0.5 ? [] : [newStep('chromaKey', makeId)],
      }
      show = addInput(show, camera)
      layers.push(newInputLayer(camera, show.canvas, makeId))
    }
    const title = sceneNamed(show, 'Welcome').layers.find(({ kind }) => kind === 'text')!
    layers.splice(Math.floor(random() * layers.length), 0, { ...title, id: makeId() })
    const scene = { ...newScene('Tried', makeId), layers }
    return { show: addScene(show, scene), sceneId: scene.id }
  }

  function apply(show: Show, sceneId: string, layout: Layout): Show {
    const scene = show.scenes.find(({ id }) => id === sceneId)!
    const heads = new Map(show.inputs.map(({ id }, i) => [id, randomHead(seededRandom(i + 5))]))
    return arrangeScene(show, sceneId, layout, castOf(show, scene), { infos: allInfos(show), heads }, names, makeId)
  }

  it('what layouts that were tried have left goes; what the presenter has coloured stays, and so does all that is seen', () => {
    const random = seededRandom(17)
    for (const last of layouts) {
      const bare = sceneWith(1, true, random)
      const tried = layouts.reduce((show, layout) => apply(show, bare.sceneId, layout), bare.show)
      const there = apply(tried, bare.sceneId, last)
      const once = withoutIdleParts(there)
      const [before, after] = [there, once].map((show) => show.scenes.find(({ id }) => id === bare.sceneId)!)
      expect(after!.layers.filter(({ visible }) => visible)).toEqual(before!.layers.filter(({ visible }) => visible))
      expect(after!.layers.filter(({ visible, part }) => !visible && part !== null)).toEqual([])
      expect(readShow(JSON.parse(JSON.stringify(once)))).toEqual(once)
      expect(withoutIdleParts(once)).toBe(once)
      expect(withoutIdleParts(there, hiddenParts(there))).toBe(there)
      const divider = before!.layers.find(({ part }) => part === 'divider')!
      if (divider.kind !== 'shape') throw new Error('a divider is a shape')
      const red = updateFill(there, divider.contentId, () => ({ kind: 'plain', colour: '#ff0000', opacity: 1 }))
      expect(
        withoutIdleParts(red)
          .scenes.at(-1)!
          .layers.some(({ id }) => id === divider.id),
      ).toBe(true)
      const locked = updateScene(there, bare.sceneId, (scene) => ({ ...scene, locked: true }))
      expect(withoutIdleParts(locked)).toBe(locked)
    }
  })

  it.each(layouts)('$name, $side: twice is once; another and back is the first; others stay; it is stored', (layout) => {
    const random = seededRandom(91)
    for (const cameras of [1, 2, 4]) {
      for (const hasPage of [true, false]) {
        const bare = sceneWith(cameras, hasPage, random)
        const first = apply(bare.show, bare.sceneId, layout)
        expect(readShow(JSON.parse(JSON.stringify(first)))).toEqual(first)
        expect(apply(first, bare.sceneId, layout)).toEqual(first)
        for (const other of layouts) {
          const there = apply(first, bare.sceneId, other)
          // The first visit may add what the other layout needs, hidden from then on.
          const back = apply(there, bare.sceneId, layout)
          const known = new Set(first.scenes.at(-1)!.layers.map(({ id }) => id))
          const [scene, before] = [back.scenes.at(-1)!, first.scenes.at(-1)!]
          // Where a hidden layer lies is nobody's concern.
          const seen = (layers: readonly Layer[]) => layers.filter(({ id }) => known.has(id)).map((layer) => (layer.visible ? layer : layer.id))
          expect(seen(scene.layers)).toEqual(seen(before.layers))
          expect(scene.layers.filter(({ id }) => !known.has(id)).every(({ visible, part }) => !visible && part !== null)).toBe(true)
          expect(apply(apply(back, bare.sceneId, other), bare.sceneId, layout)).toEqual(back)
        }
        const [scene] = first.scenes.slice(-1)
        for (const layer of bare.show.scenes.at(-1)!.layers) {
          const isInCast = layer.kind === 'input' && layer.name !== 'Apiary wall'
          if (!isInCast) expect(scene!.layers).toContain(layer)
        }
      }
    }
  })

  it('keeps a frame that the presenter made, and takes its own off again', () => {
    const { show, sceneId } = sceneWith(1, true, seededRandom(3))
    const framed = apply(show, sceneId, { name: 'frames', side: 'left' })
    const frameOf = (one: Show) => one.scenes.at(-1)!.layers.find(({ name }) => name === 'Camera 0')!.frame
    expect(frameOf(framed)).toEqual(floatingFrame(show.canvas))
    expect(frameOf(apply(framed, sceneId, { name: 'third', side: 'left' })).border).toBeNull()
    const own = { ...frameOf(framed), cornerRadiusPx: 77 }
    const changed = updateScene(framed, sceneId, (scene) => ({
      ...scene,
      layers: scene.layers.map((layer) => (layer.name === 'Camera 0' ? { ...layer, frame: own } : layer)),
    }))
    expect(frameOf(apply(apply(changed, sceneId, { name: 'third', side: 'left' }), sceneId, { name: 'frames', side: 'left' }))).toEqual(own)
  })

  it('leaves locked layers, grounds, small marks and words alone; a scene with nothing to place stays', () => {
    const show = testShow()
    const welcome = sceneNamed(show, 'Welcome')
    const cast = castOf(show, welcome)
    expect(cast).toEqual({ presenters: [welcome.layers[1]!.id], page: null })
    const locked = updateScene(show, welcome.id, (scene) => ({ ...scene, layers: scene.layers.map((layer) => ({ ...layer, locked: true })) }))
    expect(apply(locked, welcome.id, { name: 'third', side: 'left' })).toBe(locked)
  })

  it('of two screens the one in front is the page, and the selected one before it; a screen comes before a picture all the same', () => {
    const bare = testShow()
    const screens = ['One', 'Two'].map((name): Input => ({
      id: name.toLowerCase(),
      kind: 'screen',
      name,
      source: { type: 'standin' },
      frameRate: 30,
      treatment: [],
    }))
    const show = screens.reduce(addInput, bare)
    const welcome = sceneNamed(show, 'Welcome')
    const [one, two] = screens.map((screen) => newInputLayer(screen, show.canvas, makeId))
    const picture = {
      ...newInputLayer(
        show.inputs.find(({ kind }) => kind === 'picture')!,
        show.canvas,
        makeId,
      ),
    }
    const scene = { ...welcome, layers: [two!, one!, ...welcome.layers, picture] }
    expect(castOf(show, scene).page).toBe(one!.id)
    expect(castOf(show, { ...scene, layers: [one!, two!, picture] }).page).toBe(two!.id)
    expect(castOf(show, scene, two!.id).page).toBe(two!.id)
    expect(castOf(show, scene, picture.id).page).toBe(picture.id)
    // A camera that is selected is no page.
    expect(castOf(show, scene, welcome.layers[1]!.id).page).toBe(one!.id)
  })

  it('random shows take any layout and stay shows', () => {
    for (const seed of [301, 304, 309]) {
      const { show, infos } = showCase(seed)
      for (const scene of show.scenes) {
        for (const layout of layouts) {
          const made = arrangeScene(show, scene.id, layout, castOf(show, scene), { infos, heads: new Map() }, names, makeId)
          expect(readShow(JSON.parse(JSON.stringify(made)))).toEqual(made)
        }
      }
    }
  })
})
