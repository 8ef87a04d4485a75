// The devices that a new show begins with: the presenter's own where the browser already tells their names, the stand-ins otherwise.
import { standinShowDevices, type ShowDevices } from '../../core/layout/arrange/first-show.ts'

/** The first of each that has a name; above the table is the second camera, where there is one. */
export function firstDevices(cameras: readonly MediaDeviceInfo[], microphones: readonly MediaDeviceInfo[]): ShowDevices {
  const isKnown = ({ deviceId, label }: MediaDeviceInfo) => deviceId !== '' && label !== ''
  const [camera, table] = cameras.filter(isKnown)
  const microphone = microphones.find(isKnown)
  return {
    camera: camera === undefined ? standinShowDevices.camera : deviceOf(camera),
    table: table === undefined ? standinShowDevices.table : deviceOf(table),
    microphone: microphone === undefined ? standinShowDevices.microphone : deviceOf(microphone),
  }
}

/** How a show remembers a device. */
export const deviceOf = ({ deviceId, label }: MediaDeviceInfo) => ({ type: 'device' as const, deviceId, label: label.slice(0, 200) })
