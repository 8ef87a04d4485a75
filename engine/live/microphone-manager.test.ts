import { describe, expect, it, vi } from 'vitest'
import { newMicrophone } from '../../core/show/create.ts'
import type { Microphone } from '../../core/show/show.ts'
import { statusOf, type LiveStatus } from './live-state.ts'
import { MicrophoneManager, microphonesOf } from './microphone-manager.ts'

const DEVICE = { type: 'device', deviceId: 'mic-1', label: 'Desk microphone' } as const
const info = (deviceId: string, label: string) => ({ kind: 'audioinput', deviceId, label }) as MediaDeviceInfo
const desk = info('mic-1', 'Desk microphone')
const headset = info('mic-2', 'Headset')
const usual = info('default', 'Default – Headset')

/** A page with microphones that may be plugged in and pulled out. */
function setUp() {
  const onChange: (() => void)[] = []
  const timers: (() => void)[] = []
  const ended: (() => void)[] = []
  const states: LiveStatus[] = []
  const sources: (MessagePort | null)[] = []
  const others: string[] = []
  const track = { stop: vi.fn(), addEventListener: (_type: string, run: () => void) => ended.push(run) }
  const getUserMedia = vi.fn(
    async (_constraints: MediaStreamConstraints) => ({ getTracks: () => [track], getAudioTracks: () => [track] }) as unknown as MediaStream,
  )
  let devices = [usual, desk]
  const stop = vi.fn()
  const manager = new MicrophoneManager(
    {
      mediaDevices: {
        getUserMedia,
        enumerateDevices: async () => devices,
        addEventListener: ((_type: string, run: () => void) => onChange.push(run)) as unknown as MediaDevices['addEventListener'],
        removeEventListener: () => undefined,
      },
      openStandin: () => ({ port: new MessageChannel().port1, stop }),
      openStream: async () => ({ port: new MessageChannel().port1, stop }),
      setTimer: (run) => timers.push(run),
      clearTimer: () => undefined,
    },
    { onSource: (port) => sources.push(port), onState: (state) => states.push(statusOf(state)), onOther: (label) => others.push(label) },
  )
  const settle = async () => {
    for (let i = 0; i < 4; i += 1) await new Promise((resolve) => setImmediate(resolve))
  }
  const change = async (next: MediaDeviceInfo[]) => {
    devices = next
    for (const run of onChange) run()
    await settle()
  }
  const open = async (part: Partial<Microphone> = {}) => {
    manager.follow({ ...newMicrophone(DEVICE), ...part })
    await settle()
  }
  return { manager, getUserMedia, states, sources, others, track, stop, timers, ended, settle, change, open }
}

describe('MicrophoneManager', () => {
  it('opens the exact device, worked on by nobody', async () => {
    const { open, getUserMedia, states, sources } = setUp()
    await open()
    expect(getUserMedia.mock.calls[0]![0]).toEqual({
      audio: { deviceId: { exact: 'mic-1' }, echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: { ideal: 2 } },
    })
    expect(states).toEqual(['starting', 'live'])
    expect(sources).toHaveLength(1)
  })

  it('never lists or takes the system’s choice', async () => {
    expect(microphonesOf([usual, desk, info('communications', 'Communications – Headset')])).toEqual([desk])
    const { open, getUserMedia, change } = setUp()
    await change([usual, headset])
    await open()
    expect(getUserMedia.mock.calls[0]![0]).toMatchObject({ audio: { deviceId: { exact: 'mic-1' } } })
  })

  it('finds a device whose id has changed by its label', async () => {
    const { open, change, getUserMedia } = setUp()
    await change([info('mic-9', 'Desk microphone')])
    await open()
    expect(getUserMedia.mock.calls[0]![0]).toMatchObject({ audio: { deviceId: { exact: 'mic-9' } } })
  })

  it('stays where it is when a headset is plugged in, and says that there is one', async () => {
    const { open, change, others, getUserMedia, states } = setUp()
    await open()
    await change([usual, desk, headset])
    expect(others).toEqual(['Headset'])
    expect(getUserMedia).toHaveBeenCalledTimes(1)
    expect(states.at(-1)).toBe('live')
  })

  it('says that it was unplugged, waits, and is back when it is', async () => {
    const { open, change, ended, states, sources, stop, track } = setUp()
    await open()
    ended[0]!()
    expect(states.at(-1)).toBe('unplugged')
    expect([stop, track.stop].map(({ mock }) => mock.calls.length)).toEqual([1, 1])
    expect(sources.at(-1)).toBeNull()
    await change([usual, desk])
    expect(states.at(-1)).toBe('live')
  })

  it('notices a system that moves the stream elsewhere without a word', async () => {
    const { open, change, states } = setUp()
    await open()
    await change([usual, headset])
    expect(states.at(-1)).toBe('unplugged')
  })

  it.each([
    ['NotAllowedError', 'refused', 0],
    ['NotReadableError', 'busy', 1],
    ['NotFoundError', 'missing', 1],
    ['OverconstrainedError', 'missing', 1],
    ['TypeError', 'broken', 1],
  ])('%s means %s, tried again unless the presenter must act', async (name, state, tries) => {
    const { open, getUserMedia, states, timers, settle } = setUp()
    getUserMedia.mockImplementationOnce(() => Promise.reject(new DOMException('no', name)))
    await open()
    expect(states.at(-1)).toBe(state)
    expect(timers).toHaveLength(tries)
    timers[0]?.()
    await settle()
    expect(states.at(-1)).toBe(tries === 0 ? 'refused' : 'live')
  })

  it('opens anew for another device or automatic, not for gain, sides or delay', async () => {
    const { open, getUserMedia } = setUp()
    await open()
    await open({ gainDb: 6, sides: 'left', delayMs: 80 })
    expect(getUserMedia).toHaveBeenCalledTimes(1)
    await open({ noiseSuppression: true })
    expect(getUserMedia).toHaveBeenCalledTimes(2)
  })

  it('lets go of a microphone that came after it was no longer wanted', async () => {
    const { manager, track, settle, states, sources } = setUp()
    manager.follow(newMicrophone(DEVICE))
    manager.follow(newMicrophone({ type: 'none' }))
    await settle()
    expect(track.stop).toHaveBeenCalledTimes(1)
    expect(sources.filter((port) => port !== null)).toHaveLength(0)
    expect(states.at(-1)).toBe('off')
  })
})
