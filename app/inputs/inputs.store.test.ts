import { newClip } from '../../core/inputs/clip.ts'
import { createPinia, disposePinia, setActivePinia, type Pinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { nextTick, shallowReactive } from 'vue'
import { addInput, addScene, removeInput } from '../../core/show/edits.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { isCamera } from '../../core/inputs/camera.ts'
import type { CameraInput, ClipInput, ScreenInput, Show } from '../../core/show/show.ts'
import { FakeWorker } from '../../tests/support/fake-worker.ts'
import { testShow } from '../../tests/support/shows.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { inputsSeenIn } from './inputs-seen-in.ts'
import { useInputsStore } from './inputs.store.ts'

const base = testShow()
const camera = base.inputs.find(isCamera) as CameraInput
const clip: ClipInput = newClip('Clip', 'a'.repeat(64), () => 'clip')
const screen: ScreenInput = { id: 'desk', kind: 'screen', name: 'Desk', source: { type: 'shared', label: '' }, frameRate: 30, treatment: [] }
const show = addInput(addInput(base, clip), screen)
const air = shallowReactive({ pictured: show as Show | null, held: null as Show | null, onAirSceneId: null as string | null })
const amended: ((before: Show) => Show)[] = []
const showStore = shallowReactive({ show: show as Show | null, sceneId: base.scenes[0]!.id, amend: (make: (before: Show) => Show) => amended.push(make) })
let pinia: Pinia

vi.mock('../engine/engine-files.ts', () => ({
  engineFiles: {
    makeWorker: () => new FakeWorker(undefined, { name: 'engine' }),
    wasmUrl: '',
    loadFonts: () => Promise.resolve([]),
    personFiles: {},
    assetUrlPrefix: '/',
  },
}))
vi.mock('../air/air.store.ts', () => ({ useAirStore: () => air }))
vi.mock('../show/show.store.ts', () => ({ useShowStore: () => showStore }))

beforeEach(() => {
  pinia = createPinia()
  setActivePinia(pinia)
  FakeWorker.made = []
  amended.length = 0
  Object.assign(air, { pictured: show, held: null, onAirSceneId: null })
  vi.stubGlobal('Worker', FakeWorker)
  vi.stubGlobal(
    'MediaStreamTrackProcessor',
    class {
      readonly readable = new ReadableStream()
    },
  )
  return () => vi.unstubAllGlobals()
})
afterEach(() => disposePinia(pinia))

const named = (name: string) => FakeWorker.made.filter((worker) => worker.name === name)

it('opens what the show needs, and one table says what each is doing', async () => {
  const inputs = useInputsStore()
  expect(named('stand-in camera').length).toBeGreaterThan(0)
  expect([inputs.statusOf(camera.id), inputs.statusOf('clip'), inputs.statusOf('nobody')]).toEqual(['live', 'starting', 'off'])
  const [playing] = named('clip')
  playing!.say({ type: 'report', report: { isPlaying: true, isOver: false, mediaUs: 4 } })
  expect([inputs.statusOf('clip'), inputs.clipReports['clip']?.mediaUs]).toEqual(['live', 4])
  air.pictured = removeInput(show, 'clip')
  await nextTick()
  expect(playing!.isTerminated).toBe(true)
  expect(named('engine')[0]!.all('supplyGone')).toContainEqual({ type: 'supplyGone', inputId: 'clip' })
})

it('lets a camera rest that nothing shows, until a view looks at it', async () => {
  const unseen: CameraInput = { ...camera, id: 'spare', name: 'Spare' }
  air.pictured = addInput(show, unseen)
  const inputs = useInputsStore()
  expect(inputs.statusOf('spare')).toBe('paused')
  inputs.lookAt(['spare'])
  await nextTick()
  expect(inputs.statusOf('spare')).toBe('live')
})

it('says why something failed, and keeps saying so until it works', () => {
  const inputs = useInputsStore()
  named('clip')[0]!.say({ type: 'failed', reason: 'no video track' })
  expect([inputs.statusOf('clip'), inputs.detailOf('clip')]).toEqual(['broken', 'no video track'])
  inputs.restartClip('clip')
  expect([inputs.statusOf('clip'), inputs.detailOf('clip'), named('clip').length]).toEqual(['starting', '', 2])
})

it('gives a new engine everything that is live', () => {
  const inputs = useInputsStore()
  const [before] = named('engine')
  const ids = (worker: FakeWorker) => [...new Set(worker.all('supply').map(({ inputId }) => inputId))].toSorted()
  useEngineStore().restart()
  const [, after] = named('engine')
  expect(ids(after!)).toEqual(ids(before!))
  expect(ids(after!)).toContain(camera.id)
  expect(inputs.statusOf(camera.id)).toBe('live')
})

it('a camera whose pictures end is unplugged, one whose pictures cannot be read is broken', () => {
  const inputs = useInputsStore()
  const [engine] = named('engine')
  const newest = () => engine!.all('supply').findLast(({ inputId }) => inputId === camera.id)!.serial
  const first = newest()
  engine!.say({ type: 'supplyEnded', inputId: camera.id, serial: first, fault: null })
  expect(inputs.statusOf(camera.id)).toBe('unplugged')
  inputs.retryCamera(camera.id)
  expect(inputs.statusOf(camera.id)).toBe('live')
  // What is told of the earlier pictures once more says nothing of these.
  engine!.say({ type: 'supplyEnded', inputId: camera.id, serial: first, fault: 'too late' })
  expect(inputs.statusOf(camera.id)).toBe('live')
  engine!.say({ type: 'supplyEnded', inputId: camera.id, serial: newest(), fault: 'no pixels' })
  expect([inputs.statusOf(camera.id), inputs.detailOf(camera.id)]).toEqual(['broken', 'no pixels'])
})

it('keeps the name of what is shared with the show, without a step of undo', async () => {
  const track = {
    label: 'Notes',
    stop: () => undefined,
    clone: () => track,
    getSettings: () => ({ displaySurface: 'window' }),
    applyConstraints: async () => undefined,
  }
  const devices = {
    getDisplayMedia: async () => ({ getVideoTracks: () => [track], getTracks: () => [track] }),
    enumerateDevices: async () => [],
    addEventListener: () => undefined,
  }
  vi.stubGlobal('navigator', { ...navigator, mediaDevices: devices })
  const inputs = useInputsStore()
  expect(inputs.statusOf('desk')).toBe('off')
  expect(await inputs.shareScreen('desk')).toBe('live')
  expect(inputs.shared['desk']).toMatchObject({ label: 'Notes', surface: 'window' })
  expect(amended.map((make) => make(show).inputs.find(({ id }) => id === 'desk'))).toMatchObject([{ source: { type: 'shared', label: 'Notes' } }])
  // The window was closed: the browser ends its pictures.
  const { serial } = named('engine')[0]!
    .all('supply')
    .findLast(({ inputId }) => inputId === 'desk')!
  named('engine')[0]!.say({ type: 'supplyEnded', inputId: 'desk', serial, fault: null })
  expect(inputs.statusOf('desk')).toBe('ended')
  await inputs.shareScreen('desk')
  inputs.stopScreen('desk')
  expect(inputs.statusOf('desk')).toBe('off')
})

it('only inputs of visible layers in the scenes that are looked at are seen, those of shown scenes too', () => {
  const layer = newInputLayer(clip, base.canvas, () => 'layer')
  const withClip = addScene(show, { ...base.scenes[0]!, id: 'new', layers: [layer] })
  expect([...inputsSeenIn(withClip, ['new'])]).toEqual(['clip'])
  const hidden = addScene(show, { ...base.scenes[0]!, id: 'new', layers: [{ ...layer, visible: false }] })
  expect([...inputsSeenIn(hidden, ['new', null])]).toEqual([])
})
