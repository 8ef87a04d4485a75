import { beforeAll, describe, expect, it, vi } from 'vitest'
import type { Picture } from '../../core/picture/picture.ts'
import type { TreatedNode } from '../../core/plan/frame-plan.ts'
import type { StepCall } from '../../core/steps/index.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import type { SourceFrame } from '../executor.ts'
import type { Heap } from './heap.ts'
import { Treatments } from './treatments.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

const SIDE_PX = 8
const picture: Picture = { format: 'rgba', widthPx: SIDE_PX, heightPx: SIDE_PX, data: new Uint8Array(SIDE_PX * SIDE_PX * 4).fill(200) }

/** A source of its own, which is halved once. */
function nodeOf(i: number): TreatedNode {
  const steps: readonly StepCall[] = []
  const size = { widthPx: SIDE_PX / 2, heightPx: SIDE_PX / 2 }
  return { kind: 'treated', key: `t${i} /1`, treatedKey: `t${i}`, sourceId: `input:${i}`, steps, mipLevel: 1, isOpaque: true, ...size }
}

const frame = (version: number): SourceFrame => ({ picture, version, isLive: true })

it('lets go of what nobody asked for in ten seconds when something new comes', () => {
  vi.useFakeTimers({ toFake: ['performance'] })
  vi.advanceTimersByTime(1000)
  const treatments = new Treatments(heap)
  const used = () => heap.usedBytes
  for (let i = 0; i < 30; i += 1) treatments.treated(nodeOf(i), frame(1))
  const many = used()
  vi.advanceTimersByTime(11_000)
  treatments.treated(nodeOf(99), frame(1))
  expect(used()).toBeLessThan(many)
  treatments.dispose()
  vi.useRealTimers()
})

describe('many live pictures', () => {
  it.each([24, 25, 40, 90])('%i of them: from the second frame on nothing is made room for, no chain is prepared again', (count) => {
    const used = heap.usedBytes
    const treatments = new Treatments(heap)
    const nodes = Array.from({ length: count }, (_, i) => nodeOf(i))
    const pass = (version: number) =>
      nodes.map((node) => {
        const runner = treatments.runner(node.steps, node.treatedKey, picture)
        return { runner, at: treatments.treated(node, frame(version)).at }
      })
    const first = pass(1)
    const inUse = heap.usedBytes
    for (const version of [2, 3]) {
      const next = pass(version)
      expect(next.filter(({ runner, at }, i) => runner !== first[i]!.runner || at !== first[i]!.at)).toEqual([])
      expect(heap.usedBytes).toBe(inUse)
    }
    treatments.dispose()
    expect(heap.usedBytes).toBe(used)
  })
})
