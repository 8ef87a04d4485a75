import { describe, expect, it } from 'vitest'
import type { BlendName } from '../core/blend/index.ts'
import type { Item, StackNode } from '../core/plan/frame-plan.ts'
import { planOfLayers } from '../tests/support/plans.ts'
import { planCase } from '../tests/support/random-plans.ts'
import { itemKeysOf, readersOf, runsOf, sourcesOfNodes, usesOf } from './stillness.ts'

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

  it('counts who reads a picture, and keys that stay', () => {
    const plan = planOfLayers([
      { layerId: 'one', sourceId: 'input:a' },
      { layerId: 'two', sourceId: 'input:b' },
      { layerId: 'three', sourceId: 'input:a' },
    ])
    expect(readersOf(plan)).toEqual([2, 1, 0])
    expect([...usesOf(plan).values()]).toEqual([2, 1])
    // The first and the third layer show the same in the same place.
    expect(itemKeysOf(plan).size).toBe(2)
  })
})
