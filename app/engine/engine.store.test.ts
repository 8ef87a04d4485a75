import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { FakeWorker } from '../../tests/support/fake-worker.ts'
import { useEngineStore } from './engine.store.ts'
import { useFiguresStore } from './figures.store.ts'

vi.mock('./engine-files.ts', () => ({
  engineFiles: {
    makeWorker: () => new FakeWorker(),
    wasmUrl: 'wasm',
    loadFonts: () => Promise.resolve([]),
    personFiles: { runtimeUrl: '', modelUrl: '' },
    assetUrlPrefix: '/',
  },
}))

beforeEach(() => {
  setActivePinia(createPinia())
  FakeWorker.made = []
  vi.useFakeTimers()
  vi.setSystemTime(0)
  return () => void vi.useRealTimers()
})

const worker = (index: number) => FakeWorker.made[index]!

it('starts an engine that died again at once, and tells its listeners, in order, that the new one knows nothing', () => {
  const engine = useEngineStore()
  const log: string[] = []
  engine.listen({ onStarted: () => log.push('first') })
  engine.listen({ onStarted: () => log.push('second') })
  worker(0).onerror!({ message: 'out of memory' })
  expect(FakeWorker.made).toHaveLength(2)
  expect(worker(0).isTerminated).toBe(true)
  expect([log, engine.generation, engine.failure]).toEqual([['first', 'second'], 1, null])
})

it('shows why an engine keeps failing, tries again by itself, and by hand', () => {
  const engine = useEngineStore()
  worker(0).say({ type: 'failed', reason: 'no memory' })
  worker(1).say({ type: 'failed', reason: 'no memory' })
  expect([FakeWorker.made.length, engine.failure]).toEqual([2, 'no memory'])
  vi.advanceTimersByTime(2000)
  expect([FakeWorker.made.length, engine.failure]).toEqual([3, null])
  worker(2).say({ type: 'failed', reason: 'no memory' })
  engine.restart()
  expect(FakeWorker.made).toHaveLength(4)
  vi.advanceTimersByTime(60_000)
  expect(FakeWorker.made).toHaveLength(4)
})

it('restarts an engine that falls silent, once it should have reported, and not before', () => {
  const engine = useEngineStore()
  worker(0).say({ type: 'stats', stats: { frameMs: 5 } })
  vi.advanceTimersByTime(60_000)
  expect(FakeWorker.made).toHaveLength(1)
  engine.expectReports()
  vi.advanceTimersByTime(60_000)
  expect(FakeWorker.made.length).toBeGreaterThan(1)
  expect([engine.hasRestarted, engine.stats]).toEqual([true, null])
})

it('hands on what the engine reports', () => {
  const engine = useEngineStore()
  const ended: unknown[] = []
  engine.listen({ onSupplyEnded: (inputId, fault) => ended.push([inputId, fault]) })
  worker(0).say({ type: 'firstPicture' })
  worker(0).say({ type: 'sources', infos: [['input:a', { widthPx: 2, heightPx: 1, isOpaque: true }]] })
  worker(0).say({ type: 'faulted', reason: 'a frame' })
  worker(0).say({ type: 'personFailed', reason: 'no model' })
  worker(0).say({ type: 'assetFailed', asset: 'a', reason: 'gone' })
  worker(0).say({ type: 'supplyEnded', inputId: 'cam', fault: 'broken' })
  expect(engine.hasFirstPicture).toBe(true)
  expect(engine.infos.get('input:a')?.widthPx).toBe(2)
  expect([engine.faulted, engine.personFailure, engine.assetFailure, ended]).toEqual(['a frame', 'no model', 'gone', [['cam', 'broken']]])
})

it('keeps the choice of who makes the pictures, for this engine and the next', () => {
  const engine = useEngineStore()
  engine.pinExecutor('cpu')
  expect(worker(0).all('pinExecutor')).toEqual([{ type: 'pinExecutor', pin: 'cpu' }])
  setActivePinia(createPinia())
  expect(useEngineStore().pin).toBe('cpu')
})

it('goes on measuring after a restart what somebody looks at, and nothing else', () => {
  const engine = useEngineStore()
  const figures = useFiguresStore()
  const heard: number[] = []
  figures.watchScopes('cam', null)
  figures.watchMotion('cam', ({ captureMs }) => heard.push(captureMs))
  worker(0).say({ type: 'scopes', inputId: 'other', scopes: { luma: 1 } })
  expect(figures.scopes).toBeNull()
  worker(0).say({ type: 'scopes', inputId: 'cam', scopes: { luma: 2 } })
  expect(figures.scopes).toEqual({ luma: 2 })
  engine.restart()
  expect(worker(1).all('watch')).toEqual([{ type: 'watch', inputId: 'cam', layer: null }])
  worker(1).say({ type: 'motion', sample: { captureMs: 7 } })
  figures.watchMotion(null, null)
  worker(1).say({ type: 'motion', sample: { captureMs: 8 } })
  expect(heard).toEqual([7])
  figures.watchScopes(null, null)
  expect(figures.scopes).toBeNull()
  engine.restart()
  expect(worker(2).types.filter((type) => type.startsWith('watch'))).toEqual([])
})
