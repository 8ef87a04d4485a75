import { createPinia, disposePinia, setActivePinia, type Pinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { nextTick, shallowReactive } from 'vue'
import { useLinkStore } from './link.store.ts'

class FakeSocket {
  static readonly OPEN = 1
  static made: FakeSocket[] = []
  readonly sent: unknown[] = []
  readyState = 0
  onopen: (() => void) | null = null
  onclose: (() => void) | null = null
  onmessage: ((event: { data: string }) => void) | null = null
  constructor() {
    FakeSocket.made.push(this)
  }
  send(data: string): void {
    this.sent.push(JSON.parse(data))
  }
  open(): void {
    this.readyState = 1
    this.onopen!()
  }
  say(message: unknown): void {
    this.onmessage!({ data: JSON.stringify(message) })
  }
}

const heard: unknown[] = []
let onYield: (showId: string) => void = () => undefined
const showStore = shallowReactive({
  showId: 'a' as string | null,
  flush: () => heard.push('flush'),
  claim: () => heard.push('claim'),
  setEditor: (is: boolean) => heard.push(is),
  onYield: (run: (showId: string) => void) => (onYield = run),
})
vi.mock('../show/show.store.ts', () => ({ useShowStore: () => showStore }))

let pinia: Pinia
beforeEach(() => {
  pinia = createPinia()
  setActivePinia(pinia)
  FakeSocket.made = []
  heard.length = 0
  showStore.showId = 'a'
  vi.stubGlobal('WebSocket', FakeSocket)
  vi.useFakeTimers()
})
afterEach(() => {
  disposePinia(pinia)
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('asks to edit the open show once the server is there, saves what was left, and says whether it may', () => {
  const link = useLinkStore()
  const announced = vi.fn()
  link.onReached(announced)
  const [socket] = FakeSocket.made
  expect([link.isServerReached, socket!.sent]).toEqual([false, []])
  socket!.open()
  expect([link.isServerReached, heard, announced.mock.calls.length]).toEqual([true, ['flush'], 1])
  expect(socket!.sent).toEqual([{ type: 'edit', showId: 'a', takeOver: false, isAgain: false }])
  socket!.say({ type: 'editor', showId: 'a', isEditor: true })
  // An answer about a show that is no longer open is none of this one's.
  socket!.say({ type: 'editor', showId: 'b', isEditor: false })
  expect(heard).toEqual(['flush', true])
})

it('comes back after the server was away, as the editor it was', () => {
  const link = useLinkStore()
  FakeSocket.made[0]!.open()
  FakeSocket.made[0]!.say({ type: 'editor', showId: 'a', isEditor: true })
  FakeSocket.made[0]!.onclose!()
  expect(link.isServerReached).toBe(false)
  vi.advanceTimersByTime(250)
  FakeSocket.made[1]!.open()
  expect(FakeSocket.made[1]!.sent).toEqual([{ type: 'edit', showId: 'a', takeOver: false, isAgain: true }])
})

it('takes a show over from another tab, asked for again if the line broke before the answer', () => {
  const link = useLinkStore()
  FakeSocket.made[0]!.open()
  link.takeOver()
  expect(heard).toContain('claim')
  expect(FakeSocket.made[0]!.sent.at(-1)).toEqual({ type: 'edit', showId: 'a', takeOver: true, isAgain: false })
  FakeSocket.made[0]!.onclose!()
  vi.advanceTimersByTime(250)
  FakeSocket.made[1]!.open()
  expect(FakeSocket.made[1]!.sent).toEqual([{ type: 'edit', showId: 'a', takeOver: true, isAgain: false }])
})

it('tells which show is open, when another may have this one, and that none is', async () => {
  const link = useLinkStore()
  const [socket] = FakeSocket.made
  socket!.open()
  showStore.showId = 'b'
  await nextTick()
  onYield('b')
  showStore.showId = null
  await nextTick()
  link.takeOver()
  expect(socket!.sent.slice(1)).toEqual([{ type: 'edit', showId: 'b', takeOver: false, isAgain: false }, { type: 'yield', showId: 'b' }, { type: 'leave' }])
  expect(heard).not.toContain('claim')
})
