// Every transition by its list, then what each is half way. One file, though long: all of it draws with the same two scenes.
import { readdirSync, readFileSync } from 'node:fs'
import { newInputLayer } from '../layers/input.ts'
import type { SourceInfos } from '../picture/source.ts'
import { describe, expect, it } from 'vitest'
import { movingCase, MOVING_SEEDS, picturesFor, showCase } from '../../tests/support/random-shows.ts'
import type { Picture } from '../picture/picture.ts'
import { nodeOf, rootOf } from '../plan/read-plan.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { renderReference } from '../render/render-reference.ts'
import { seededRandom } from '../random/seeded.ts'
import { BARE_SCENE } from '../show/create.ts'
import type { ColourInput, Input, InputLayer, Layer, Scene, Show } from '../show/show.ts'
import { goTo, settled, type TransitionStage, type Stage } from '../stage/stage.ts'
import { namedEasings } from '../motion/easing.ts'
import { commonOrder } from './common-order.ts'
import { transitions } from './index.ts'
import { usualTransitions, type Transition } from './index.ts'

const WIDTH = 160
const HEIGHT = 120
const red: ColourInput = { id: 'red', kind: 'colour', name: 'Red', colour: '#ff0000', treatment: [] }
const blue: ColourInput = { id: 'blue', kind: 'colour', name: 'Blue', colour: '#0000ff', treatment: [] }
const greys: Input = { id: 'greys', kind: 'picture', name: 'Greys', asset: 'a'.repeat(64), treatment: [] }
const linear = { durationMs: 1000, easing: namedEasings.linear } as const

let count = 0
const makeId = () => `t${(count += 1)}`
const canvas = { widthPx: WIDTH, heightPx: HEIGHT, frameRate: 30 }
const layerOf = (input: Input, part: Partial<Layer['placement']> = {}): InputLayer => {
  const layer = newInputLayer(input, canvas, makeId)
  return { ...layer, placement: { ...layer.placement, fit: 'fill', ...part } }
}
const sceneOf = (name: string, layers: readonly Layer[]): Scene => ({ ...BARE_SCENE, id: name, name, layers })
const one = sceneOf('one', [layerOf(red)])
const two = sceneOf('two', [layerOf(blue)])
const show: Show = { ...showCase(301).show, canvas, inputs: [red, blue, greys], contents: [], scenes: [one, two] }
/** From black on the left to white on the right. */
const ramp: Picture = {
  format: 'rgba',
  widthPx: WIDTH,
  heightPx: HEIGHT,
  data: Uint8Array.from({ length: WIDTH * HEIGHT * 4 }, (_, i) => (i % 4 === 3 ? 255 : ((Math.floor(i / 4) % WIDTH) / (WIDTH - 1)) * 255)),
}
const infos: SourceInfos = new Map([['input:greys', { widthPx: WIDTH, heightPx: HEIGHT, isOpaque: true }]])

function pictureAt(stage: Stage, timeMs: number, scale = 1) {
  const plan = planFrame(show, stage, timeMs, infos, { scale })
  const { data } = renderReference(plan, new Map([['input:greys', ramp]]))
  return { plan, data, at: (x: number, y: number) => [...data.slice((y * WIDTH + x) * 4, (y * WIDTH + x) * 4 + 3)] }
}

/** On the way from red to blue at a share of the time. */
const half = (transition: Transition, progress = 0.5, scale = 1) => pictureAt(goTo({ scene: one }, two, transition, 0), progress * 1000, scale)

function mostBetween(first: ArrayLike<number>, second: ArrayLike<number>): number {
  let most = 0
  for (let i = 0; i < first.length; i += 1) most = Math.max(most, Math.abs(first[i]! - second[i]!))
  return most
}

function meanBetween(first: ArrayLike<number>, second: ArrayLike<number>): number {
  let sum = 0
  for (let i = 0; i < first.length; i += 1) sum += Math.abs(first[i]! - second[i]!)
  return sum / first.length
}

const all: readonly Transition[] = [...Object.values(usualTransitions), { ...usualTransitions.wipe, kind: 'pictureWipe', inputId: 'photo', softness: 0.3 }]

describe('every transition', () => {
  it('is in the list once', () => {
    expect(Object.keys(transitions).sort()).toEqual(all.map(({ kind }) => kind).sort())
    // Whoever writes one and forgets the list is told.
    const folder = new URL('.', import.meta.url)
    const files = readdirSync(folder).filter(
      (file) => /: TransitionDefinition</.test(readFileSync(new URL(file, folder), 'utf8')) && file !== 'index.ts' && !file.includes('.test.'),
    )
    expect(files).toHaveLength(Object.keys(transitions).length)
  })

  it.each(all.map((transition) => [transition.kind, transition] as const))(
    '%s is the one scene when it begins and the other when it is over',
    (kind, transition) => {
      for (const seed of [401, 407]) {
        const { show: random, infos: sizes, inputs } = showCase(seed)
        const [first, second] = random.scenes as [Scene, Scene]
        const draw = (stage: Stage, timeMs: number) => {
          const plan = planFrame(random, stage, timeMs, sizes)
          return renderReference(plan, picturesFor({ inputs }, plan)).data
        }
        const stage = goTo({ scene: first }, second, { ...transition, durationMs: 600 }, 0)
        if (kind !== 'cut') expect(mostBetween(draw(stage, 0), draw({ scene: first }, 0))).toBeLessThan(1e-9)
        expect(mostBetween(draw(stage, 600), draw({ scene: second, enteredMs: 0 }, 600))).toBe(0)
      }
    },
  )

  it.each(all.filter(({ kind }) => kind !== 'cut').map((transition) => [transition.kind, transition] as const))(
    '%s can be interrupted at any moment: the next begins with the picture that there was',
    (_, transition) => {
      const { show: random, infos: sizes, inputs } = showCase(403)
      const [first, second, third] = random.scenes as [Scene, Scene, Scene]
      const draw = (stage: Stage, timeMs: number) => {
        const plan = planFrame(random, stage, timeMs, sizes, { scale: 0.3 })
        return renderReference(plan, picturesFor({ inputs }, plan)).data
      }
      const begun = goTo({ scene: first }, second, transition, 0)
      for (const atMs of [130, 480]) {
        const there = draw(begun, atMs)
        for (const next of all) {
          if (next.kind === 'cut') continue
          expect(mostBetween(draw(goTo(begun, third, next, atMs), atMs), there), `${next.kind} at ${atMs}`).toBeLessThan(1e-9)
        }
      }
    },
  )

  it.each(all.filter(({ kind }) => kind !== 'cut').map((transition) => [transition.kind, transition] as const))(
    '%s never jumps: a hundredth of its time moves the mean pixel by little',
    (_, transition) => {
      // By the picture that this show has: without one it would be mixed.
      const here = transition.kind === 'pictureWipe' ? { ...transition, inputId: greys.id } : transition
      const seen = (progress: number) => half({ ...here, ...linear } as Transition, progress, 0.5).data
      let before = seen(0)
      for (let progress = 0.01; progress < 1.005; progress += 0.01) {
        const now = seen(progress)
        // Of four channels two change, from 0 to 1 or back: ½ in all.
        expect(meanBetween(before, now)).toBeLessThan(0.025)
        before = now
      }
    },
  )

  // A seam is where one way of drawing takes over from another: both ends, the middle, where something is hidden from then on.
  const SEAMS_MS = [0, 1, 249, 250, 499, 500, 501, 700, 998, 999]

  it.each(all.filter(({ kind }) => kind !== 'cut').flatMap((transition) => [11, 12, 13, 14].map((seed) => [transition.kind, seed, transition] as const)))(
    '%s, seed %i: no pixel changes by more in a millisecond than an edge at its speed would change it',
    (_, seed, transition) => {
      const random = seededRandom(seed)
      const between = (least: number, most: number) => least + random() * (most - least)
      const placed = (base: InputLayer): InputLayer => ({
        ...base,
        opacity: between(0.4, 1),
        placement: {
          ...base.placement,
          x: between(-40, 90),
          y: between(-30, 60),
          width: between(30, 160),
          height: between(30, 120),
          angleDeg: random() < 0.5 ? 0 : between(-180, 180),
        },
        crop: random() < 0.3 ? null : { left: between(0, 0.45), top: between(0, 0.45), right: between(0, 0.45), bottom: between(0, 0.45) },
        frame: {
          ...base.frame,
          cornerRadiusPx: between(0, 30),
          border: random() < 0.5 ? null : { widthPx: between(1, 9), colour: '#208040', opacity: between(0.3, 1), side: 'inside' },
        },
      })
      const [wall, shown] = [layerOf(blue), layerOf(greys)]
      const first = sceneOf('first', [wall, placed(shown)])
      const second = sceneOf('second', [wall, placed(shown), placed(layerOf(red))])
      const here = transition.kind === 'pictureWipe' ? { ...transition, inputId: greys.id } : transition
      const stage = goTo({ scene: first }, second, { ...here, ...linear } as Transition, 0)
      const SCALE = 0.5
      // Nothing goes further than twice round the canvas in a second; a soft edge takes a tenth of the way, and opacity a quarter of the time.
      const fastest = ((4 * WIDTH * SCALE) / 1000) * 1.5 + 1 / 250
      for (const ms of SEAMS_MS) {
        const [before, after] = [pictureAt(stage, ms, SCALE).data, pictureAt(stage, ms + 1, SCALE).data]
        expect(mostBetween(before, after), `from ${ms} to ${ms + 1} ms`).toBeLessThan(fastest)
        // And few of them are at an edge: the mean moves by next to nothing.
        expect(meanBetween(before, after), `mean, from ${ms} to ${ms + 1} ms`).toBeLessThan(0.008)
      }
    },
  )

  it('turns by the shorter way, and crops on the way', () => {
    const place = (angleDeg: number, left: number): InputLayer => {
      const base = layerOf(greys, { x: 40, y: 20, width: 80, height: 80 })
      return { ...base, placement: { ...base.placement, angleDeg }, crop: { left, top: 0, right: 0, bottom: 0 } }
    }
    const on = goTo({ scene: sceneOf('a', [place(170, 0)]) }, sceneOf('b', [place(-170, 0.5)]), { ...linear, kind: 'glide' }, 0)
    const alone = { scene: sceneOf('c', [place(180, 0.25)]) }
    expect(mostBetween(pictureAt(on, 500).data, pictureAt(alone, 0).data)).toBeLessThan(1e-6)
  })

  it('is planned again as long as it runs, and no longer', () => {
    const stage = goTo({ scene: one }, two, { ...linear, kind: 'dissolve' }, 100)
    expect(planFrame(show, stage, 600, infos).validUntilMs).toBeLessThanOrEqual(600)
    expect(planFrame(show, stage, 1100, infos).validUntilMs).toBe(Infinity)
  })
})

describe('where both scenes are the same', () => {
  /** A scene and a copy of it whose last layer lies elsewhere. */
  const alikeAt = (seed: number) => {
    const { show: random, infos: sizes, inputs } = showCase(seed)
    const [first] = random.scenes as [Scene]
    const moved = (layer: Layer): Layer => ({ ...layer, placement: { ...layer.placement, x: layer.placement.x * 0.5 + 9 } })
    const second = { ...first, id: 'copy', layers: first.layers.map((layer, i) => (i === first.layers.length - 1 ? moved(layer) : layer)) }
    const planAt = (stage: Stage, timeMs: number) => planFrame(random, stage, timeMs, sizes)
    const draw = (stage: Stage, timeMs: number) => {
      const plan = planAt(stage, timeMs)
      return renderReference(plan, picturesFor({ inputs }, plan)).data
    }
    return { first, second, planAt, draw }
  }

  it.each([302, 305, 306, 309, 311, 314])('seed %i: a dissolve is the mean of both all the same, and a wipe has each where it should', (seed) => {
    const { first, second, draw } = alikeAt(seed)
    const [before, after] = [draw({ scene: first }, 0), draw({ scene: second }, 0)]
    const mixed = draw(goTo({ scene: first }, second, { ...linear, kind: 'dissolve' }, 0), 300)
    const mean = before.map((value, i) => value * 0.7 + after[i]! * 0.3)
    expect(mostBetween(mixed, mean)).toBeLessThan(1e-9)
    const wiped = draw(goTo({ scene: first }, second, { ...linear, kind: 'wipe', angleDeg: 90, softness: 0 }, 0), 500)
    for (const { picture, from, to } of [
      { picture: after, from: 0, to: 0.49 },
      { picture: before, from: 0.51, to: 1 },
    ]) {
      const { widthPx } = showCase(seed).show.canvas
      const isInside = (i: number) => ((i >> 2) % widthPx) / widthPx >= from && ((i >> 2) % widthPx) / widthPx < to
      let most = 0
      wiped.forEach((value, i) => (most = isInside(i) ? Math.max(most, Math.abs(value - picture[i]!)) : most))
      expect(most).toBeLessThan(1e-9)
    }
  })

  it('nothing is drawn twice: an item for each part that differs, and no more than that', () => {
    const [still, other] = [layerOf(red), layerOf(red, { x: 20, y: 10, width: 30, height: 20 })]
    const corner = layerOf(blue, { x: 120, y: 90, width: 20, height: 20 })
    const stage = goTo(
      { scene: sceneOf('first', [still, other, corner]) },
      sceneOf('second', [still, { ...other, placement: { ...other.placement, x: 40 } }, { ...corner, opacity: 0.5 }]),
      { ...linear, kind: 'dissolve' },
      0,
    )
    const plan = planFrame(show, stage, 500, infos)
    const shown = rootOf(plan).items.filter((item) => nodeOf(plan, item)?.kind === 'stack')
    expect(shown.map(({ bounds }) => bounds)).toEqual([
      { left: 20, top: 10, right: 70, bottom: 30 },
      { left: 120, top: 90, right: 140, bottom: 110 },
    ])
    // Two scenes that look the same: nothing but the one.
    const same = planFrame(show, goTo({ scene: one }, { ...one, id: 'again' }, { ...linear, kind: 'dissolve' }, 0), 500, infos)
    expect(rootOf(same).items).toHaveLength(1)
  })
})

describe('half way', () => {
  it('a dissolve is the mean of both', () => {
    expect(half({ ...linear, kind: 'dissolve' }, 0.25).at(80, 60)).toEqual([0.75, 0, 0.25])
  })

  it('a dissolve of see-through stages is their mean too, premultiplied', () => {
    const nothing = sceneOf('nothing', [])
    const stage: TransitionStage = {
      from: { scene: one, ground: 'clear' },
      to: { scene: nothing, ground: 'clear' },
      transition: { ...linear, kind: 'dissolve' },
      beganMs: 0,
    }
    expect([...pictureAt(stage, 250).data.slice(0, 4)]).toEqual([0.75, 0, 0, 0.75])
  })

  it.each([
    [90, 20, 140, 60, 60],
    [270, 140, 20, 60, 60],
    [180, 80, 80, 20, 100],
    [0, 80, 80, 100, 20],
  ])('a wipe at %i° has come over the one half and not the other', (angleDeg, newX, oldX, newY, oldY) => {
    const { at } = half({ ...linear, kind: 'wipe', angleDeg, softness: 0.1 })
    expect(at(newX, newY)).toEqual([0, 0, 1])
    expect(at(oldX, oldY)).toEqual([1, 0, 0])
  })

  it('a soft wipe begins before the canvas and ends behind it', () => {
    const soft: Transition = { ...linear, kind: 'wipe', angleDeg: 90, softness: 0.5 }
    expect(half(soft, 0.01).at(0, 60)[2]).toBeLessThan(0.05)
    expect(half(soft, 0.99).at(WIDTH - 1, 60)[2]).toBeGreaterThan(0.95)
  })

  it('a wipe uncovers as much as its share of the way, corner to corner', () => {
    for (const angleDeg of [0, 90, 45, 217]) {
      const { data } = half({ ...linear, kind: 'wipe', angleDeg, softness: 0.2 })
      let blueSum = 0
      for (let i = 2; i < data.length; i += 4) blueSum += data[i]!
      expect(blueSum / (WIDTH * HEIGHT)).toBeCloseTo(0.5, 6)
    }
  })

  it.each([
    ['left', 20, 140, 60, 60],
    ['right', 140, 20, 60, 60],
    ['top', 80, 80, 20, 100],
    ['bottom', 80, 80, 100, 20],
  ] as const)('a push from the %s has the next there, and the other on its way out', (side, newX, oldX, newY, oldY) => {
    const { at } = half({ ...linear, kind: 'push', side })
    expect(at(newX, newY)).toEqual([0, 0, 1])
    expect(at(oldX, oldY)).toEqual([1, 0, 0])
  })

  it('a push moves pictures by whole pixels, without softening them', () => {
    const picture = sceneOf('picture', [layerOf(greys)])
    const { at } = pictureAt(goTo({ scene: picture }, two, { ...linear, kind: 'push', side: 'left' }, 0), 301)
    // 0.301 · 160 = 48.16: 48 pixels.
    for (const x of [50, 90, 150]) expect(at(x, 60)[0]).toBeCloseTo((x - 48) / (WIDTH - 1), 2)
  })

  it('a dip is its colour in the middle, and half of it a quarter before', () => {
    expect(half({ ...linear, kind: 'dip', colour: '#00ff00' }).at(9, 9)).toEqual([0, 1, 0])
    expect(half({ ...linear, kind: 'dip', colour: '#00ff00' }, 0.25).at(9, 9)).toEqual([0.5, 0.5, 0])
    expect(half({ ...linear, kind: 'dip', colour: '#00ff00' }, 0.75).at(9, 9)).toEqual([0, 0.5, 0.5])
  })

  it('a picture wipe has come where the picture is dark; without the picture both are mixed', () => {
    const wipe: Transition = { ...linear, kind: 'pictureWipe', inputId: 'greys', softness: 0.1 }
    expect(half(wipe).at(20, 60)).toEqual([0, 0, 1])
    expect(half(wipe).at(140, 60)).toEqual([1, 0, 0])
    expect(half({ ...wipe, inputId: 'nobody' }).at(20, 60)).toEqual([0.5, 0, 0.5])
    // A soft one begins before the darkest place and ends behind the lightest.
    expect(half({ ...wipe, softness: 0.5 }, 0.01).at(0, 60)[2]).toBeLessThan(0.05)
    expect(half({ ...wipe, softness: 0.5 }, 0.99).at(WIDTH - 1, 60)[2]).toBeGreaterThan(0.95)
  })

  it('growing fills the middle and leaves the edge', () => {
    const { at } = half({ ...linear, kind: 'grow' })
    const inside = at(80, 60)
    for (const [channel, value] of [0, 0, 1].entries()) expect(inside[channel]).toBeCloseTo(value, 12)
    expect(at(3, 3)).toEqual([1, 0, 0])
  })
})

describe('gliding', () => {
  const wall = layerOf(red)
  const small = layerOf(blue, { x: 10, y: 10, width: 20, height: 20 })
  const large = { ...layerOf(blue, { x: 90, y: 50, width: 60, height: 60 }), id: 'large' }
  const glide: Transition = { ...linear, kind: 'glide' }

  it('a layer that both have is half way between its places, at half the change of size', () => {
    const stage = goTo({ scene: sceneOf('a', [wall, small]) }, sceneOf('b', [{ ...wall, id: 'w' }, large]), glide, 0)
    const items = rootOf(pictureAt(stage, 500).plan).items
    expect(items.map(({ bounds }) => bounds)).toEqual([
      { left: 0, top: 0, right: WIDTH, bottom: HEIGHT },
      { left: 50, top: 30, right: 90, bottom: 70 },
    ])
  })

  it('what only one has dissolves; what comes under a picture that covers all is there at once', () => {
    const bare = sceneOf('bare', [small])
    const walled = sceneOf('walled', [wall, large])
    expect(pictureAt(goTo({ scene: bare }, walled, glide, 0), 250).at(150, 5)).toEqual([0.25, 0, 0])
    const cover = sceneOf('cover', [layerOf(blue)])
    const window = sceneOf('window', [wall, { ...layerOf(blue, { x: 40, y: 30, width: 80, height: 60 }) }])
    expect(pictureAt(goTo({ scene: cover }, window, glide, 0), 500).at(3, 3)).toEqual([1, 0, 0])
  })

  it('what goes from the very back dissolves when nothing will cover the canvas', () => {
    const stage = goTo({ scene: sceneOf('a', [wall, small]) }, sceneOf('b', [{ ...small, id: 's' }]), glide, 0)
    expect(pictureAt(stage, 250).at(150, 100)).toEqual([0.75, 0, 0])
  })

  it('what goes and what comes in the same place are mixed, share by share', () => {
    const stage = goTo({ scene: sceneOf('a', [wall, small]) }, sceneOf('b', [layerOf(greys), { ...small, id: 's' }]), glide, 0)
    const [red, green, blue] = pictureAt(stage, 250).at(159, 100)
    expect([red, green, blue]).toEqual([expect.closeTo(1, 9), expect.closeTo(0.25, 9), expect.closeTo(0.25, 9)])
  })

  it('layers that change places in the depth do not jump: one glides, the other dissolves', () => {
    const other = layerOf(greys, { x: 30, y: 20, width: 50, height: 50 })
    const stage = goTo({ scene: sceneOf('a', [wall, small, other]) }, sceneOf('b', [wall, other, small]), glide, 0)
    let before = pictureAt(stage, 0, 0.5).data
    for (let timeMs = 20; timeMs <= 1000; timeMs += 20) {
      const now = pictureAt(stage, timeMs, 0.5).data
      expect(mostBetween(before, now)).toBeLessThan(0.03)
      before = now
    }
  })

  it('between two shows it dissolves: what they have under one name is not the same thing', () => {
    const other: Show = { ...show, name: 'Other', inputs: [{ ...red, colour: '#00ff00' }, blue, greys] }
    const between = (kind: 'glide' | 'dissolve') =>
      pictureAt(goTo({ scene: sceneOf('a', [wall, small]), show: other }, sceneOf('b', [{ ...wall, id: 'w' }, large]), { ...linear, kind }, 0), 500).data
    expect(mostBetween(between('glide'), between('dissolve'))).toBeLessThan(1e-9)
  })

  it('from a scene that is itself on its way it dissolves', () => {
    const on = goTo({ scene: one }, two, { ...linear, kind: 'dissolve' }, 0)
    expect(pictureAt(goTo(on, one, glide, 500), 500).at(5, 5)).toEqual([0.5, 0, 0.5])
  })

  it('finds the longest run that two lists share', () => {
    const same = (a: string, b: string) => a === b
    // Wagner and Fischer, "The string-to-string correction problem", 1974, define it; the strings are the usual example (from memory).
    expect(commonOrder([...'ABCBDAB'], [...'BDCABA'], same)).toHaveLength(4)
    expect(commonOrder([], ['a'], same)).toEqual([])
    expect(commonOrder(['a', 'b'], ['a', 'b'], same)).toEqual([
      [0, 0],
      [1, 1],
    ])
  })
})

describe('the stage', () => {
  it('drops what is over, however often it was interrupted', () => {
    let stage: Stage = { scene: one }
    for (let i = 0; i < 50; i += 1) stage = goTo(stage, i % 2 === 0 ? two : one, { ...linear, kind: 'dissolve' }, i * 300)
    const depth = (at: Stage): number => ('transition' in at ? 1 + depth(at.from) : 0)
    expect(depth(stage)).toBe(4)
    expect(settled(stage, 60_000)).toEqual({ scene: one, enteredMs: 49 * 300 })
  })

  it('a cut is there at once', () => {
    expect(nodeOf(half({ ...linear, kind: 'cut' }, 0).plan, rootOf(half({ ...linear, kind: 'cut' }, 0).plan).items[0]!)).toBeNull()
    expect(half({ ...linear, kind: 'cut' }, 0).at(5, 5)).toEqual([0, 0, 1])
  })

  it.each(MOVING_SEEDS)('seed %i looks the same with and without what nobody can see, on its way', (seed) => {
    const { show: random, infos: sizes, inputs, stage, timeMs } = movingCase(seed)
    const [culled, whole] = [true, false].map((culls) => {
      const plan = planFrame(random, stage, timeMs, sizes, { culls, scale: 0.5 })
      return renderReference(plan, picturesFor({ inputs }, plan)).data
    })
    expect(mostBetween(culled!, whole!)).toBeLessThan(1e-9)
  })
})
