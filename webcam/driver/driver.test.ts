import { describe, expect, it, vi } from 'vitest'
import { withStartBitrate } from '../sdp.ts'
import { pictureWish, wishOf } from './constraints.ts'
import { CAMERA_LABEL, MICROPHONE_LABEL, type DeviceDoor } from './device-door.ts'
import { formatFor, unmetSetting } from './fitness.ts'
import { standardConstraints } from './legacy-constraints.ts'
import type { MediaScope } from './media-scope.ts'
import { installRefusal, installShim, type PageRights } from './shim.ts'
import { soundSettings, soundWish, unmetSound } from './sound-constraints.ts'

const OURS = 'our-id'
const own = { deviceId: OURS, groupId: 'our-group' }
const source = { widthPx: 1280, heightPx: 720, frameRate: 30 }

// Rules of W3C Media Capture and Streams §5 (constraints) and §11; from memory.
describe('which camera a page asks for', () => {
  it.each([
    [undefined, 'none'],
    [false, 'none'],
    [true, 'any'],
    [{}, 'any'],
    [{ width: 640 }, 'any'],
    [{ deviceId: '' }, 'any'],
    [{ deviceId: OURS }, 'ours'],
    [{ deviceId: { exact: OURS } }, 'ours'],
    [{ deviceId: { ideal: OURS } }, 'ours'],
    [{ deviceId: { exact: ['x', OURS] } }, 'ours'],
    [{ advanced: [{ deviceId: OURS }] }, 'ours'],
    [{ groupId: { exact: 'our-group' } }, 'ours'],
    [{ groupId: { exact: 'another' } }, 'other'],
    [{ deviceId: { exact: 'another' } }, 'other'],
    [{ deviceId: { exact: 'another' }, advanced: [{ deviceId: OURS }] }, 'other'],
    // A preference that no device meets leaves any device possible; so does a word for "whichever you prefer".
    [{ deviceId: 'stale' }, 'any'],
    [{ deviceId: { ideal: ['stale'] } }, 'any'],
    [{ deviceId: { exact: 'default' } }, 'any'],
  ] as const)('%j means %s', (video, wish) => expect(wishOf(video as unknown as MediaTrackConstraints, own)).toBe(wish))

  it('reads the older form of constraints, as old adapters write it', () => {
    expect(wishOf(standardConstraints({ optional: [{ sourceId: OURS }] } as MediaTrackConstraints), own)).toBe('ours')
    expect(wishOf(standardConstraints({ mandatory: { sourceId: OURS } } as MediaTrackConstraints), own)).toBe('ours')
    expect(
      standardConstraints({ mandatory: { minWidth: 640, maxWidth: 1280, maxFrameRate: 15 }, optional: [{ minHeight: 360 }] } as MediaTrackConstraints),
    ).toEqual({
      width: { min: 640, max: 1280 },
      frameRate: { max: 15 },
      advanced: [{ height: { min: 360 } }],
    })
    const modern = { width: 640 }
    expect(standardConstraints(modern)).toBe(modern)
  })
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
    [{ width: { min: 800, max: 700 } }, 'width'],
    [{ height: { min: 1080 } }, 'height'],
    [{ frameRate: { min: 60 } }, 'frameRate'],
    [{ frameRate: { max: 10 } }, null],
    [{ frameRate: { max: 0 } }, 'frameRate'],
    [{ frameRate: { exact: 15 } }, null],
    // By cropping, any shape within the source can be had.
    [{ width: { min: 640 }, height: { max: 240 } }, null],
    [{ aspectRatio: { exact: 1 } }, null],
    [{ aspectRatio: { min: 2 } }, null],
    [{ aspectRatio: { min: 1, max: 1.5 } }, null],
    [{ width: { min: 640, ideal: 640 }, height: { min: 480, ideal: 480 } }, null],
    [{ width: { min: 640 }, height: { ideal: 240 } }, null],
    [{ width: { ideal: 640 }, height: { min: 480 } }, null],
    [{ height: { exact: 720 }, aspectRatio: { min: 2 } }, 'width'],
    [{ resizeMode: { exact: 'none' }, width: { max: 640 } }, 'width'],
    [{ resizeMode: { exact: 'none' }, width: { max: 1280 } }, null],
    [{ resizeMode: { exact: 'stretch' } }, 'resizeMode'],
    [{ advanced: [{ width: 5000 }, { frameRate: 90 }] }, null],
  ] as const)('%j fails on %s', (constraints, name) => expect(unmetSetting(pictureWish(constraints as unknown as MediaTrackConstraints), source)).toBe(name))
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
    [{ width: { min: 640, ideal: 640 }, height: { min: 480, ideal: 480 } }, [853, 480, 30]],
    [{ width: { min: 640 }, height: { ideal: 240 } }, [640, 360, 30]],
    [{ width: { ideal: 640 }, height: { min: 480 } }, [853, 480, 30]],
    [{ width: { exact: 640 }, height: { exact: 480 } }, [640, 480, 30]],
    [{ width: 320, height: 320, resizeMode: 'crop-and-scale' }, [320, 320, 30]],
    [{ aspectRatio: { exact: 1 } }, [720, 720, 30]],
    [{ aspectRatio: { min: 1, max: 1.5 } }, [1080, 720, 30]],
    [{ width: 1, height: 1 }, [1, 1, 30]],
    // Sets that go further than what is required count where they can be met.
    [{ advanced: [{ width: 640, height: 480 }, { frameRate: { min: 60 } }] }, [640, 480, 30]],
    [{ width: { max: 800 }, advanced: [{ width: 1280 }, { height: { max: 360 } }] }, [640, 360, 30]],
  ] as const)('%j gives %j', (constraints, expected) => {
    const { widthPx, heightPx, frameRate } = formatFor(pictureWish(constraints as unknown as MediaTrackConstraints), source)
    const [wide, high, rate] = expected
    expect([Math.abs(widthPx - wide) <= 3, heightPx, frameRate], `${widthPx}×${heightPx}`).toEqual([true, high, rate])
  })

  it('stays within what a page required, or nearest to it, when the show becomes smaller', () => {
    const wish = pictureWish({ width: { min: 1000, max: 1100 } })
    expect(formatFor(wish, { widthPx: 640, heightPx: 360, frameRate: 30 })).toEqual({ widthPx: 640, heightPx: 360, frameRate: 30 })
  })
})

describe('the microphone', () => {
  it.each([
    [{}, null],
    [{ echoCancellation: true, autoGainControl: { ideal: true } }, null],
    [{ echoCancellation: { exact: true } }, null],
    [{ echoCancellation: { exact: false } }, null],
    [{ noiseSuppression: { exact: true } }, 'noiseSuppression'],
    [{ autoGainControl: { exact: true } }, 'autoGainControl'],
    [{ sampleRate: { exact: 44_100 } }, 'sampleRate'],
    [{ sampleRate: { min: 44_100 } }, null],
    [{ sampleSize: { exact: 24 } }, 'sampleSize'],
    [{ sampleSize: { exact: 16 } }, null],
    [{ latency: { max: 0.001 } }, 'latency'],
    [{ latency: { max: 0.1 } }, null],
    [{ channelCount: { exact: 1 } }, null],
    [{ channelCount: { exact: 6 } }, 'channelCount'],
    [{ channelCount: { min: 2 } }, null],
  ] as const)('%j fails on %s', (constraints, name) => expect(unmetSound(constraints as MediaTrackConstraints)).toBe(name))

  it.each([
    [{}, { channelCount: 2, echoCancellation: false }],
    [{ channelCount: 1 }, { channelCount: 1 }],
    [
      { channelCount: { exact: 1 }, echoCancellation: { exact: true } },
      { channelCount: 1, echoCancellation: true },
    ],
    [{ channelCount: 6 }, { channelCount: 2 }],
    [{ echoCancellation: true }, { echoCancellation: true }],
  ] as const)('%j is told of as %j', (constraints, settings) => expect(soundSettings(soundWish(constraints as MediaTrackConstraints))).toMatchObject(settings))
})

describe('the shim', () => {
  const VOICE = 'our-voice'
  const realCamera = { kind: 'videoinput', deviceId: 'real', label: 'Built-in' }
  const realVoice = { kind: 'audioinput', deviceId: 'real-voice', label: 'Built-in' }

  class FakeTrack {
    readyState = 'live'
    enabled = true
    constructor(readonly kind: string) {}
    get label() {
      return `real ${this.kind}`
    }
    getSettings = undefined
    stop(): void {
      this.readyState = 'ended'
    }
  }
  for (const name of ['getSettings', 'getCapabilities', 'getConstraints', 'clone', 'applyConstraints'])
    Object.defineProperty(FakeTrack.prototype, name, {
      value: { [name]: () => `the browser’s ${name}` }[name],
      writable: true,
      enumerable: true,
      configurable: true,
    })
  const stream = (tracks: unknown[]) => ({ tracks, getTracks: () => [...tracks] })

  function setUp({
    isPresent = true,
    ids = { camera: OURS, microphone: VOICE, group: 'our-group' },
    devices = [realCamera] as { kind: string; deviceId: string; label: string }[],
    rights = {} as Partial<PageRights>,
    native = async (_constraints: MediaStreamConstraints): Promise<unknown> => stream(['native track']),
  } = {}) {
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
    const nativeGetUserMedia = vi.fn(native)
    class FakeDevices {
      async enumerateDevices() {
        return devices
      }
      getUserMedia(constraints: MediaStreamConstraints) {
        return nativeGetUserMedia(constraints)
      }
      dispatchEvent = vi.fn()
    }
    class Track extends FakeTrack {}
    for (const name of ['getSettings', 'getCapabilities', 'getConstraints', 'clone', 'applyConstraints', 'label'])
      Object.defineProperty(Track.prototype, name, Object.getOwnPropertyDescriptor(FakeTrack.prototype, name)!)
    class Stream {
      constructor(readonly tracks: unknown[]) {}
      getTracks() {
        return [...this.tracks]
      }
      getVideoTracks() {
        return this.tracks.filter((track) => (track as FakeTrack).kind === 'video')
      }
      clone() {
        return 'the browser’s clone'
      }
    }
    class Info {
      get deviceId() {
        return ''
      }
      get kind() {
        return ''
      }
      get label() {
        return ''
      }
      get groupId() {
        return ''
      }
      toJSON() {
        return {}
      }
    }
    class InputInfo extends Info {
      getCapabilities() {
        return {}
      }
    }
    class FakeNavigator {
      mediaDevices = new FakeDevices()
      getUserMedia(_constraints: unknown, _taken: (stream: unknown) => void, _refused: (error: unknown) => void): void {}
      webkitGetUserMedia(_constraints: unknown, _taken: (stream: unknown) => void, _refused: (error: unknown) => void): void {}
    }
    const navigator = new FakeNavigator()
    const scope = {
      MediaDevices: FakeDevices,
      MediaStream: Stream,
      MediaStreamTrack: Track,
      MediaDeviceInfo: Info,
      InputDeviceInfo: InputInfo,
      Navigator: FakeNavigator,
      navigator,
    } as unknown as MediaScope
    const mediaDevices = navigator.mediaDevices as unknown as MediaDevices
    const makeTrack = (kind: string) => {
      const track = new Track(kind)
      // The fake's own field hides its prototype's method.
      delete (track as { getSettings?: unknown }).getSettings
      return track
    }
    const door = {
      ready: Promise.resolve(),
      identify: vi.fn(async () => void Object.assign(door.ids, { camera: OURS, microphone: VOICE, group: 'our-group' })),
      isPresent,
      ids: { ...ids },
      kinds: ['camera', 'microphone'],
      source,
      openCamera: vi.fn(() => makeTrack('video')),
      openMicrophone: vi.fn(() => makeTrack('audio')),
      changeCamera: vi.fn(),
      changeMicrophone: vi.fn(),
    }
    const before = { getUserMedia: FakeDevices.prototype.getUserMedia, flags: Object.getOwnPropertyDescriptor(Track.prototype, 'getSettings')! }
    installShim(scope, door as unknown as DeviceDoor, { mayUse: async () => true, maySeeNames: async () => true, ...rights })
    const tracksOf = async (constraints: MediaStreamConstraints) =>
      ((await mediaDevices.getUserMedia(constraints)) as unknown as { tracks: { kind?: string }[] }).tracks.map((track) => track.kind ?? track)
    return { mediaDevices, door, getUserMedia: nativeGetUserMedia, tracksOf, scope, navigator, before, InputInfo, Track }
  }
  const noIds = { camera: '', microphone: '', group: '' }
  const lacksAll = () => Promise.reject(new DOMException('none', 'NotFoundError'))

  it('lists camera and microphone among their kind, like any other device', async () => {
    const { mediaDevices, InputInfo } = setUp({ devices: [realVoice, realCamera] })
    const devices = await mediaDevices.enumerateDevices()
    expect(devices.map(({ kind, label }) => [kind, label])).toEqual([
      ['audioinput', 'Built-in'],
      ['audioinput', MICROPHONE_LABEL],
      ['videoinput', 'Built-in'],
      ['videoinput', CAMERA_LABEL],
    ])
    expect(devices[3]).toBeInstanceOf(InputInfo)
    expect(Object.keys(devices[3]!)).toEqual([])
    expect(devices[3]!.toJSON()).toEqual({ kind: 'videoinput', deviceId: OURS, label: CAMERA_LABEL, groupId: 'our-group' })
    // What pages read for a menu of sizes.
    expect((devices[3] as InputDeviceInfo).getCapabilities()).toMatchObject({
      width: { max: 1280 },
      height: { max: 720 },
      frameRate: { max: 30 },
      facingMode: [],
    })
  })

  it('tells a page without permission only that there is a device of a kind, and makes no ids for it', async () => {
    const { mediaDevices, door } = setUp({ ids: noIds, devices: [{ kind: 'videoinput', deviceId: '', label: '' }], rights: { maySeeNames: async () => false } })
    const devices = await mediaDevices.enumerateDevices()
    expect(devices.map(({ kind, deviceId, label, groupId }) => [kind, deviceId, label, groupId ?? ''])).toEqual([
      ['audioinput', '', '', ''],
      ['videoinput', '', '', ''],
    ])
    expect(door.identify).not.toHaveBeenCalled()
    expect((devices[0] as InputDeviceInfo).getCapabilities()).toEqual({})
  })

  it('makes ids once a page may see them, or opens a device', async () => {
    const allowed = setUp({ ids: noIds })
    expect((await allowed.mediaDevices.enumerateDevices()).map(({ deviceId }) => deviceId)).toContain(OURS)
    const opening = setUp({ ids: noIds, devices: [], native: lacksAll, rights: { maySeeNames: async () => false } })
    const opened = (await opening.mediaDevices.getUserMedia({ video: true })) as unknown as { tracks: MediaStreamTrack[] }
    expect(opened.tracks[0]!.getSettings().deviceId).toBe(OURS)
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
    const chosen = setUp({ native: lacksAll, devices: [] })
    await expect(chosen.mediaDevices.getUserMedia({ video: { deviceId: { exact: 'gone' } } })).rejects.toMatchObject({ name: 'NotFoundError' })
  })

  it('is what a machine without devices gives a page that remembers one, or says "default": no stale id takes the other kind down', async () => {
    for (const [video, audio] of [
      [{ deviceId: 'stale' }, true],
      [true, { deviceId: 'stale' }],
      [{ deviceId: { ideal: 'stale' } }, { deviceId: 'default' }],
      [{ deviceId: OURS }, { deviceId: { ideal: 'stale' } }],
      [{ deviceId: OURS }, { deviceId: { exact: 'default' } }],
    ] as const)
      expect(await setUp({ native: lacksAll, devices: [] }).tracksOf({ video, audio } as MediaStreamConstraints)).toEqual(['audio', 'video'])
  })

  it('never opens the real camera for a page that named ours in the older form, also by the older calls', async () => {
    const legacy = { video: { optional: [{ sourceId: OURS }] } } as unknown as MediaStreamConstraints
    const { getUserMedia, tracksOf, navigator } = setUp()
    expect(await tracksOf(legacy)).toEqual(['video'])
    for (const name of ['getUserMedia', 'webkitGetUserMedia'] as const) {
      const taken = await new Promise((resolve, reject) => navigator[name](legacy, resolve, reject))
      expect((taken as { tracks: { kind: string }[] }).tracks.map(({ kind }) => kind)).toEqual(['video'])
    }
    expect(getUserMedia).not.toHaveBeenCalled()
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
    copy.stop()
    await expect(copy.applyConstraints({ width: 320 })).rejects.toMatchObject({ name: 'InvalidStateError' })
  })

  it('keeps its tracks dressed however they are asked: by the prototype, and in the copy of a stream', async () => {
    const { mediaDevices, Track, scope } = setUp()
    const asked = await mediaDevices.getUserMedia({ video: { deviceId: OURS }, audio: { deviceId: VOICE } })
    const copy = asked.clone() as unknown as { tracks: MediaStreamTrack[] }
    expect(copy.tracks.map(({ label }) => label)).toEqual([MICROPHONE_LABEL, CAMERA_LABEL])
    const [track] = asked.getVideoTracks()
    expect(scope.MediaStreamTrack.prototype.getSettings.call(track!).deviceId).toBe(OURS)
    expect(Object.keys(track!).filter((key) => key in Track.prototype)).toEqual([])
    const real = new Track('video')
    expect(scope.MediaStreamTrack.prototype.getSettings.call(real as unknown as MediaStreamTrack)).toBe('the browser’s getSettings')
    const devices = await scope.MediaDevices.prototype.enumerateDevices.call(mediaDevices)
    expect(devices.map(({ label }) => label)).toContain(CAMERA_LABEL)
  })

  it('leaves name, length, text and flags of what it wraps as they were', () => {
    const { mediaDevices, before, Track } = setUp()
    const { name, length } = before.getUserMedia
    expect([mediaDevices.getUserMedia.name, mediaDevices.getUserMedia.length, mediaDevices.getUserMedia.toString()]).toEqual([
      name,
      length,
      before.getUserMedia.toString(),
    ])
    const { writable, enumerable, configurable } = Object.getOwnPropertyDescriptor(Track.prototype, 'getSettings')!
    expect({ writable, enumerable, configurable }).toEqual({
      writable: before.flags.writable,
      enumerable: before.flags.enumerable,
      configurable: before.flags.configurable,
    })
    expect(Object.keys(mediaDevices)).toEqual(['dispatchEvent'])
  })

  it('is laid round a page once, however often it is loaded', async () => {
    const { mediaDevices, door, scope } = setUp()
    installShim(scope, door as unknown as DeviceDoor)
    expect((await mediaDevices.enumerateDevices()).filter(({ label }) => label === CAMERA_LABEL)).toHaveLength(1)
  })

  it('refuses a page of an opaque origin what it has no real device for', async () => {
    class Devices {
      getUserMedia() {
        return lacksAll()
      }
    }
    const mediaDevices = new Devices()
    installRefusal({ MediaDevices: Devices, navigator: { mediaDevices } } as unknown as MediaScope)
    await expect(mediaDevices.getUserMedia()).rejects.toMatchObject({ name: 'SecurityError' })
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
