import { describe, expect, it, vi } from 'vitest'
import { withStartBitrate } from '../sdp.ts'
import { formatFor, pictureWish, unmetConstraint, unmetSound, wishOf } from './constraints.ts'
import { CAMERA_LABEL, MICROPHONE_LABEL, type DeviceDoor } from './device-door.ts'
import { PictureRate } from './picture-rate.ts'
import { installShim, type PageRights } from './shim.ts'

const OURS = 'our-id'
const source = { widthPx: 1280, heightPx: 720, frameRate: 30 }
const facts = { deviceId: OURS, source }

// Rules of W3C Media Capture and Streams §5 (constraints) and §11; from memory.
describe('which camera a page asks for', () => {
  it.each([
    [undefined, 'none'],
    [false, 'none'],
    [true, 'any'],
    [{}, 'any'],
    [{ width: 640 }, 'any'],
    [{ deviceId: OURS }, 'ours'],
    [{ deviceId: { exact: OURS } }, 'ours'],
    [{ deviceId: { ideal: OURS } }, 'ours'],
    [{ deviceId: { exact: ['x', OURS] } }, 'ours'],
    [{ advanced: [{ deviceId: OURS }] }, 'ours'],
    [{ deviceId: { exact: 'another' } }, 'other'],
  ] as const)('%j means %s', (video, wish) => expect(wishOf(video as MediaTrackConstraints, OURS)).toBe(wish))
})

describe('what it cannot meet', () => {
  it.each([
    [{}, null],
    [{ width: { ideal: 4000 }, height: 2160 }, null],
    [{ width: { exact: 1280 }, frameRate: { exact: 30 } }, null],
    [{ width: { max: 640 } }, null],
    [{ width: { exact: 640 } }, null],
    [{ width: { exact: 640 }, height: { exact: 480 } }, null],
    [{ width: { exact: 1920 } }, 'width'],
    [{ width: { min: 640 }, height: { max: 240 } }, 'width'],
    [{ height: { min: 1080 } }, 'height'],
    [{ frameRate: { min: 60 } }, 'frameRate'],
    [{ frameRate: { max: 10 } }, null],
    [{ frameRate: { exact: 15 } }, null],
    [{ aspectRatio: { exact: 1 } }, null],
    [{ aspectRatio: { min: 2 } }, 'aspectRatio'],
    [{ facingMode: { exact: 'environment' } }, 'facingMode'],
    [{ facingMode: 'user' }, null],
    [{ deviceId: { exact: 'another' } }, 'deviceId'],
  ] as const)('%j fails on %s', (constraints, name) => expect(unmetConstraint(constraints as MediaTrackConstraints, facts)).toBe(name))
})

describe('the form a page gets', () => {
  it.each([
    // As it comes, and never larger than it comes.
    [{}, [1280, 720, 30]],
    [{ width: 1920, height: 1080, frameRate: 60 }, [1280, 720, 30]],
    [{ width: 640, height: 360, frameRate: 15 }, [640, 360, 15]],
    [{ width: { exact: 640 }, frameRate: { max: 10 } }, [640, 360, 10]],
    [{ height: { ideal: 240 } }, [427, 240, 30]],
    [{ width: { max: 320 } }, [320, 180, 30]],
    // A mere preference for another shape cuts nothing off; a requirement does.
    [{ width: 640, height: 480 }, [640, 360, 30]],
    [{ width: { exact: 640 }, height: { exact: 480 } }, [640, 480, 30]],
    [{ width: 320, height: 320, resizeMode: 'crop-and-scale' }, [320, 320, 30]],
    [{ aspectRatio: { exact: 1 } }, [720, 720, 30]],
    [{ width: 1, height: 1 }, [1, 1, 30]],
  ] as const)('%j gives %j', (constraints, expected) => {
    const { widthPx, heightPx, frameRate } = formatFor(pictureWish(constraints as MediaTrackConstraints), source)
    expect([widthPx, heightPx, frameRate]).toEqual(expected)
  })
})

describe('what the microphone cannot meet', () => {
  it.each([
    [{}, null],
    [{ echoCancellation: true, autoGainControl: { ideal: true } }, null],
    [{ echoCancellation: { exact: true } }, 'echoCancellation'],
    [{ echoCancellation: { exact: false } }, null],
    [{ sampleRate: { exact: 44_100 } }, 'sampleRate'],
    [{ deviceId: { exact: 'another' } }, 'deviceId'],
  ] as const)('%j fails on %s', (constraints, name) => expect(unmetSound(constraints as MediaTrackConstraints, OURS)).toBe(name))
})

describe('the rate at which pictures arrive', () => {
  /** `seconds` of pictures at `rate` from `fromMs` on, each up to a third of a picture late. */
  const feed = (seen: PictureRate, rate: number, fromMs: number, seconds: number) => {
    for (let i = 0; i < rate * seconds; i += 1) seen.note(fromMs + ((i + (i % 3) / 9) * 1000) / rate)
    return seen.rate
  }

  it.each([15, 24, 25, 30, 50, 60])('is found: %i a second', (rate) => expect(Math.abs(feed(new PictureRate(), rate, 0, 4) - rate)).toBeLessThanOrEqual(1))

  it('follows a feed that becomes faster, stays through a stumble, and is not taken from a pause', () => {
    const seen = new PictureRate()
    expect(seen.rate).toBe(30)
    expect(feed(seen, 60, 0, 4)).toBe(60)
    expect(feed(seen, 56, 4000, 4)).toBe(60)
    seen.note(60_000)
    expect(seen.rate).toBe(60)
    expect(feed(seen, 30, 60_000, 4)).toBe(30)
  })
})

describe('the shim', () => {
  class FakeInfo {}
  const VOICE = 'our-voice'
  const picture = { kind: 'video', readyState: 'live', stop: vi.fn() }
  const voice = { kind: 'audio', readyState: 'live', stop: vi.fn() }
  const realCamera = { kind: 'videoinput', deviceId: 'real', label: 'Built-in' }
  const realVoice = { kind: 'audioinput', deviceId: 'real-voice', label: 'Built-in' }

  function setUp({
    isPresent = true,
    devices = [realCamera] as { kind: string; deviceId: string; label: string }[],
    rights = {} as Partial<PageRights>,
    native = async (_constraints: MediaStreamConstraints): Promise<unknown> => stream(['native track']),
  } = {}) {
    vi.stubGlobal('InputDeviceInfo', FakeInfo)
    vi.stubGlobal(
      'MediaStream',
      class {
        constructor(readonly tracks: unknown[]) {}
      },
    )
    vi.stubGlobal(
      'OverconstrainedError',
      class extends Error {
        constructor(
          readonly constraint: string,
          message: string,
        ) {
          super(message)
        }
      },
    )
    const getUserMedia = vi.fn(native)
    const mediaDevices = { enumerateDevices: async () => devices, getUserMedia, dispatchEvent: vi.fn() } as unknown as MediaDevices
    const door = {
      ready: Promise.resolve(),
      isPresent,
      ids: { camera: OURS, microphone: VOICE, group: 'g' },
      kinds: ['camera', 'microphone'],
      source,
      openCamera: vi.fn(() => ({ ...picture })),
      openMicrophone: vi.fn(() => ({ ...voice })),
      change: vi.fn(),
    }
    installShim(mediaDevices, door as unknown as DeviceDoor, { mayUse: async () => true, maySeeNames: async () => true, ...rights })
    const tracksOf = async (constraints: MediaStreamConstraints) =>
      ((await mediaDevices.getUserMedia(constraints)) as unknown as { tracks: { kind?: string }[] }).tracks.map((track) => track.kind ?? track)
    return { mediaDevices, door, getUserMedia, tracksOf }
  }
  const stream = (tracks: unknown[]) => ({ tracks, getTracks: () => [...tracks] })

  it('lists camera and microphone among their kind, like any other device', async () => {
    const { mediaDevices } = setUp({ devices: [realVoice, realCamera] })
    const devices = await mediaDevices.enumerateDevices()
    expect(devices.map(({ kind, label }) => [kind, label])).toEqual([
      ['audioinput', 'Built-in'],
      ['audioinput', MICROPHONE_LABEL],
      ['videoinput', 'Built-in'],
      ['videoinput', CAMERA_LABEL],
    ])
    expect(devices[3]).toBeInstanceOf(FakeInfo)
    expect(devices[3]!.toJSON()).toEqual({ kind: 'videoinput', deviceId: OURS, label: CAMERA_LABEL, groupId: 'g' })
  })

  it('tells a page without permission only that there is a device of a kind', async () => {
    const { mediaDevices } = setUp({ devices: [{ kind: 'videoinput', deviceId: '', label: '' }], rights: { maySeeNames: async () => false } })
    const devices = await mediaDevices.enumerateDevices()
    expect(devices.map(({ kind, deviceId, label, groupId }) => [kind, deviceId, label, groupId ?? ''])).toEqual([
      ['audioinput', '', '', ''],
      ['videoinput', '', '', ''],
    ])
  })

  it('lists and opens nothing for a page that may not use such devices', async () => {
    const { mediaDevices, door } = setUp({ rights: { mayUse: async () => false } })
    expect(await mediaDevices.enumerateDevices()).toHaveLength(1)
    await expect(mediaDevices.getUserMedia({ video: { deviceId: OURS } })).rejects.toMatchObject({ name: 'NotAllowedError' })
    expect(door.openCamera).not.toHaveBeenCalled()
  })

  it('lists nothing before a studio was seen, yet opens by a remembered id', async () => {
    const { mediaDevices, door } = setUp({ isPresent: false })
    expect(await mediaDevices.enumerateDevices()).toHaveLength(1)
    await mediaDevices.getUserMedia({ video: { deviceId: { exact: OURS } } })
    expect(door.openCamera).toHaveBeenCalled()
  })

  it('passes on every request that is not for it', async () => {
    const { mediaDevices, door, getUserMedia } = setUp()
    for (const constraints of [{ audio: true }, { video: true }, { video: { deviceId: 'real' } }, { audio: true, video: true }]) {
      expect(await mediaDevices.getUserMedia(constraints)).toMatchObject({ tracks: ['native track'] })
      expect(getUserMedia).toHaveBeenLastCalledWith(constraints)
    }
    expect(door.openCamera).not.toHaveBeenCalled()
  })

  it('is "any device" where the machine lacks that kind, and only there; other refusals stay as they are', async () => {
    const lacking = setUp({
      native: async ({ video }) => {
        if (video) throw new DOMException('none', 'NotFoundError')
        return stream(['real voice'])
      },
      devices: [realVoice],
    })
    expect(await lacking.tracksOf({ video: true, audio: true })).toEqual(['real voice', 'video'])
    const refusing = setUp({ native: () => Promise.reject(new DOMException('no', 'NotAllowedError')) })
    await expect(refusing.mediaDevices.getUserMedia({ video: true })).rejects.toMatchObject({ name: 'NotAllowedError' })
    const chosen = setUp({ native: () => Promise.reject(new DOMException('none', 'NotFoundError')), devices: [] })
    await expect(chosen.mediaDevices.getUserMedia({ video: { deviceId: { exact: 'gone' } } })).rejects.toMatchObject({ name: 'NotFoundError' })
  })

  it('brings real and own devices together, and opens nothing of its own if the real one is refused', async () => {
    const both = setUp({ native: async () => stream(['real voice']) })
    expect(await both.tracksOf({ video: { deviceId: OURS }, audio: true })).toEqual(['real voice', 'video'])
    expect(both.getUserMedia).toHaveBeenCalledWith({ audio: true })
    const ours = setUp()
    expect(await ours.tracksOf({ video: { deviceId: OURS }, audio: { deviceId: { exact: VOICE } } })).toEqual(['audio', 'video'])
    expect(ours.getUserMedia).not.toHaveBeenCalled()
    const refused = setUp({ native: () => Promise.reject(new DOMException('no', 'NotAllowedError')) })
    await expect(refused.mediaDevices.getUserMedia({ video: { deviceId: OURS }, audio: true })).rejects.toMatchObject({ name: 'NotAllowedError' })
    expect(refused.door.openCamera).not.toHaveBeenCalled()
  })

  it('asks the person for nothing before it knows that its own part can be met', async () => {
    const { mediaDevices, getUserMedia } = setUp()
    await expect(mediaDevices.getUserMedia({ video: { deviceId: OURS, width: { exact: 1920 } }, audio: true })).rejects.toThrow('"width"')
    expect(getUserMedia).not.toHaveBeenCalled()
  })

  it('gives a copy of a track a life and a form of its own', async () => {
    const { mediaDevices, door } = setUp()
    const asked = (await mediaDevices.getUserMedia({ video: { deviceId: OURS, width: 640 } })) as unknown as { tracks: MediaStreamTrack[] }
    const [track] = asked.tracks
    const copy = track!.clone()
    expect(door.openCamera).toHaveBeenCalledTimes(2)
    await copy.applyConstraints({ width: 320, frameRate: 15 })
    expect(copy.getSettings()).toMatchObject({ width: 320, height: 180, frameRate: 15, deviceId: OURS })
    expect(track!.getSettings()).toMatchObject({ width: 640, height: 360, frameRate: 30 })
    await expect(copy.applyConstraints({ width: { min: 5000 } })).rejects.toThrow('"width"')
    expect(copy.getSettings()).toMatchObject({ width: 320 })
  })

  it('is laid round a page once, however often it is loaded', async () => {
    const { mediaDevices, door } = setUp()
    installShim(mediaDevices, door as unknown as DeviceDoor)
    expect((await mediaDevices.enumerateDevices()).filter(({ label }) => label === CAMERA_LABEL)).toHaveLength(1)
  })
})

it('adds a start bitrate to every video format and nothing else', () => {
  const sdp = [
    'v=0',
    'm=video 9 UDP/TLS/RTP/SAVPF 96 102 97',
    'a=rtpmap:96 VP8/90000',
    'a=rtpmap:102 H264/90000',
    'a=fmtp:102 packetization-mode=1',
    'a=rtpmap:97 rtx/90000',
    'a=fmtp:97 apt=96',
    '',
  ].join('\r\n')
  expect(withStartBitrate(sdp, 4000).split('\r\n')).toEqual([
    'v=0',
    'm=video 9 UDP/TLS/RTP/SAVPF 96 102 97',
    'a=rtpmap:96 VP8/90000',
    'a=fmtp:96 x-google-start-bitrate=4000',
    'a=rtpmap:102 H264/90000',
    'a=fmtp:102 packetization-mode=1;x-google-start-bitrate=4000',
    'a=rtpmap:97 rtx/90000',
    'a=fmtp:97 apt=96',
    '',
  ])
})
