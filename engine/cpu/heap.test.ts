import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { readFileSync } from 'node:fs'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { seededRandom } from '../../core/random/seeded.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { Heap, type Block } from './heap.ts'

const wasm = readFileSync(new URL('./kernels/kernels.wasm', import.meta.url))
let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

describe('Heap', () => {
  it('refuses a block that was freed before, or that it never gave, and stays whole', () => {
    const before = heap.usedBytes
    const block = heap.allocate(1000)
    heap.free(block)
    expect(() => heap.free(block)).toThrow(/is not in use: it was freed before/)
    expect(() => heap.free({ at: block.at + 64, byteLength: 64 })).toThrow(RangeError)
    // The place may belong to somebody else by now; a stale handle of another size must not free it.
    const other = heap.allocate(5000)
    expect(other.at).toBe(block.at)
    expect(() => heap.free(block)).toThrow(/not in use/)
    heap.free(other)
    expect(heap.usedBytes).toBe(before)
  })

  it('never gives the same byte to two, and gives all back (seed 4)', () => {
    const random = seededRandom(4)
    const before = heap.usedBytes
    const held: Block[] = []
    for (let step = 0; step < 3000; step += 1) {
      if (held.length > 0 && random() < 0.5) heap.free(held.splice(Math.floor(random() * held.length), 1)[0]!)
      else held.push(heap.allocate(Math.floor(random() * 100_000)))
      if (step % 50 !== 0) continue
      const sorted = held.toSorted((first, second) => first.at - second.at)
      const overlaps = sorted.filter((block, i) => i > 0 && sorted[i - 1]!.at + sorted[i - 1]!.byteLength > block.at)
      expect(overlaps).toEqual([])
    }
    for (const block of held) heap.free(block)
    expect(heap.usedBytes).toBe(before)
  })

  it('tells of a block that was lost without being freed, and of no other', async () => {
    setFlagsFromString('--expose_gc')
    const collect = runInNewContext('gc') as () => void
    const onLeak = vi.fn()
    const watched = await Heap.create(wasm, onLeak)
    const lose = () => void watched.allocate(4000)
    const kept = watched.allocate(8000)
    watched.free(watched.allocate(16_000))
    lose()
    await vi.waitFor(() => {
      collect()
      expect(onLeak).toHaveBeenCalledTimes(1)
    })
    expect(onLeak.mock.calls[0]![0]).toBeGreaterThanOrEqual(4000)
    expect(onLeak.mock.calls[0]![0]).toBeLessThan(8000)
    watched.free(kept)
  })
})
