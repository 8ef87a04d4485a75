import { beforeAll, describe, expect, it } from 'vitest'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import type { Heap } from './heap.ts'
import { SurfaceStore } from './surface-store.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

const KILO = 1024

describe('SurfaceStore', () => {
  it('gives back what was not used for longest once its budget is full, never what this frame uses', () => {
    const used = heap.usedBytes
    const store = new SurfaceStore(heap, (byteLength) => heap.allocate(byteLength), 10 * KILO)
    for (const name of ['a', 'b', 'c', 'd']) {
      store.beginFrame()
      store.keep(name, 2 * KILO, null)
    }
    store.beginFrame()
    expect(store.find('a')).toBeDefined()
    store.keep('e', 4 * KILO, null)
    expect(['a', 'b', 'c', 'd', 'e'].map((name) => store.find(name) !== undefined)).toEqual([true, false, false, true, true])
    // Everything is in use: the budget is passed rather than the frame spoilt.
    store.keep('f', 4 * KILO, null)
    expect(store.size).toBe(4)
    store.dispose()
    expect([store.bytes, heap.usedBytes]).toEqual([0, used])
  })

  it('stays within its budget over any number of frames', () => {
    const store = new SurfaceStore(heap, (byteLength) => heap.allocate(byteLength), 64 * KILO)
    for (let frame = 0; frame < 2000; frame += 1) {
      store.beginFrame()
      store.keep(`frame ${frame}`, 3 * KILO, frame)
    }
    expect(store.bytes).toBeLessThanOrEqual(64 * KILO)
    expect(store.find<number>('frame 1999')!.about).toBe(1999)
    store.dispose()
  })

  it('drops once, and says of a piece that it is gone', () => {
    const store = new SurfaceStore(heap, (byteLength) => heap.allocate(byteLength))
    const kept = store.keep('one', KILO, null)
    store.drop(kept)
    store.drop(kept)
    expect([kept.isEvicted, store.find('one')]).toEqual([true, undefined])
  })
})
