import { describe, expect, it } from 'vitest'
import type { Show } from '../../core/show/show.ts'
import { renameShow } from '../../core/show/edits.ts'
import { testShow } from '../../tests/support/shows.ts'
import { SaveQueue, takePending, type SaveState } from './save-queue.ts'

const show = testShow()
const named = (name: string) => renameShow(show, name)

function setUp() {
  const stored: { revision: number; show: Show }[] = []
  const states: SaveState[] = []
  const timers: (() => void)[] = []
  const memory = new Map<string, string>()
  const storage = {
    getItem: (key: string) => memory.get(key) ?? null,
    setItem: (key: string, value: string) => void memory.set(key, value),
    removeItem: (key: string) => void memory.delete(key),
  }
  let failure: unknown = null
  const host = {
    put: async (_id: string, baseRevision: number, next: Show) => {
      if (failure !== null) throw failure
      stored.push({ revision: baseRevision + 1, show: next })
      return baseRevision + 1
    },
    judge: (error: unknown) => error as 'offline' | 'stale' | { refused: string },
    storage,
    setTimer: (run: () => void) => timers.push(run),
    clearTimer: () => undefined,
  }
  const queue = new SaveQueue(host, 'show-1', 4, (state) => states.push(state))
  const settle = async () => {
    timers.splice(0).forEach((run) => run())
    await new Promise((resolve) => setTimeout(resolve))
  }
  return { queue, stored, states, storage, settle, fail: (next: unknown) => (failure = next) }
}

describe('SaveQueue', () => {
  it('says "saved" only after the server has acknowledged', async () => {
    const { queue, stored, states, settle } = setUp()
    queue.push(named('One'))
    expect(states).toEqual([{ kind: 'saving' }])
    await settle()
    expect(stored).toMatchObject([{ revision: 5, show: { name: 'One' } }])
    expect(states.at(-1)).toEqual({ kind: 'saved' })
  })

  it('sends the newest of a run of edits, then what came meanwhile', async () => {
    const { queue, stored, settle } = setUp()
    queue.push(named('One'))
    queue.push(named('Two'))
    const sending = settle()
    queue.push(named('Three'))
    await sending
    await settle()
    expect(stored.map((each) => each.show.name).at(-1)).toBe('Three')
    expect(stored.map((each) => each.revision)).toEqual(stored.map((_, i) => 5 + i))
  })

  it('keeps the edit in the browser while offline, and saves it when the server is back', async () => {
    const { queue, stored, states, storage, settle, fail } = setUp()
    fail('offline')
    queue.push(named('Kept'))
    await settle()
    expect(states.at(-1)).toEqual({ kind: 'offline' })
    expect(storage.getItem('green-room:pending:show-1')).toContain('Kept')
    queue.push(named('Kept, changed'))
    fail(null)
    await settle()
    expect(stored.at(-1)!.show.name).toBe('Kept, changed')
    expect(states.at(-1)).toEqual({ kind: 'saved' })
    expect(storage.getItem('green-room:pending:show-1')).toBeNull()
  })

  it('leaves unacknowledged edits for the next tab, once', async () => {
    const { queue, storage, settle, fail } = setUp()
    fail('offline')
    queue.push(named('Kept'))
    await settle()
    queue.close()
    expect(takePending(storage, 'show-1')).toMatchObject({ baseRevision: 4, show: { name: 'Kept' } })
    expect(takePending(storage, 'show-1')).toBeNull()
  })

  it('says why when refused, and that another tab saved', async () => {
    const { queue, states, settle, fail } = setUp()
    fail({ refused: 'too large' })
    queue.push(named('Big'))
    await settle()
    expect(states.at(-1)).toEqual({ kind: 'refused', why: 'too large' })
    fail('stale')
    queue.flush()
    await settle()
    expect(states.at(-1)).toEqual({ kind: 'stale' })
  })
})
