import { computed, onScopeDispose, shallowRef } from 'vue'

/** The cameras that the browser lists. Names come once the browser may use one. */
export function useDevices(mediaDevices: MediaDevices | undefined = navigator.mediaDevices) {
  const cameras = shallowRef<readonly MediaDeviceInfo[]>([])

  async function list(): Promise<void> {
    if (mediaDevices === undefined) return
    const devices = await mediaDevices.enumerateDevices()
    cameras.value = devices.filter((device) => device.kind === 'videoinput')
  }

  /** Asks the browser for its cameras; a refusal shows at the camera itself. */
  async function ask(): Promise<void> {
    try {
      const stream = await mediaDevices?.getUserMedia({ video: true })
      for (const track of stream?.getTracks() ?? []) track.stop()
    } catch (error) {
      if (!(error instanceof DOMException)) throw error
    }
    await list()
  }

  void list()
  mediaDevices?.addEventListener('devicechange', list)
  onScopeDispose(() => mediaDevices?.removeEventListener('devicechange', list))

  return {
    cameras: computed(() => cameras.value.filter((camera) => camera.deviceId !== '')),
    needsPermission: computed(() => cameras.value.some((camera) => camera.deviceId === '' || camera.label === '')),
    ask,
  }
}
