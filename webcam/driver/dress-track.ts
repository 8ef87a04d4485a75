// Tracks of ours that answer a page as a device's tracks do.
import { ANY_PICTURE, formatFor, pictureWish, unmetConstraint, unmetSound } from './constraints.ts'
import { CAMERA_LABEL, MICROPHONE_LABEL, type DeviceDoor } from './device-door.ts'

/** Held so that a page that asks a stream for its track again gets the dressed one. */
const held = new Set<MediaStreamTrack>()

/** Opens the camera. Throws an OverconstrainedError, as the standard names it. */
export function openDressedCamera(door: DeviceDoor, constraints: MediaTrackConstraints): MediaStreamTrack {
  checkCamera(door, constraints)
  return dressCamera(door, door.openCamera(pictureWish(constraints)), constraints)
}

/** Opens the microphone. Throws an OverconstrainedError, as the standard names it. */
export function openDressedMicrophone(door: DeviceDoor, constraints: MediaTrackConstraints): MediaStreamTrack {
  checkMicrophone(door, constraints)
  return dressMicrophone(door, door.openMicrophone(), constraints)
}

/** Throws for what the camera cannot meet, before anything is opened. */
export function checkCamera(door: DeviceDoor, constraints: MediaTrackConstraints): void {
  refuseUnmet(unmetConstraint(constraints, { deviceId: door.ids.camera, source: door.source }), CAMERA_LABEL)
}

/** Throws for what the microphone cannot meet, before anything is opened. */
export function checkMicrophone(door: DeviceDoor, constraints: MediaTrackConstraints): void {
  refuseUnmet(unmetSound(constraints, door.ids.microphone), MICROPHONE_LABEL)
}

function refuseUnmet(unmet: string | null, label: string): void {
  if (unmet !== null) throw new OverconstrainedError(unmet, `${label} cannot meet the required "${unmet}"`)
}

function dressCamera(door: DeviceDoor, track: MediaStreamTrack, constraints: MediaTrackConstraints): MediaStreamTrack {
  const { camera: deviceId, group: groupId } = door.ids
  let current = constraints
  const settings = () => {
    const { widthPx: width, heightPx: height, frameRate } = formatFor(pictureWish(current), door.source)
    const isScaled = width !== door.source.widthPx || height !== door.source.heightPx
    return { deviceId, groupId, width, height, frameRate, aspectRatio: width / height, resizeMode: isScaled ? 'crop-and-scale' : 'none' }
  }
  const capabilities = () => {
    const { widthPx, heightPx, frameRate } = door.source
    const facts = { width: { min: 1, max: widthPx }, height: { min: 1, max: heightPx }, frameRate: { min: 1, max: frameRate } }
    return { deviceId, groupId, ...facts, facingMode: [], resizeMode: ['none', 'crop-and-scale'] }
  }
  return dress(track, CAMERA_LABEL, {
    getSettings: settings as () => MediaTrackSettings,
    getCapabilities: capabilities as () => MediaTrackCapabilities,
    getConstraints: () => ({ ...current }),
    applyConstraints: async (next = {}) => {
      checkCamera(door, next)
      door.change(track, Object.keys(next).length === 0 ? ANY_PICTURE : pictureWish(next))
      current = next
    },
    clone: () => copyState(track, dressCamera(door, door.openCamera(pictureWish(current)), current)),
  })
}

function dressMicrophone(door: DeviceDoor, track: MediaStreamTrack, constraints: MediaTrackConstraints): MediaStreamTrack {
  const { microphone: deviceId, group: groupId } = door.ids
  let current = constraints
  const facts = { echoCancellation: false, noiseSuppression: false, autoGainControl: false }
  const sound = { deviceId, groupId, sampleRate: 48_000, sampleSize: 16, channelCount: 2, ...facts }
  const offered = { deviceId, groupId, sampleRate: { min: 48_000, max: 48_000 }, channelCount: { min: 1, max: 2 } }
  return dress(track, MICROPHONE_LABEL, {
    getSettings: () => ({ ...sound }),
    getCapabilities: () => ({ ...offered, echoCancellation: [false], noiseSuppression: [false], autoGainControl: [false] }),
    getConstraints: () => ({ ...current }),
    applyConstraints: async (next = {}) => {
      checkMicrophone(door, next)
      current = next
    },
    clone: () => copyState(track, dressMicrophone(door, door.openMicrophone(), current)),
  })
}

/** A copy of a stopped or muted track is stopped or muted too. */
function copyState(from: MediaStreamTrack, copy: MediaStreamTrack): MediaStreamTrack {
  copy.enabled = from.enabled
  if (from.readyState === 'ended') copy.stop()
  return copy
}

function dress(track: MediaStreamTrack, label: string, answers: Partial<MediaStreamTrack>): MediaStreamTrack {
  for (const other of held) if (other.readyState === 'ended') held.delete(other)
  held.add(track)
  for (const [name, value] of Object.entries(answers)) Object.defineProperty(track, name, { value, configurable: true })
  Object.defineProperty(track, 'label', { get: () => label, configurable: true })
  return track
}
