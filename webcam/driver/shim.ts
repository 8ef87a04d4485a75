// Wraps navigator.mediaDevices so that the virtual camera is one of the page's cameras.
import { CAMERA_LABEL, type VirtualCamera } from './virtual-camera.ts'
import { wishOf } from './constraints.ts'

/** Puts `camera` among the cameras of `mediaDevices`. Everything else is passed on untouched. */
export function installShim(mediaDevices: MediaDevices, camera: VirtualCamera): void {
  const nativeEnumerate = mediaDevices.enumerateDevices.bind(mediaDevices)
  const nativeGetUserMedia = mediaDevices.getUserMedia.bind(mediaDevices)

  mediaDevices.enumerateDevices = async () => {
    const devices = await nativeEnumerate()
    return camera.isPresent ? [...devices, deviceInfo(camera)] : devices
  }

  mediaDevices.getUserMedia = async (constraints = {}) => {
    const wish = wishOf(constraints.video, camera.deviceId)
    if (wish === 'ours') return openOurs(constraints)
    try {
      return await nativeGetUserMedia(constraints)
    } catch (error) {
      // A machine without a camera of its own: "any camera" is ours.
      const hasNoCamera = error instanceof DOMException && error.name === 'NotFoundError'
      if (wish === 'any' && hasNoCamera && camera.isPresent) return openOurs(constraints)
      throw error
    }
  }

  async function openOurs(constraints: MediaStreamConstraints): Promise<MediaStream> {
    const video = typeof constraints.video === 'object' ? constraints.video : {}
    const track = camera.open(video)
    if (constraints.audio === undefined || constraints.audio === false) return new MediaStream([track])
    try {
      const sound = await nativeGetUserMedia({ audio: constraints.audio })
      return new MediaStream([track, ...sound.getAudioTracks()])
    } catch (error) {
      track.stop()
      throw error
    }
  }
}

/** Tells the page that its list of cameras has changed. */
export function announceDevices(mediaDevices: MediaDevices): void {
  mediaDevices.dispatchEvent(new Event('devicechange'))
}

function deviceInfo(camera: VirtualCamera): InputDeviceInfo {
  const fields = { deviceId: camera.deviceId, groupId: camera.groupId, kind: 'videoinput' as const, label: CAMERA_LABEL }
  const info = Object.create(InputDeviceInfo.prototype) as InputDeviceInfo
  for (const [name, value] of Object.entries(fields)) Object.defineProperty(info, name, { value, enumerable: true })
  Object.defineProperty(info, 'toJSON', { value: () => ({ ...fields }) })
  Object.defineProperty(info, 'getCapabilities', { value: () => ({ deviceId: camera.deviceId, groupId: camera.groupId }) })
  return info
}
