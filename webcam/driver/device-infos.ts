// Entries of ours in a page's list of devices.
import { CAMERA_LABEL, MICROPHONE_LABEL, type DeviceDoor, type DeviceKind } from './device-door.ts'
import { cameraCapabilities, microphoneCapabilities } from './dressed-tracks.ts'
import type { MediaScope } from './media-scope.ts'
import { wrapGetter, wrapMethod } from './wrap.ts'

export const INFO_KINDS = { camera: 'videoinput', microphone: 'audioinput' } as const
const labels = { camera: CAMERA_LABEL, microphone: MICROPHONE_LABEL }

interface Fields {
  readonly deviceId: string
  readonly kind: MediaDeviceKind
  readonly label: string
  readonly groupId: string
}

interface Entry {
  readonly fields: Fields
  getCapabilities(): object
}

export class DeviceInfos {
  readonly #door: DeviceDoor
  readonly #scope: MediaScope
  readonly #entries = new WeakMap<object, Entry>()

  constructor(door: DeviceDoor, scope: MediaScope) {
    this.#door = door
    this.#scope = scope
  }

  /** Lets the prototypes of a page ask here first. */
  install(): void {
    const { MediaDeviceInfo, InputDeviceInfo } = this.#scope
    for (const name of ['deviceId', 'kind', 'label', 'groupId'] as const)
      wrapGetter(MediaDeviceInfo.prototype, name, (self, _args, native) => this.#entries.get(self)?.fields[name] ?? native())
    wrapMethod(MediaDeviceInfo.prototype, 'toJSON', (self, _args, native) => {
      const entry = this.#entries.get(self)
      return entry === undefined ? native() : { ...entry.fields }
    })
    wrapMethod(InputDeviceInfo.prototype, 'getCapabilities', (self, _args, native) => this.#entries.get(self)?.getCapabilities() ?? native())
  }

  /** An entry that names the device. */
  named(kind: DeviceKind): InputDeviceInfo {
    const { ids, source } = this.#door
    return this.#make(
      { deviceId: ids[kind], kind: INFO_KINDS[kind], label: labels[kind], groupId: ids.group },
      kind === 'camera' ? cameraCapabilities(ids, source) : microphoneCapabilities(ids),
    )
  }

  /** An entry that says only that there is a device of the kind: all that a page without permission sees. */
  nameless(kind: DeviceKind): InputDeviceInfo {
    return this.#make({ deviceId: '', kind: INFO_KINDS[kind], label: '', groupId: '' }, {})
  }

  #make(fields: Fields, capabilities: object): InputDeviceInfo {
    const info = Object.create(this.#scope.InputDeviceInfo.prototype) as InputDeviceInfo
    this.#entries.set(info, { fields, getCapabilities: () => ({ ...capabilities }) })
    return info
  }
}
