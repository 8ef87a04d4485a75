// Layers that come and go, as plans have them.
import { PLAIN_FRAME } from '../box/frame.ts'
import { newTextLayer } from '../layers/text.ts'
import { newShapeLayer } from '../layers/shape.ts'
import { newGroupLayer } from '../layers/group.ts'
import { describe, expect, it } from 'vitest'
import { picturesFor, showCase } from '../../tests/support/random-shows.ts'
import { appearanceKinds, type Appearance } from '../motion/appearance.ts'
import { namedEasings } from '../motion/easing.ts'
import type { StackNode } from '../plan/frame-plan.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { nodeOf, rootOf } from '../plan/read-plan.ts'
import { renderReference } from '../render/render-reference.ts'
import { addContents } from '../show/contents.ts'
import { BARE_SCENE } from '../show/create.ts'
import type { Layer, Show } from '../show/show.ts'

let count = 0
const makeId = () => `m${(count += 1)}`
const one = showCase(301)
const { show: random, infos } = one
const { widthPx, heightPx } = random.canvas
const square = newShapeLayer('Square', 'box', random.canvas, makeId)
const withContents = addContents(random, square.contents)
const at40: Layer = { ...square.layer, placement: { x: 40, y: 30, width: 60, height: 40, angleDeg: 0, fit: 'stretch' } }

const coming = (kind: Appearance['kind'], more: Partial<Appearance> = {}): Appearance => ({
  kind,
  durationMs: 400,
  delayMs: 0,
  easing: namedEasings.linear,
  side: 'left',
  ...more,
})

function pictureOf(layer: Layer, timeMs: number, times: { readonly enteredMs?: number; readonly leavesMs?: number }, show: Show = withContents, scale = 1) {
  const plan = planFrame(show, { scene: { ...BARE_SCENE, id: 'alone', name: 'Alone', layers: [layer] }, ground: 'clear', ...times }, timeMs, infos, { scale })
  const { data } = renderReference(plan, picturesFor(one, plan))
  let area = 0
  for (let i = 3; i < data.length; i += 4) area += data[i]!
  return { plan, data, area, alphaAt: (x: number, y: number) => data[(y * widthPx + x) * 4 + 3]! }
}

describe('a layer that comes', () => {
  it('is where it rests before and after, and when its scene has been there for ever', () => {
    const layer = { ...at40, entrance: coming('slide'), exit: coming('grow') }
    const rest = pictureOf(at40, 0, {}).data
    expect(pictureOf(layer, 9000, {}).data).toEqual(rest)
    expect(pictureOf(layer, 1400, { enteredMs: 1000 }).data).toEqual(rest)
    expect(pictureOf(layer, 1500, { enteredMs: 1000, leavesMs: 2000 }).data).toEqual(rest)
  })

  it.each(appearanceKinds)('%s: is not there at first, and not there once it has gone', (kind) => {
    const layer = { ...at40, entrance: coming(kind, { delayMs: 100 }), exit: coming(kind) }
    expect(pictureOf(layer, 50, { enteredMs: 0 }).area).toBe(0)
    expect(pictureOf(layer, 2400, { enteredMs: 0, leavesMs: 2000 }).area).toBe(0)
  })

  it('fades: half as opaque half way', () =>
    expect(pictureOf({ ...at40, entrance: coming('fade') }, 200, { enteredMs: 0 }).alphaAt(70, 50)).toBeCloseTo(0.5, 9))

  it('slides: half a width from its place half way, to the side it comes from', () => {
    const items = (side: Appearance['side']) => rootOf(pictureOf({ ...at40, entrance: coming('slide', { side }) }, 200, { enteredMs: 0 }).plan).items
    expect(items('left')[0]!.bounds).toEqual({ left: 10, top: 30, right: 70, bottom: 70 })
    expect(items('bottom')[0]!.bounds).toEqual({ left: 40, top: 50, right: 100, bottom: 90 })
  })

  it('grows: half as wide and high half way, about its middle, its frame with it', () => {
    const framed: Layer = {
      ...at40,
      frame: { ...PLAIN_FRAME, cornerRadiusPx: 10, border: { widthPx: 4, colour: '#ffffff', opacity: 1, side: 'inside' } },
      entrance: coming('grow'),
    }
    const { plan } = pictureOf(framed, 200, { enteredMs: 0 })
    // It fades in as well, so it is one picture.
    const [itself, border] = (nodeOf(plan, rootOf(plan).items[0]!) as StackNode).items
    expect(border!.bounds).toEqual({ left: 55, top: 40, right: 85, bottom: 60 })
    expect(border!.coverage.shape).toMatchObject({ cornerRadius: 5 })
    expect(border!.coverage.strokePx).toBe(2)
    // So narrow a border lies beside its picture: that ends where the border begins.
    expect(itself!.bounds).toEqual({ left: 57, top: 42, right: 83, bottom: 58 })
  })

  it('is wiped: half of its area half way, the half at its side', () => {
    for (const [side, there, notYet] of [
      ['left', [45, 50], [95, 50]],
      ['right', [95, 50], [45, 50]],
      ['top', [70, 33], [70, 67]],
      ['bottom', [70, 67], [70, 33]],
    ] as const) {
      const { area, alphaAt } = pictureOf({ ...at40, entrance: coming('wipe', { side }) }, 200, { enteredMs: 0 })
      expect(area).toBeCloseTo(60 * 40 * 0.5, 6)
      expect([alphaAt(there[0], there[1]), alphaAt(notYet[0], notYet[1])]).toEqual([1, 0])
    }
  })

  it('a wipe goes along a turned layer, and over its shadow and border too', () => {
    const turned: Layer = {
      ...at40,
      placement: { ...at40.placement, angleDeg: 90 },
      frame: {
        ...PLAIN_FRAME,
        border: { widthPx: 3, colour: '#ffffff', opacity: 1, side: 'outside' },
        shadow: { dx: 2, dy: 2, blurPx: 8, colour: '#000000', opacity: 1 },
      },
      entrance: coming('wipe'),
    }
    const { plan, alphaAt } = pictureOf(turned, 200, { enteredMs: 0 })
    // Half uncovered they are one picture, which the edge goes over.
    expect(rootOf(plan).items.map(({ coverage }) => coverage.reveal?.kind)).toEqual(['edge'])
    expect((nodeOf(plan, rootOf(plan).items[0]!) as StackNode).items).toHaveLength(3)
    // Its left is up.
    expect([alphaAt(70, 30), alphaAt(70, 72)]).toEqual([1, 0])
  })

  it('is typed: the letters that are there have their places, and are counted', () => {
    const text = newTextLayer('Words', 'Nine bees', random.canvas, makeId)
    const show = addContents(random, text.contents)
    const jobs = [0, 100, 200, 400].map((timeMs) => pictureOf({ ...text.layer, entrance: coming('typed') }, timeMs, { enteredMs: 0 }, show).plan.texts[0])
    expect(jobs.map((job) => job?.lettersShown)).toEqual([0, 2, 5, null])
    expect(new Set(jobs.map((job) => job?.sourceId)).size).toBe(4)
  })

  it('words that grow or slide are not set again for every moment; a group of them neither', () => {
    const text = newTextLayer('Words', 'Nine bees', random.canvas, makeId)
    const show = addContents(random, text.contents)
    for (const layer of [text.layer, newGroupLayer('Group', [text.layer], random.canvas, makeId)]) {
      const sources = new Set<string>()
      for (let timeMs = 210; timeMs < 400; timeMs += 10) {
        const { plan } = pictureOf({ ...layer, entrance: coming('grow') }, timeMs, { enteredMs: 0 }, show)
        for (const { sourceId } of plan.texts) sources.add(sourceId)
      }
      expect(sources.size).toBe(1)
    }
  })

  it.each(appearanceKinds)('%s: one that leaves before it has come goes on from where it is', (kind) => {
    for (const exit of appearanceKinds) {
      const layer = { ...at40, entrance: coming(kind), exit: coming(exit, { side: 'bottom' }) }
      const at = (timeMs: number) => pictureOf(layer, timeMs, { enteredMs: 0, leavesMs: 200 }, withContents, 0.4).data
      let before = at(0)
      for (let timeMs = 10; timeMs < 620; timeMs += 10) {
        const now = at(timeMs)
        let sum = 0
        now.forEach((value, i) => (sum += i % 4 === 3 ? Math.abs(value - before[i]!) : 0))
        // Of 384 pixels: a few columns or rows of them, or a fortieth of each.
        expect(sum, `${exit} at ${timeMs}`).toBeLessThan(40)
        before = now
      }
    }
  })
})

describe('a plan holds', () => {
  const layer = { ...at40, entrance: coming('fade', { delayMs: 300 }), exit: coming('fade', { delayMs: 50 }) }
  const untilAt = (timeMs: number, times: { enteredMs?: number; leavesMs?: number }) => pictureOf(layer, timeMs, times).plan.validUntilMs

  it('until the delay is over, and no longer while something moves', () => {
    expect(untilAt(1000, { enteredMs: 1000 })).toBe(1300)
    expect(untilAt(1400, { enteredMs: 1000 })).toBe(1400)
    expect(untilAt(1700, { enteredMs: 1000 })).toBe(Infinity)
    expect(untilAt(1700, { enteredMs: 1000, leavesMs: 2000 })).toBe(2050)
    expect(untilAt(2450, { enteredMs: 1000, leavesMs: 2000 })).toBe(Infinity)
  })

  it('until a field says something else', () => {
    const text = newTextLayer('Clock', '{time}', random.canvas, makeId)
    const wall = { epochMs: Date.UTC(2026, 0, 1, 12, 0, 30), utcOffsetMin: 0, locale: 'en-GB' }
    const plan = planFrame(addContents(random, text.contents), { scene: { ...BARE_SCENE, id: 's', name: 'S', layers: [text.layer] } }, 1000, infos, { wall })
    expect(plan.validUntilMs).toBe(30_000)
    expect(plan.texts[0]!.content.blocks[0]!.text).toBe('12:00')
  })
})

it('the canvas of this test is as its numbers want it', () => expect([widthPx, heightPx]).toEqual([160, 120]))
