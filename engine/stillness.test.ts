import { describe, expect, it } from 'vitest'
import type { BlendName } from '../core/blend/index.ts'
import { translation } from '../core/composite/affine.ts'
import type { FramePlan, Item, StackNode } from '../core/plan/frame-plan.ts'
import { planOfLayers } from '../tests/support/plans.ts'
import { planCase } from '../tests/support/random-plans.ts'
import { itemKeysOf, runsOf, shownSharesOf, sourcesOfNodes } from './stillness.ts'

const stackOf = (blends: readonly BlendName[]) => ({ items: blends.map((blend) => ({ blend }) as Item) }) as unknown as StackNode
const normal = (count: number) => new Array<BlendName>(count).fill('normal')

describe('runsOf', () => {
  it('takes all still items at the back together, and those above a live one apart', () => {
    const live = new Set([3])
    const runs = runsOf(
      stackOf(normal(6)),
      (index) => live.has(index),
      () => false,
    )
    expect(runs).toEqual({ back: [0, 1, 2], above: [[3], [4, 5]], isStill: [false, true] })
  })

  it('draws what is blended otherwise above a live item anew each time; at the back it may be flattened', () => {
    const blends: BlendName[] = ['multiply', 'normal', 'normal', 'screen', 'normal', 'normal']
    const runs = runsOf(
      stackOf(blends),
      (index) => index === 1,
      () => false,
    )
    expect(runs).toEqual({ back: [0], above: [[1], [2], [3], [4, 5]], isStill: [false, true, false, true] })
  })

  it('leaves out what has no picture', () => {
    const runs = runsOf(
      stackOf(normal(4)),
      (index) => index === 2,
      (index) => index === 1,
    )
    expect(runs).toEqual({ back: [0], above: [[2], [3]], isStill: [false, true] })
  })
})

describe('what a plan reads', () => {
  it('names the sources of a group through all that is in it', () => {
    const { plan } = planCase(103)
    const sources = sourcesOfNodes(plan.nodes)
    plan.nodes.forEach((node, index) => {
      if (node.kind === 'treated') expect(sources[index]).toEqual([node.sourceId])
      if (node.kind === 'filtered') expect(sources[index]).toEqual(sources[node.of])
    })
    const root = sources[plan.outputs['picture']!]!
    expect(sources.flat().every((id) => root.includes(id))).toBe(true)
  })

  it('tells how much of a picture is shown, and keys that stay', () => {
    const plan = planOfLayers([
      { layerId: 'one', sourceId: 'input:a' },
      { layerId: 'two', sourceId: 'input:b' },
      { layerId: 'three', sourceId: 'input:a' },
    ])
    const shares = [...shownSharesOf(plan).values()]
    expect(shares).toHaveLength(2)
    expect(shares[0]).toBeCloseTo(2 * shares[1]!, 12)
    // The first and the third layer show the same in the same place.
    expect(itemKeysOf(plan).size).toBe(2)
  })

  it('counts what a stack shows only as far as somebody reads it', () => {
    const treated = { kind: 'treated', treatedKey: 'camera', widthPx: 100, heightPx: 50, mipLevel: 0 }
    const item = (node: number, bounds: object, toNode = translation(0, 0)) => ({ paint: { kind: 'node', node, toNode }, coverage: { reveal: null }, bounds })
    const whole = { left: 0, top: 0, right: 100, bottom: 50 }
    const stack = (items: object[]) => ({ kind: 'stack', widthPx: 100, heightPx: 50, items })
    const share = (items: object[]) => {
      const nodes = [treated, stack([item(0, whole)]), stack(items)]
      return shownSharesOf({ nodes, outputs: { feed: 2 } } as unknown as FramePlan).get('camera')
    }
    // Pushed out by three quarters: a quarter is left, with the column beside it that sampling may reach.
    expect(share([item(1, { ...whole, right: 25 }, translation(75, 0))])).toBeCloseTo(0.26, 12)
    // Two parts of it that do not meet; and where one lies over the other, both.
    expect(share([item(1, { ...whole, right: 10 }), item(1, { ...whole, left: 90 })])).toBeCloseTo(0.22, 12)
    expect(share([item(0, whole), item(1, { ...whole, bottom: 9 })])).toBeCloseTo(1.2, 12)
    // Halved, all of it is made first, though a corner is shown pixel by pixel.
    const halved = { nodes: [{ ...treated, mipLevel: 1 }, stack([item(0, { ...whole, right: 5 })])], outputs: { feed: 1 } }
    expect(shownSharesOf(halved as unknown as FramePlan).get('camera')).toBe(Infinity)
    expect(share([{ ...item(0, whole), coverage: { reveal: { kind: 'luma', node: 0 } } }])).toBe(Infinity)
  })
})
