import { describe, expect, it, vi } from 'vitest'
import { withStartBitrate } from '../host/sdp.ts'
import { unmetConstraint, wishOf } from './constraints.ts'
import { installShim } from './shim.ts'
import { CAMERA_LABEL, type VirtualCamera } from './virtual-camera.ts'

const OURS = 'our-id'
const facts = { deviceId: OURS, groupId: 'g', widthPx: 1280, heightPx: 720, frameRate: 30 }

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
    [{ width: { exact: 640 } }, 'width'],
    [{ height: { min: 1080 } }, 'height'],
    [{ frameRate: { min: 60 } }, 'frameRate'],
    [{ frameRate: { max: 10 } }, 'frameRate'],
    [{ aspectRatio: { exact: 1 } }, 'aspectRatio'],
    [{ facingMode: { exact: 'environment' } }, 'facingMode'],
    [{ facingMode: 'user' }, null],
    [{ deviceId: { exact: 'another' } }, 'deviceId'],
  ] as const)('%j fails on %s', (constraints, name) => expect(unmetConstraint(constraints as MediaTrackConstraints, facts)).toBe(name))
})

describe('the shim', () => {
  class FakeInfo {}
  const track = { kind: 'video', stop: vi.fn() }

  function setUp({ isPresent = true, native = async () => 'native stream' as unknown as MediaStream } = {}) {
    vi.stubGlobal('InputDeviceInfo', FakeInfo)
    vi.stubGlobal(
      'MediaStream',
      class {
        constructor(readonly tracks: unknown[]) {}
      },
    )
    const real = [{ kind: 'videoinput', deviceId: 'real' }]
    const getUserMedia = vi.fn(native)
    const mediaDevices = { enumerateDevices: async () => real, getUserMedia } as unknown as MediaDevices
    const camera = { isPresent, deviceId: OURS, groupId: 'g', open: vi.fn(() => track) } as unknown as VirtualCamera
    installShim(mediaDevices, camera)
    return { mediaDevices, camera, getUserMedia }
  }

  it('lists the camera after the real ones, like any other device', async () => {
    const { mediaDevices } = setUp()
    const devices = await mediaDevices.enumerateDevices()
    expect(devices).toHaveLength(2)
    expect(devices[1]).toBeInstanceOf(FakeInfo)
    expect(devices[1]).toMatchObject({ kind: 'videoinput', deviceId: OURS, label: CAMERA_LABEL, groupId: 'g' })
    expect(devices[1]!.toJSON()).toEqual({ kind: 'videoinput', deviceId: OURS, label: CAMERA_LABEL, groupId: 'g' })
  })

  it('lists nothing before a studio was seen, yet opens by a remembered id', async () => {
    const { mediaDevices, camera } = setUp({ isPresent: false })
    expect(await mediaDevices.enumerateDevices()).toHaveLength(1)
    await mediaDevices.getUserMedia({ video: { deviceId: { exact: OURS } } })
    expect(camera.open).toHaveBeenCalled()
  })

  it('passes on every request that is not for it', async () => {
    const { mediaDevices, camera, getUserMedia } = setUp()
    for (const constraints of [{ audio: true }, { video: true }, { video: { deviceId: 'real' } }]) {
      expect(await mediaDevices.getUserMedia(constraints)).toBe('native stream')
      expect(getUserMedia).toHaveBeenLastCalledWith(constraints)
    }
    expect(camera.open).not.toHaveBeenCalled()
  })

  it('is "any camera" on a machine without one, and keeps other refusals as they are', async () => {
    const lacking = setUp({ native: () => Promise.reject(new DOMException('none', 'NotFoundError')) })
    await lacking.mediaDevices.getUserMedia({ video: true })
    expect(lacking.camera.open).toHaveBeenCalled()
    const refusing = setUp({ native: () => Promise.reject(new DOMException('no', 'NotAllowedError')) })
    await expect(refusing.mediaDevices.getUserMedia({ video: true })).rejects.toMatchObject({ name: 'NotAllowedError' })
  })

  it('brings the real microphone along, and stops the picture if that is refused', async () => {
    const sound = { getAudioTracks: () => ['audio track'] } as unknown as MediaStream
    const both = setUp({ native: async () => sound })
    const stream = (await both.mediaDevices.getUserMedia({ video: { deviceId: OURS }, audio: true })) as unknown as { tracks: unknown[] }
    expect(stream.tracks).toEqual([track, 'audio track'])
    const refused = setUp({ native: () => Promise.reject(new DOMException('no', 'NotAllowedError')) })
    await expect(refused.mediaDevices.getUserMedia({ video: { deviceId: OURS }, audio: true })).rejects.toMatchObject({ name: 'NotAllowedError' })
    expect(track.stop).toHaveBeenCalled()
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
