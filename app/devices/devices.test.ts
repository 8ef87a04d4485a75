import { describe, expect, it } from 'vitest'
import { standinShowDevices } from '../../core/layout/arrange/first-show.ts'
import { formatsOf } from './camera-formats.ts'
import { firstDevices } from './first-devices.ts'
import { RateWatch } from './rate-watch.ts'

const info = (kind: MediaDeviceKind, deviceId: string, label: string) => ({ kind, deviceId, label, groupId: '' }) as MediaDeviceInfo
const present = { widthPx: 1280, heightPx: 720, frameRate: 30 }

describe('the devices of a new show', () => {
  const [builtIn, usb, desk] = [info('videoinput', 'c1', 'Built-in'), info('videoinput', 'c2', 'USB'), info('audioinput', 'm1', 'Desk')]
  const nameless = info('videoinput', '', '')

  it('are the presenter’s own, each by its own name, where they are known', () => {
    expect(firstDevices([builtIn, usb], [desk])).toEqual({
      camera: { type: 'device', deviceId: 'c1', label: 'Built-in' },
      table: { type: 'device', deviceId: 'c2', label: 'USB' },
      microphone: { type: 'device', deviceId: 'm1', label: 'Desk' },
    })
  })

  it('are the stand-ins where there are none, or the browser does not tell yet', () => {
    expect(firstDevices([], [])).toEqual(standinShowDevices)
    expect(firstDevices([nameless], [info('audioinput', '', '')])).toEqual(standinShowDevices)
  })

  it('are found one by one', () => {
    expect(firstDevices([nameless, builtIn], [])).toEqual({ ...standinShowDevices, camera: { type: 'device', deviceId: 'c1', label: 'Built-in' } })
  })
})

describe('the formats of a camera', () => {
  it('are those that it says it can give', () => {
    const small = formatsOf({ widthPx: 1280, heightPx: 720, frameRate: 30 }, present)
    expect(small.map(({ widthPx, frameRate }) => [widthPx, frameRate])).toEqual([
      [1280, 30],
      [1280, 15],
      [640, 30],
      [640, 15],
    ])
    const large = formatsOf({ widthPx: 3840, heightPx: 2160, frameRate: 59.94 }, present)
    expect(large).toContainEqual({ widthPx: 3840, heightPx: 2160, frameRate: 60 })
  })

  it('hold the present one even when the camera does not offer it', () => {
    const odd = { widthPx: 1024, heightPx: 768, frameRate: 25 }
    expect(formatsOf(null, odd)[0]).toEqual(odd)
    expect(formatsOf(null, present).filter((format) => format.widthPx === 1280 && format.frameRate === 30)).toHaveLength(1)
  })
})

describe('a computer that cannot keep up', () => {
  const after = (looks: number, look: Parameters<RateWatch['note']>[0]) => {
    const watch = new RateWatch()
    let said = false
    for (let i = 0; i < looks; i += 1) said = watch.note(look)
    return said
  }

  it('is told after four seconds of too few pictures, or of pictures that take too long to make', () => {
    expect(after(7, { wantedFps: 60, arrivingFps: 40, frameMs: 5 })).toBe(false)
    expect(after(8, { wantedFps: 60, arrivingFps: 40, frameMs: 5 })).toBe(true)
    expect(after(8, { wantedFps: 60, arrivingFps: 60, frameMs: 17 })).toBe(true)
  })

  it('is not suspected at thirty a second, before the first picture, or by one bad moment', () => {
    expect(after(100, { wantedFps: 30, arrivingFps: 10, frameMs: 50 })).toBe(false)
    expect(after(100, { wantedFps: 60, arrivingFps: 0, frameMs: 5 })).toBe(false)
    const watch = new RateWatch()
    for (let i = 0; i < 7; i += 1) watch.note({ wantedFps: 60, arrivingFps: 30, frameMs: 5 })
    watch.note({ wantedFps: 60, arrivingFps: 60, frameMs: 5 })
    expect(watch.note({ wantedFps: 60, arrivingFps: 30, frameMs: 5 })).toBe(false)
  })
})
