// The cameras and microphones that can be chosen, as a list: the presenter's own first, then the stand-ins. One that is not there now stays in it under its name.
import { useI18n } from 'vue-i18n'
import { standinCameras, type CameraInput, type Microphone } from '../../core/show/show.ts'
import type { SelectOption } from '../base/SelectMenu.vue'
import { deviceOf } from './first-devices.ts'
import type { useDevices } from './use-devices.ts'

type CameraDevice = CameraInput['device']
type MicrophoneDevice = Microphone['device']

const STANDIN = 'standin:'

export function useDeviceChoice({ cameras, microphones }: Pick<ReturnType<typeof useDevices>, 'cameras' | 'microphones'>) {
  const { t } = useI18n()

  /** What stands for a device in the lists. */
  function valueOf(device: CameraDevice | MicrophoneDevice): string {
    if (device.type === 'device') return device.deviceId
    return 'standin' in device ? `${STANDIN}${device.standin}` : device.type
  }

  function gone(device: CameraDevice | MicrophoneDevice, listed: readonly MediaDeviceInfo[], missing: string): SelectOption<string>[] {
    const isGone = device.type === 'device' && !listed.some(({ deviceId }) => deviceId === device.deviceId)
    return isGone ? [{ value: device.deviceId, label: device.label || missing, detail: missing }] : []
  }

  function cameraOptions(chosen: CameraDevice): SelectOption<string>[] {
    return [
      ...gone(chosen, cameras.value, t('camera.states.missing')),
      ...cameras.value.map(({ deviceId, label }) => ({ value: deviceId, label: label || t('build.addCamera') })),
      ...standinCameras.map((name) => ({ value: `${STANDIN}${name}`, label: t('camera.standin', { what: t(`standins.${name}`) }) })),
    ]
  }

  function microphoneOptions(chosen: MicrophoneDevice): SelectOption<string>[] {
    return [
      ...gone(chosen, microphones.value, t('voice.states.missing')),
      ...microphones.value.map(({ deviceId, label }) => ({ value: deviceId, label: label || t('devices.microphone') })),
      { value: 'standin', label: t('devices.standinMicrophone') },
      { value: 'none', label: t('devices.noMicrophone') },
    ]
  }

  /** Null for a device that is not there. */
  function cameraFor(value: string): CameraDevice | null {
    const standin = standinCameras.find((name) => `${STANDIN}${name}` === value)
    if (standin !== undefined) return { type: 'standin', standin }
    const found = cameras.value.find(({ deviceId }) => deviceId === value)
    return found === undefined ? null : deviceOf(found)
  }

  /** Null for a device that is not there. */
  function microphoneFor(value: string): MicrophoneDevice | null {
    if (value === 'standin' || value === 'none') return { type: value }
    const found = microphones.value.find(({ deviceId }) => deviceId === value)
    return found === undefined ? null : deviceOf(found)
  }

  return { valueOf, cameraOptions, microphoneOptions, cameraFor, microphoneFor }
}
