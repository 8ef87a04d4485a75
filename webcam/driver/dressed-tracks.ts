// Tracks of ours answer a page as a device's tracks do, by whichever way it asks.
import { pictureWish, type PictureFormat } from './constraints.ts'
import { CAMERA_LABEL, MICROPHONE_LABEL, type DeviceDoor, type DeviceIds } from './device-door.ts'
import { formatFor, LEAST_FRAME_RATE, resizeModeOf, unmetSetting } from './fitness.ts'
import type { MediaScope } from './media-scope.ts'
import { soundCapabilities, soundSettings, soundWish, unmetSound } from './sound-constraints.ts'
import { photoCapabilities, photoSettings, takePhoto } from './still-photo.ts'
import { wrapGetter, wrapMethod } from './wrap.ts'

interface Dress {
  readonly label: string
  getSettings(): object
  getCapabilities(): object
  getConstraints(): object
  applyConstraints(next: MediaTrackConstraints): void
  clone(): MediaStreamTrack
}

export class DressedTracks {
  readonly #door: DeviceDoor
  readonly #dresses = new WeakMap<MediaStreamTrack, Dress>()
  /** Held so that a page that asks a stream for its track again gets the same object. */
  readonly #held = new Set<MediaStreamTrack>()

  constructor(door: DeviceDoor) {
    this.#door = door
  }

  /** Lets the prototypes of a page ask here first. */
  install({ MediaStream, MediaStreamTrack, ImageCapture }: MediaScope): void {
    const track = MediaStreamTrack.prototype
    for (const name of ['getSettings', 'getCapabilities', 'getConstraints', 'clone'] as const)
      wrapMethod(track, name, (self, _args, native) => this.#dresses.get(self)?.[name]() ?? native())
    wrapGetter(track, 'label', (self, _args, native) => this.#dresses.get(self)?.label ?? native())
    wrapMethod(track, 'applyConstraints', (self, [next], native) => {
      const dress = this.#dresses.get(self)
      return dress === undefined ? native() : applyTo(self, dress, (next as MediaTrackConstraints | null | undefined) ?? {})
    })
    wrapMethod(MediaStream.prototype, 'clone', (self, _args, native) => {
      const tracks = this.#tracksOf(self)
      return tracks.some((each) => this.#dresses.has(each)) ? new MediaStream(tracks.map((each) => each.clone())) : native()
    })
    const photos = ImageCapture?.prototype as (object & { readonly track?: MediaStreamTrack }) | undefined
    const isOurs = (capture: { readonly track?: MediaStreamTrack }) => capture.track !== undefined && this.#dresses.has(capture.track)
    wrapMethod(photos, 'takePhoto', (self, _args, native) => (isOurs(self) ? takePhoto(self as never) : native()))
    const sizeOf = (capture: { readonly track?: MediaStreamTrack }) => capture.track!.getSettings() as { readonly width: number; readonly height: number }
    wrapMethod(photos, 'getPhotoCapabilities', (self, _args, native) => (isOurs(self) ? photoCapabilities(sizeOf(self)) : native()))
    wrapMethod(photos, 'getPhotoSettings', (self, _args, native) => (isOurs(self) ? photoSettings(sizeOf(self)) : native()))
  }

  /** Opens the camera. Throws an OverconstrainedError, as the standard names it. */
  openCamera(constraints: MediaTrackConstraints): MediaStreamTrack {
    checkCamera(this.#door, constraints)
    const track = this.#door.openCamera(pictureWish(constraints))
    let current = constraints
    return this.#dress(track, {
      label: CAMERA_LABEL,
      getSettings: () => cameraSettings(this.#door, current),
      getCapabilities: () => cameraCapabilities(this.#door.ids, this.#door.source),
      getConstraints: () => ({ ...current }),
      applyConstraints: (next) => {
        checkCamera(this.#door, next)
        this.#door.changeCamera(track, pictureWish(next))
        current = next
      },
      clone: () => copyState(track, this.openCamera(current)),
    })
  }

  /** Opens the microphone. Throws an OverconstrainedError, as the standard names it. */
  openMicrophone(constraints: MediaTrackConstraints): MediaStreamTrack {
    checkMicrophone(constraints)
    const track = this.#door.openMicrophone(soundWish(constraints))
    let current = constraints
    return this.#dress(track, {
      label: MICROPHONE_LABEL,
      getSettings: () => ({ ...microphoneIds(this.#door.ids), ...soundSettings(soundWish(current)) }),
      getCapabilities: () => microphoneCapabilities(this.#door.ids),
      getConstraints: () => ({ ...current }),
      applyConstraints: (next) => {
        checkMicrophone(next)
        this.#door.changeMicrophone(track, soundWish(next))
        current = next
      },
      clone: () => copyState(track, this.openMicrophone(current)),
    })
  }

  #dress(track: MediaStreamTrack, dress: Dress): MediaStreamTrack {
    for (const other of this.#held) if (other.readyState === 'ended') this.#held.delete(other)
    this.#held.add(track)
    this.#dresses.set(track, dress)
    return track
  }

  #tracksOf(stream: MediaStream): readonly MediaStreamTrack[] {
    try {
      return stream.getTracks()
    } catch {
      // Not a stream: the browser's own method says so.
      return []
    }
  }
}

/** Throws for what the camera cannot meet, before anything is opened. */
export function checkCamera(door: DeviceDoor, constraints: MediaTrackConstraints): void {
  const { facingMode } = constraints
  const needsFacing = typeof facingMode === 'object' && !Array.isArray(facingMode) && facingMode.exact !== undefined
  refuseUnmet(unmetSetting(pictureWish(constraints), door.source) ?? (needsFacing ? 'facingMode' : null), CAMERA_LABEL)
}

/** Throws for what the microphone cannot meet, before anything is opened. */
export function checkMicrophone(constraints: MediaTrackConstraints): void {
  refuseUnmet(unmetSound(constraints), MICROPHONE_LABEL)
}

function refuseUnmet(unmet: string | null, label: string): void {
  if (unmet !== null) throw new OverconstrainedError(unmet, `${label} cannot meet the required "${unmet}"`)
}

function cameraSettings({ ids, source }: DeviceDoor, constraints: MediaTrackConstraints): object {
  const format = formatFor(pictureWish(constraints), source)
  const { widthPx: width, heightPx: height, frameRate } = format
  return { deviceId: ids.camera, groupId: ids.group, width, height, frameRate, aspectRatio: width / height, resizeMode: resizeModeOf(format, source) }
}

/** What a page may ask of the camera. */
export function cameraCapabilities({ camera: deviceId, group: groupId }: DeviceIds, { widthPx, heightPx, frameRate }: PictureFormat): object {
  return {
    deviceId,
    groupId,
    width: { min: 1, max: widthPx },
    height: { min: 1, max: heightPx },
    aspectRatio: { min: 1 / heightPx, max: widthPx },
    frameRate: { min: LEAST_FRAME_RATE, max: frameRate },
    facingMode: [],
    resizeMode: ['none', 'crop-and-scale'],
  }
}

const microphoneIds = ({ microphone: deviceId, group: groupId }: DeviceIds) => ({ deviceId, groupId })

/** What a page may ask of the microphone. */
export function microphoneCapabilities(ids: DeviceIds): object {
  return { ...microphoneIds(ids), ...soundCapabilities() }
}

/** W3C Media Capture and Streams §5: a track that has ended takes no constraints any more. */
async function applyTo(track: MediaStreamTrack, dress: Dress, next: MediaTrackConstraints): Promise<void> {
  if (track.readyState === 'ended') throw new DOMException('The track has ended', 'InvalidStateError')
  dress.applyConstraints(next)
}

/** A copy of a stopped or muted track is stopped or muted too. */
function copyState(from: MediaStreamTrack, copy: MediaStreamTrack): MediaStreamTrack {
  copy.enabled = from.enabled
  if (from.readyState === 'ended') copy.stop()
  return copy
}
