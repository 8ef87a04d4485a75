import { describe, expect, it, vi } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import type { CameraInput, Show } from '../../core/show/show.ts'
import { statusOf, type LiveStatus } from './live-state.ts'
import { CameraManager } from './camera-manager.ts'

const base = testShow()
const DEVICE = { type: 'device', deviceId: 'cam-1', label: 'USB camera' } as const
const withDevice = (device: CameraInput['device']): Show => ({ ...base, inputs: [{ ...(base.inputs[0] as CameraInput), device }, ...base.inputs.slice(1)] })
const inputId = base.inputs[0]!.id
/** Every input is wanted. */
const all = new Set(base.inputs.map(({ id }) => id))

/** A page with one camera, which may be made to fail. */
function setUp() {
  const listeners: (() => void)[] = []
  const timers: (() => void)[] = []
  const track = {
    stop: vi.fn(),
    getCapabilities: () => ({ zoom: { min: 1, max: 4, step: 1 }, exposureMode: ['continuous', 'manual'] }),
    settings: { zoom: 1, exposureMode: 'continuous' },
    getSettings: () => track.settings,
    applyConstraints: vi.fn(async (_constraints: MediaTrackConstraints) => undefined),
  }
  const getUserMedia = vi.fn(async (_constraints: MediaStreamConstraints) => ({ getVideoTracks: () => [track] }) as unknown as MediaStream)
  let devices = [{ kind: 'videoinput', deviceId: 'cam-1', label: 'USB camera' }] as MediaDeviceInfo[]
  const states: LiveStatus[] = []
  const supplies: string[] = []
  const gone = vi.fn()
  const onControls = vi.fn()
  const stopStandin = vi.fn()
  const manager = new CameraManager(
    {
      mediaDevices: {
        getUserMedia,
        enumerateDevices: async () => devices,
        addEventListener: ((_type: string, listener: () => void) => listeners.push(listener)) as unknown as MediaDevices['addEventListener'],
        removeEventListener: () => undefined,
      },
      openStandin: () => ({ port: new MessageChannel().port2, stop: stopStandin }),
      streamOf: () => new ReadableStream(),
      setTimer: (run) => timers.push(run),
      clearTimer: () => undefined,
    },
    { onSupply: (_id, supply) => supplies.push(supply.type), onGone: gone, onState: (_id, state) => states.push(statusOf(state)), onControls },
  )
  const settle = () => new Promise((resolve) => setImmediate(resolve))
  return {
    manager,
    getUserMedia,
    states,
    supplies,
    gone,
    onControls,
    track,
    stopStandin,
    timers,
    settle,
    plug: () => listeners.forEach((listener) => listener()),
    setDevices: (next: MediaDeviceInfo[]) => (devices = next),
  }
}

const failing = (name: string) => Promise.reject(new DOMException('no', name))

describe('CameraManager', () => {
  it('opens the exact device at the wanted size and rate', async () => {
    const { manager, getUserMedia, states, supplies, settle } = setUp()
    manager.follow(withDevice(DEVICE), all)
    await settle()
    expect(getUserMedia.mock.calls[0]![0]).toEqual({
      video: { deviceId: { exact: 'cam-1' }, width: { ideal: 1280 }, height: { ideal: 720 }, frameRate: { ideal: 30 } },
    })
    expect(states).toEqual(['starting', 'live'])
    expect(supplies).toEqual(['stream'])
  })

  it.each([
    ['NotAllowedError', 'refused'],
    ['NotReadableError', 'busy'],
    ['NotFoundError', 'missing'],
    ['OverconstrainedError', 'missing'],
    ['TypeError', 'broken'],
  ] as const)('calls a %s "%s"', async (name, state) => {
    const { manager, getUserMedia, states, settle } = setUp()
    getUserMedia.mockImplementation(() => failing(name))
    manager.follow(withDevice(DEVICE), all)
    await settle()
    expect(states.at(-1)).toBe(state)
  })

  it('calls a camera missing, not held, that the browser does not list, whatever its error says', async () => {
    const { manager, getUserMedia, states, settle, setDevices } = setUp()
    setDevices([{ kind: 'videoinput', deviceId: 'cam-2', label: 'Another' }] as MediaDeviceInfo[])
    getUserMedia.mockImplementation(() => failing('NotReadableError'))
    manager.follow(withDevice(DEVICE), all)
    await settle()
    expect(states.at(-1)).toBe('missing')
    // Before permission a browser lists cameras without names: then its error is all there is.
    setDevices([{ kind: 'videoinput', deviceId: '', label: '' }] as MediaDeviceInfo[])
    manager.retry(inputId)
    await settle()
    expect(states.at(-1)).toBe('busy')
  })

  it('says which held controls the camera refused: where it stands, not what was asked', async () => {
    const { manager, track, settle, onControls } = setUp()
    track.applyConstraints.mockImplementation(async ({ advanced }) => {
      if ('zoom' in advanced![0]!) throw new DOMException('not now', 'OverconstrainedError')
      track.settings = { ...track.settings, ...(advanced![0] as object) }
    })
    manager.follow(withDevice({ ...DEVICE, controls: { zoom: 3, exposureMode: 'manual', iso: 100 } }), all)
    await settle()
    expect(onControls).toHaveBeenLastCalledWith(inputId, expect.objectContaining({ refused: ['zoom'] }))
    track.applyConstraints.mockImplementation(async ({ advanced }) => void (track.settings = { ...track.settings, ...(advanced![0] as object) }))
    manager.retry(inputId)
    await settle()
    expect(onControls).toHaveBeenLastCalledWith(inputId, expect.objectContaining({ refused: [] }))
  })

  it('takes a busy camera by itself once it is free', async () => {
    const { manager, getUserMedia, states, timers, settle } = setUp()
    getUserMedia.mockImplementationOnce(() => failing('NotReadableError'))
    manager.follow(withDevice(DEVICE), all)
    await settle()
    expect(states.at(-1)).toBe('busy')
    timers.at(-1)!()
    await settle()
    expect(states.at(-1)).toBe('live')
  })

  it('does not ask again by itself after a refusal', async () => {
    const { manager, getUserMedia, timers, settle } = setUp()
    getUserMedia.mockImplementation(() => failing('NotAllowedError'))
    manager.follow(withDevice(DEVICE), all)
    await settle()
    expect(timers).toHaveLength(0)
  })

  it('says "unplugged" when the track ends, and comes back with the cable', async () => {
    const { manager, getUserMedia, states, gone, plug, settle } = setUp()
    manager.follow(withDevice(DEVICE), all)
    await settle()
    getUserMedia.mockImplementationOnce(() => failing('NotFoundError'))
    manager.ended(inputId)
    expect(gone).toHaveBeenCalledWith(inputId)
    manager.retry(inputId)
    await settle()
    expect(states.at(-1)).toBe('unplugged')
    plug()
    await settle()
    expect(states.at(-1)).toBe('live')
  })

  it('opened at another size, it takes no notice of the end of the pictures of before', async () => {
    const { manager, getUserMedia, states, timers, settle } = setUp()
    manager.follow(withDevice(DEVICE), all)
    await settle()
    const larger = withDevice(DEVICE)
    manager.follow(
      { ...larger, inputs: larger.inputs.map((input) => (input.id === inputId ? ({ ...input, widthPx: 1920, heightPx: 1080 } as CameraInput) : input)) },
      all,
    )
    manager.ended(inputId)
    await settle()
    expect(states).toEqual(['starting', 'live', 'starting', 'live'])
    expect([getUserMedia.mock.calls.length, timers.length]).toEqual([2, 0])
  })

  it('finds a device by its name when its id has changed', async () => {
    const { manager, getUserMedia, setDevices, settle } = setUp()
    setDevices([{ kind: 'videoinput', deviceId: 'cam-9', label: 'USB camera' }] as MediaDeviceInfo[])
    manager.follow(withDevice(DEVICE), all)
    await settle()
    expect((getUserMedia.mock.calls[0]![0].video as MediaTrackConstraints).deviceId).toEqual({ exact: 'cam-9' })
  })

  it('lets go of a camera that left the show, and opens nothing twice', async () => {
    const { manager, getUserMedia, track, settle } = setUp()
    manager.follow(withDevice(DEVICE), all)
    manager.follow(withDevice(DEVICE), all)
    await settle()
    expect(getUserMedia).toHaveBeenCalledTimes(1)
    manager.follow({ ...base, inputs: base.inputs.slice(1) }, all)
    expect(track.stop).toHaveBeenCalled()
  })

  it('gives stand-ins in the same way', async () => {
    const { manager, states, supplies, stopStandin } = setUp()
    manager.follow(base, all)
    expect(supplies).toEqual(['port'])
    expect(states.at(-1)).toBe('live')
    manager.retry(inputId)
    expect(stopStandin).toHaveBeenCalledTimes(1)
    manager.dispose()
    expect(stopStandin).toHaveBeenCalledTimes(2)
  })

  it('holds a camera’s own controls, and again when it comes back', async () => {
    const { manager, getUserMedia, track, settle } = setUp()
    const held = { ...DEVICE, controls: { exposureMode: 'manual', zoom: 9, tilt: 3 } }
    manager.follow(withDevice(held), all)
    await settle()
    const calls = () => track.applyConstraints.mock.calls.map(([constraints]) => constraints.advanced?.[0])
    expect(calls()).toEqual([{ exposureMode: 'manual' }, { zoom: 4 }])
    // A change of a held value doesn't open the camera anew.
    manager.follow(withDevice({ ...held, controls: { zoom: 2 } }), all)
    await settle()
    expect(getUserMedia).toHaveBeenCalledTimes(1)
    expect(calls().at(-1)).toEqual({ zoom: 2 })
    manager.ended(inputId)
    manager.retry(inputId)
    await settle()
    expect(getUserMedia).toHaveBeenCalledTimes(2)
    expect(calls().at(-1)).toEqual({ zoom: 2 })
  })

  it('lets a camera rest while no visible layer uses it, and has it back at once', async () => {
    const { manager, getUserMedia, states, track, gone, settle } = setUp()
    manager.follow(withDevice(DEVICE), all)
    await settle()
    manager.follow(withDevice(DEVICE), new Set())
    expect(track.stop).toHaveBeenCalledTimes(1)
    expect(gone).toHaveBeenCalledWith(inputId)
    manager.follow(withDevice(DEVICE), all)
    await settle()
    expect(getUserMedia).toHaveBeenCalledTimes(2)
    expect(states).toEqual(['starting', 'live', 'paused', 'starting', 'live'])
  })
})
