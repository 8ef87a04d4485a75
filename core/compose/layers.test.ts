// What layers make of a plan: groups, scenes in scenes, frames, shapes.
import { gradientOf } from '../paint/fill.ts'
import { PLAIN_FRAME } from '../box/frame.ts'
import { newStep } from '../steps/treatment.ts'
import { newShapeLayer } from '../layers/shape.ts'
import { newSceneLayer } from '../layers/scene.ts'
import { newGroupLayer } from '../layers/group.ts'
import { describe, expect, it } from 'vitest'
import { picturesFor, SHOW_SEEDS, showCase } from '../../tests/support/random-shows.ts'
import { nodeOf, rootOf } from '../plan/read-plan.ts'
import type { StackNode } from '../plan/frame-plan.ts'
import { planFrame, planOutputs, type PlanOptions } from '../stage/plan-frame.ts'
import { renderOutputs, renderReference } from '../render/render-reference.ts'
import { inkModes, newInk } from '../layout/inside-page.ts'
import { addContents } from '../show/contents.ts'
import type { NewLayer } from '../show/show.ts'
import { BARE_SCENE } from '../show/create.ts'
import { addStep } from '../show/edits.ts'
import { readShow } from '../show/migrate.ts'
import type { Content, Fill, Layer, Outline, Scene, ShapeLayer, Show } from '../show/show.ts'

let count = 0
const makeId = () => `t${(count += 1)}`

function pictureOf(show: Show, options: PlanOptions = {}, seed = 301) {
  const one = { ...showCase(seed), show }
  const plan = planFrame(show, { scene: show.scenes[0]! }, 0, one.infos, options)
  return { plan, data: renderReference(plan, picturesFor(one, plan)).data }
}

/** A box of one colour, and its fill. */
function plainShape(show: Show, colour: string, box: { x: number; y: number; width: number; height: number }): NewLayer<ShapeLayer> {
  const { layer, contents } = newShapeLayer('Shape', 'box', show.canvas, makeId)
  return {
    layer: { ...layer, placement: { ...layer.placement, ...box } },
    contents: contents.map((content) => ({ ...content, kind: 'shape', fill: { kind: 'plain', colour, opacity: 1 }, outline: null })),
  }
}

function mostBetween(first: ArrayLike<number>, second: ArrayLike<number>): number {
  let most = 0
  for (let i = 0; i < first.length; i += 1) most = Math.max(most, Math.abs(first[i]! - second[i]!))
  return most
}

const withLayers = (show: Show, layers: readonly Layer[]): Show => ({ ...show, scenes: [{ ...show.scenes[0]!, layers }, ...show.scenes.slice(1)] })
/** As a group is, but for a shadow that nobody sees: so it is not taken for a part of what is around it. */
const SET_APART = { ...PLAIN_FRAME, shadow: { dx: 0, dy: 0, blurPx: 0, colour: '#000000', opacity: 0 } }

describe('random shows', () => {
  it.each(SHOW_SEEDS)('seed %i is a valid show, and looks the same with and without what nobody can see', (seed) => {
    const { show } = showCase(seed)
    expect(readShow(structuredClone(show))).toEqual(show)
    const [culled, all] = [true, false].map((culls) => pictureOf(show, { culls }, seed).data)
    expect(mostBetween(culled!, all!)).toBeLessThan(1e-9)
  })
})

describe('a group', () => {
  it.each(SHOW_SEEDS.slice(0, 8))('seed %i: that nothing sets apart looks as its layers do; set apart too, if they blend normally', (seed) => {
    const { show } = showCase(seed)
    const calm = (layers: readonly Layer[]): Layer[] =>
      layers.map((layer) => ({ ...layer, blend: 'normal' as const, ...(layer.kind === 'group' ? { layers: calm(layer.layers) } : {}) }) as Layer)
    const layers = calm(show.scenes[0]!.layers)
    const alone = pictureOf(withLayers(show, layers), {}, seed)
    const group = newGroupLayer('Group', layers, show.canvas, makeId)
    const together = pictureOf(withLayers(show, [group]), {}, seed)
    expect(together.plan.nodes).toEqual(alone.plan.nodes)
    const apart = pictureOf(withLayers(show, [{ ...group, frame: SET_APART }]), {}, seed)
    expect(rootOf(apart.plan).items).toHaveLength(1)
    expect(mostBetween(alone.data, apart.data)).toBeLessThan(1e-9)
  })

  // W3C Compositing and Blending Level 1 §3.3: the layers of an isolated group are blended with each other only.
  it.each(SHOW_SEEDS.slice(0, 4))(
    'seed %i: is the same picture in place, set apart, a thousandth faded or a thousandth of a pixel moved, however its layers blend',
    (seed) => {
      const { show } = showCase(seed)
      const group = newGroupLayer('Group', show.scenes[0]!.layers, show.canvas, makeId)
      const wall: Layer = { ...show.scenes[2]!.layers[0]!, visible: true, opacity: 1, blend: 'normal' }
      const draw = (layer: Layer) => pictureOf(withLayers(show, [wall, layer]), { scale: 0.5 }, seed).data
      const inPlace = draw(group)
      expect(mostBetween(inPlace, draw({ ...group, frame: SET_APART }))).toBeLessThan(1e-9)
      expect(mostBetween(inPlace, draw({ ...group, opacity: 0.999 }))).toBeLessThan(0.0015)
      expect(mostBetween(inPlace, draw({ ...group, placement: { ...group.placement, x: 0.001 } }))).toBeLessThan(0.03)
    },
  )

  it('is faded as one picture: what is behind another of its layers does not shine through', () => {
    const { show } = showCase(301)
    const shapes = ['#ff0000', '#0000ff'].map((colour) => plainShape(show, colour, { x: 0, y: 0, width: 160, height: 90 }))
    const inShow = addContents(
      show,
      shapes.flatMap(({ contents }) => contents),
    )
    const group = newGroupLayer(
      'Group',
      shapes.map(({ layer }) => layer),
      show.canvas,
      makeId,
    )
    const { data } = pictureOf(withLayers(inShow, [{ ...group, opacity: 0.5 }]))
    expect([...data.slice(0, 4)]).toEqual([0, 0, 0.5, 1])
  })

  it('that is moved, turned and shrunk carries its layers along', () => {
    const { show } = showCase(301)
    const square = plainShape(show, '#ffffff', { x: 60, y: 40, width: 40, height: 40 })
    const group = {
      ...newGroupLayer('Group', [square.layer], show.canvas, makeId),
      placement: { x: 40, y: 0, width: 80, height: 60, angleDeg: 90, fit: 'stretch' as const },
    }
    const { data } = pictureOf(withLayers(addContents(show, square.contents), [group]))
    let area = 0
    for (let i = 0; i < data.length; i += 4) area += data[i]!
    expect(area).toBeCloseTo(20 * 20, 0)
    // The middle of both is the middle of the group's box.
    expect(data[(30 * 160 + 80) * 4]).toBeCloseTo(1, 6)
    expect(data[(30 * 160 + 66) * 4]).toBe(0)
  })
})

describe('a scene in a scene', () => {
  it('is what the other scene is, planned as large as it is seen', () => {
    const { show, infos } = showCase(305)
    const small = {
      ...newSceneLayer(show.scenes[2]!, show.canvas, makeId),
      placement: { x: 80, y: 60, width: 80, height: 60, angleDeg: 0, fit: 'fit' as const },
    }
    const outer = withLayers(show, [small])
    const plan = planFrame(outer, { scene: outer.scenes[0]! }, 0, infos)
    const inner = nodeOf(plan, rootOf(plan).items[0]!)
    const alone = planFrame(show, { scene: show.scenes[2]!, ground: 'clear' }, 0, infos, { scale: 0.5 })
    expect(inner).toMatchObject({ kind: 'stack', widthPx: 80, heightPx: 60, key: rootOf(alone).key })
  })

  it('that shows itself is refused with the way named, and ends there if it is planned all the same', () => {
    const { show, infos } = showCase(301)
    const inOne = newSceneLayer(show.scenes[1]!, show.canvas, makeId)
    const inTwo = newSceneLayer(show.scenes[0]!, show.canvas, makeId)
    const circle: Show = {
      ...show,
      scenes: [
        { ...show.scenes[0]!, layers: [inOne] },
        { ...show.scenes[1]!, layers: [inTwo] },
      ],
    }
    expect(() => readShow(circle)).toThrow(/must not show itself: \\"First\\" shows \\"Second\\" shows \\"First\\"/)
    expect(rootOf(planFrame(circle, { scene: circle.scenes[0]! }, 0, infos)).items).toEqual([])
  })
})

describe('a frame', () => {
  it('puts a shadow behind and a border in front; a faint or blended layer stays one picture', () => {
    const made = newShapeLayer('Shape', 'box', showCase(301).show.canvas, makeId)
    const show = addContents(showCase(301).show, made.contents)
    const frame = {
      ...PLAIN_FRAME,
      border: { widthPx: 4, colour: '#ffffff', opacity: 1, side: 'outside' as const },
      shadow: { dx: 2, dy: 3, blurPx: 8, colour: '#000000', opacity: 0.5 },
    }
    const layer = { ...made.layer, frame }
    const items = rootOf(pictureOf(withLayers(show, [layer])).plan).items
    expect(items.map(({ coverage }) => [coverage.sigmaPx, coverage.strokePx])).toEqual([
      [4, null],
      [0, null],
      [0, 4],
    ])
    expect(rootOf(pictureOf(withLayers(show, [{ ...layer, opacity: 0.5 }])).plan).items).toHaveLength(1)
    expect(rootOf(pictureOf(withLayers(show, [{ ...layer, blend: 'multiply' }])).plan).items).toHaveLength(1)
  })

  it('covers as much as its form has: a border of four pixels round a box, inside and outside', () => {
    const { show } = showCase(301)
    const shape = plainShape(show, '#000000', { x: 40, y: 20, width: 80, height: 50 })
    const bordered = (side: 'inside' | 'outside'): Layer => ({
      ...shape.layer,
      frame: { ...PLAIN_FRAME, border: { widthPx: 4, colour: '#ffffff', opacity: 1, side } },
    })
    for (const [side, area] of [
      ['inside', 80 * 50 - 72 * 42],
      ['outside', 88 * 58 - 80 * 50],
    ] as const) {
      const { data } = pictureOf(withLayers(addContents(show, shape.contents), [bordered(side)]))
      let white = 0
      for (let i = 0; i < data.length; i += 4) white += data[i]!
      expect(white).toBeCloseTo(area, 6)
    }
  })
})

it('a gradient of a box is as long as CSS Images Level 3 §3.1.1 says: |w · sin a| + |h · cos a|', () => {
  const stops = [
    { at: 0, colour: '#000000', opacity: 1 },
    { at: 1, colour: '#ffffff', opacity: 1 },
  ]
  for (const angleDeg of [0, 45, 90, 180, 217]) {
    const gradient = gradientOf({ kind: 'linear', angleDeg, stops }, 120, 70)
    if (gradient.kind !== 'linear') throw new Error('not a linear gradient')
    const angle = (angleDeg * Math.PI) / 180
    const length = Math.hypot(gradient.toX - gradient.fromX, gradient.toY - gradient.fromY)
    expect(length).toBeCloseTo(Math.abs(120 * Math.sin(angle)) + Math.abs(70 * Math.cos(angle)), 9)
  }
  // 0 degrees runs upwards, 90 to the right.
  expect(gradientOf({ kind: 'linear', angleDeg: 0, stops }, 120, 70)).toMatchObject({ fromY: 70, toY: 0 })
})

describe('two outputs', () => {
  it.each(SHOW_SEEDS.slice(0, 8))('seed %i: are the pictures of two single plans, and share what is equal', (seed) => {
    const one = showCase(seed)
    const [first, second] = one.show.scenes as [Scene, Scene]
    const mark = newShapeLayer('Mark', 'ellipse', one.show.canvas, makeId)
    const show = addContents(one.show, mark.contents)
    const more = { ...first, layers: [...first.layers, mark.layer] }
    for (const scenes of [
      { feed: { scene: first }, recording: { scene: more } },
      { feed: { scene: first }, recording: { scene: second } },
    ]) {
      const plan = planOutputs(show, scenes, 0, one.infos)
      const both = renderOutputs(plan, picturesFor(one, plan))
      for (const [id, stage] of Object.entries(scenes)) {
        const single = planFrame(show, stage, 0, one.infos)
        expect(mostBetween(both.get(id)!.data, renderReference(single, picturesFor(one, single)).data), id).toBeLessThan(1e-12)
      }
    }
  })

  it('a picture that both show is one node, and what they share is made once', () => {
    const { show: bare, infos } = showCase(301)
    const { layer: model, contents } = newShapeLayer('Shape', 'box', bare.canvas, makeId)
    const show = addContents(bare, contents)
    const shape = () => ({ ...model, id: makeId() })
    const layers = [shape(), { ...shape(), placement: { x: 5, y: 5, width: 30, height: 30, angleDeg: 0, fit: 'stretch' as const } }]
    const scene = { ...BARE_SCENE, id: 'a', name: 'A', layers }
    const plan = planOutputs(show, { feed: { scene }, recording: { scene: { ...scene, layers: [...layers, shape()] } } }, 0, infos)
    expect(plan.nodes).toHaveLength(2)
    expect((plan.nodes[plan.outputs['recording']!] as StackNode).items).toHaveLength(2)
  })
})

describe('a drawn form', () => {
  const { show } = showCase(301)
  const box = { x: 40, y: 30, width: 60, height: 40 }
  const drawn = (stroke: Outline['stroke'], part: Partial<Layer['placement']> = {}) => {
    const { layer, contents } = plainShape(show, '#ff0000', box)
    const outline: Outline = { path: 'M0 0 H10 V20 H0 Z', width: 10, height: 20, stroke }
    return pictureOf(
      withLayers(
        addContents(
          show,
          contents.map((content) => ({ ...content, outline }) as Content),
        ),
        [{ ...layer, placement: { ...layer.placement, ...part } }],
      ),
    ).data
  }
  const pixel = (data: ArrayLike<number>, x: number, y: number) =>
    [0, 1, 2].map((channel) => Math.round(data[(y * show.canvas.widthPx + x) * 4 + channel]! * 255))

  it('fills its box as a box does, at a whole and at half a pixel, turned and not', () => {
    for (const part of [{}, { x: 40.5, width: 59 }, { angleDeg: 90 }]) {
      const plain = plainShape(show, '#ff0000', box)
      const layer = { ...plain.layer, placement: { ...plain.layer.placement, ...part } }
      const boxed = pictureOf(withLayers(addContents(show, plain.contents), [layer])).data
      expect(mostBetween(drawn(null, part), boxed)).toBeLessThan(1 / 255)
    }
  })

  it('has the gradient that a box has, with a stroke round it too', () => {
    const stops = [
      { at: 0, colour: '#000000', opacity: 1 },
      { at: 1, colour: '#ffffff', opacity: 1 },
    ]
    const filled = (fill: Fill, outline: Outline | null) => {
      const { layer, contents } = plainShape(show, '#ff0000', box)
      return pictureOf(
        withLayers(
          addContents(
            show,
            contents.map((content) => ({ ...content, fill, outline }) as Content),
          ),
          [layer],
        ),
      ).data
    }
    for (const fill of [{ kind: 'linear', angleDeg: 60, stops } as const, { kind: 'radial', stops } as const]) {
      const boxed = filled(fill, null)
      const stroked = filled(fill, { path: 'M0 0 H10 V20 H0 Z', width: 10, height: 20, stroke: { widthPx: 8, colour: '#0000ff', opacity: 1 } })
      for (const [x, y] of [
        [50, 40],
        [70, 50],
        [90, 60],
      ] as const) {
        pixel(stroked, x, y).forEach((value, channel) => expect(Math.abs(value - pixel(boxed, x, y)[channel]!)).toBeLessThanOrEqual(1))
      }
    }
  })

  it('has half of its stroke outside its box, and half inside', () => {
    const data = drawn({ widthPx: 6, colour: '#0000ff', opacity: 1 })
    for (const [x, y] of [
      [37, 50],
      [42, 50],
      [102, 50],
      [97, 50],
      [70, 27],
      [70, 72],
    ] as const) {
      expect(pixel(data, x, y), `${x} ${y}`).toEqual([0, 0, 255])
    }
    expect(pixel(data, 43, 50)).toEqual([255, 0, 0])
    expect(pixel(data, 36, 50)).toEqual([0, 0, 0])
    expect(pixel(data, 103, 50)).toEqual([0, 0, 0])
  })
})

describe('what rests', () => {
  it('is planned from what it was before as it would be anew: at several sizes in turn, and after every edit', () => {
    for (const seed of SHOW_SEEDS.slice(0, 8)) {
      const { show, infos } = showCase(seed)
      const planned = (one: Show, scale: number) => planFrame(one, { scene: one.scenes[0]! }, 0, infos, { scale })
      for (const scale of [1, 0.37, 0.5, 1, 0.37, 0.125, 0.25, 1]) expect(planned(show, scale)).toEqual(planned(structuredClone(show), scale))
      // Cleaned otherwise everywhere, the layers themselves are the same.
      const cleaned = show.inputs.reduce(
        (one, { id }) =>
          addStep(
            one,
            { type: 'input', inputId: id },
            newStep('balance', () => `step-${id}`),
          ),
        show,
      )
      expect(planned(cleaned, 1)).toEqual(planned(structuredClone(cleaned), 1))
    }
  })
})

describe('a presenter inside a page', () => {
  const { show } = showCase(301)
  const page = plainShape(show, '#3c6eb4', { x: 0, y: 0, width: 160, height: 120 })
  const presenter = plainShape(show, '#e0b090', { x: 40, y: 20, width: 60, height: 90 })
  const inShow = addContents(show, [...page.contents, ...presenter.contents])
  const asScene = { ...BARE_SCENE, id: 'page', name: 'Page', layers: [page.layer] }
  const base: Show = { ...inShow, scenes: [{ ...inShow.scenes[0]!, layers: [] }, asScene, ...inShow.scenes.slice(1)] }
  const pageLayer = newSceneLayer(asScene, base.canvas, makeId)
  const alone = pictureOf(withLayers(base, [pageLayer])).data

  it.each(inkModes)('in mode "%s" leaves the page’s own colours as they are wherever the presenter is not', (mode) => {
    const ink = newInk(pageLayer, mode, 'Ink', makeId)
    const { data } = pictureOf(withLayers(base, [pageLayer, presenter.layer, ink]))
    for (let y = 0; y < 120; y += 1) {
      for (let x = 0; x < 160; x += 1) {
        if (x >= 40 && x < 100 && y >= 20 && y < 110) continue
        for (let channel = 0; channel < 4; channel += 1) {
          const at = (y * 160 + x) * 4 + channel
          expect(Math.abs(data[at]! - alone[at]!)).toBeLessThan(1 / 255)
        }
      }
    }
  })

  it('is darkened by all of the ink in mode "all": the product of both, as multiply is defined (W3C Compositing §5.1)', () => {
    const { data } = pictureOf(withLayers(base, [pageLayer, presenter.layer, newInk(pageLayer, 'all', 'Ink', makeId)]))
    const expected = [0xe0 * 0x3c, 0xb0 * 0x6e, 0x90 * 0xb4].map((product) => product / 255 ** 2)
    const at = (60 * 160 + 70) * 4
    expect([...data.slice(at, at + 3)]).toEqual(expected.map((value) => expect.closeTo(value, 6) as number))
  })

  it('is the page alone where nobody stands in it', () => {
    const ink = newInk(pageLayer, 'all', 'Ink', makeId)
    expect(mostBetween(pictureOf(withLayers(base, [pageLayer, ink])).data, alone)).toBe(0)
    expect(mostBetween(pictureOf(withLayers(base, [pageLayer, { ...presenter.layer, visible: false }, ink])).data, alone)).toBe(0)
  })
})
