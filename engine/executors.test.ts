// Choosing who makes the pictures, as far as it goes without a card; with one it is tried in tests/e2e/gl-parity.spec.ts.
import { inputSourceId } from '../core/inputs/source-ids.ts'
import { beforeAll, describe, expect, it } from 'vitest'
import { planInput } from '../core/stage/plan-frame.ts'
import type { RgbaPicture } from '../core/picture/picture.ts'
import { stepOf } from '../core/steps/index.ts'
import { defaultParams } from '../core/steps/step.ts'
import { nodeHeap } from '../server/cli/node-engine.ts'
import type { Heap } from './cpu/heap.ts'
import { Treatments } from './cpu/treatments.ts'
import { Executors, type ExecutorState } from './executors.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

function executorsWith(openContext: (acceptsSoftware: boolean) => WebGL2RenderingContext | null) {
  const states: ExecutorState[] = []
  return { states, executors: new Executors(new Treatments(heap), openContext, (state) => states.push(state)) }
}

/** A context that lacks what is needed, and can be listened to. */
function poorContext(): WebGL2RenderingContext {
  return { canvas: new EventTarget(), getExtension: () => null, isContextLost: () => false } as unknown as WebGL2RenderingContext
}

describe('Executors', () => {
  it('takes the processor where there is no card, and says so', () => {
    const asked: boolean[] = []
    const { executors, states } = executorsWith((acceptsSoftware) => {
      asked.push(acceptsSoftware)
      return null
    })
    executors.pin('auto')
    executors.pin('gl')
    expect(asked).toEqual([false, true])
    expect(states).toEqual([
      { name: 'cpu', reason: 'noCard', times: null },
      { name: 'cpu', reason: 'noCard', times: null },
    ])
  })

  it('does not even ask for a card when the processor is pinned', () => {
    const { executors } = executorsWith(() => {
      throw new Error('asked')
    })
    executors.pin('cpu')
    expect(executors.state).toEqual({ name: 'cpu', reason: 'pinned', times: null })
    expect(executors.card).toBeNull()
  })

  it('goes on with the processor when the card lacks floating-point targets', () => {
    const { executors } = executorsWith(poorContext)
    executors.pin('gl')
    expect(executors.state).toEqual({ name: 'cpu', reason: 'failed', times: null })
  })

  it('ignores losses and gifts of a card that is not in use', () => {
    const { executors, states } = executorsWith(() => null)
    executors.pin('auto')
    executors.leaveCard('lost')
    executors.simulateLoss(true)
    executors.simulateLoss(false)
    expect(states).toHaveLength(1)
  })

  it('hands masks to the processor and treats a held picture again when one comes', () => {
    const { executors } = executorsWith(() => null)
    executors.pin('cpu')
    const executor = executors.make()
    const widthPx = 64
    const heightPx = 36
    const data = new Uint8Array(widthPx * heightPx * 4).fill(120).map((value, i) => (i % 4 === 3 ? 255 : value))
    const picture: RgbaPicture = { format: 'rgba', widthPx, heightPx, data }
    const hidden = { kind: 'room' as const, params: { ...defaultParams(stepOf('room').params), effect: 'hidden' as const } }
    const plan = planInput('camera', { widthPx, heightPx, isOpaque: true }, [hidden], widthPx, heightPx)
    const alpha = () => executor.render(plan, new Map([[inputSourceId('camera'), { picture, version: 1, isLive: true }]])).data[(18 * widthPx + 32) * 4 + 3]
    // Nobody is known to be there: the room is never shown by mistake.
    expect(alpha()).toBe(0)
    executors.setPerson(inputSourceId('camera'), { widthPx: 16, heightPx: 9, data: new Float32Array(144).fill(1) })
    expect(alpha()).toBe(255)
    executors.setPerson(inputSourceId('camera'), { widthPx: 16, heightPx: 9, data: new Float32Array(144) })
    expect(alpha()).toBe(0)
    executor.dispose()
  })

  it('gives all memory back', () => {
    const before = heap.usedBytes
    const treatments = new Treatments(heap)
    const executors = new Executors(
      treatments,
      () => null,
      () => undefined,
    )
    executors.pin('auto')
    const executor = executors.make()
    const picture: RgbaPicture = { format: 'rgba', widthPx: 8, heightPx: 8, data: new Uint8Array(256).fill(255) }
    executor.render(
      planInput('camera', { widthPx: 8, heightPx: 8, isOpaque: true }, [], 8, 8),
      new Map([[inputSourceId('camera'), { picture, version: 1, isLive: true }]]),
    )
    executor.dispose()
    treatments.dispose()
    expect(heap.usedBytes).toBe(before)
  })
})
