// The devices that a new show begins with: the presenter's own where the browser already tells their names, the stand-ins otherwise.
import { standinDevices, type FirstDevices } from '../../core/show/create.ts'
import { microphonesOf } from '../../engine/live/microphone-manager.ts'

export async function firstDevices(mediaDevices: Pick<MediaDevices, 'enumerateDevices'> | undefined = navigator.mediaDevices): Promise<FirstDevices> {
  const listed = (await mediaDevices?.enumerateDevices()) ?? []
  const isKnown = ({ deviceId, label }: MediaDeviceInfo) => deviceId !== '' && label !== ''
  const camera = listed.filter(({ kind }) => kind === 'videoinput').find(isKnown)
  const microphone = microphonesOf(listed).find(isKnown)
  return {
    camera: camera === undefined ? standinDevices.camera : deviceOf(camera),
    microphone: microphone === undefined ? standinDevices.microphone : deviceOf(microphone),
  }
}

/** How a show remembers a device. */
export const deviceOf = ({ deviceId, label }: MediaDeviceInfo) => ({ type: 'device' as const, deviceId, label: label.slice(0, 200) })
