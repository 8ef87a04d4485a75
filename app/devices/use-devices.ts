import { computed, onScopeDispose, shallowRef } from 'vue'
import { microphonesOf } from '../../engine/live/microphone-manager.ts'

/** What came of asking for permission. */
export type Asked = 'granted' | 'refused' | 'none'

/** The cameras and microphones that the browser lists. Names come once the browser may use one. */
export function useDevices(mediaDevices: MediaDevices | undefined = navigator.mediaDevices) {
  const cameras = shallowRef<readonly MediaDeviceInfo[]>([])
  const microphones = shallowRef<readonly MediaDeviceInfo[]>([])

  async function list(): Promise<void> {
    if (mediaDevices === undefined) return
    const devices = await mediaDevices.enumerateDevices()
    cameras.value = devices.filter((device) => device.kind === 'videoinput')
    microphones.value = microphonesOf(devices)
  }

  /** Asks the browser for what it may use; a refusal shows at the device itself. */
  async function ask(wish: MediaStreamConstraints = { video: true }): Promise<Asked> {
    try {
      const stream = await mediaDevices?.getUserMedia(wish)
      for (const track of stream?.getTracks() ?? []) track.stop()
      await list()
      return 'granted'
    } catch (error) {
      if (!(error instanceof DOMException)) throw error
      await list()
      return error.name === 'NotFoundError' ? 'none' : 'refused'
    }
  }

  /** Asks for camera and microphone at once, so that the browser asks the presenter once; for each alone where the other is missing. */
  async function askAll(): Promise<Asked> {
    const both = await ask({ video: true, audio: true })
    if (both !== 'none') return both
    const each = [await ask({ video: true }), await ask({ audio: true })]
    return each.find((asked) => asked === 'granted') ?? each.find((asked) => asked === 'refused') ?? 'none'
  }

  void list()
  mediaDevices?.addEventListener('devicechange', list)
  onScopeDispose(() => mediaDevices?.removeEventListener('devicechange', list))

  const isNameless = (device: MediaDeviceInfo) => device.deviceId === '' || device.label === ''
  return {
    cameras: computed(() => cameras.value.filter((camera) => camera.deviceId !== '')),
    microphones: computed(() => microphones.value.filter((microphone) => microphone.deviceId !== '')),
    needsPermission: computed(() => cameras.value.some(isNameless)),
    /** Whether there is any device, named or not. */
    hasAny: computed(() => cameras.value.length + microphones.value.length > 0),
    ask,
    askAll,
  }
}
