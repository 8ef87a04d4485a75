// Wraps navigator.mediaDevices so that the virtual camera and microphone are among the page's devices.
import { wishOf, type Wish } from './constraints.ts'
import { CAMERA_LABEL, MICROPHONE_LABEL, type DeviceDoor, type DeviceKind } from './device-door.ts'
import { checkCamera, checkMicrophone, openDressedCamera, openDressedMicrophone } from './dress-track.ts'

/** Marks a page whose devices are wrapped already. */
const MARK = Symbol.for('green-room.devices')

/** What the shim may know of the page; tests give their own. */
export interface PageRights {
  /** Whether the page has the right to use such devices at all (permissions policy, and not blocked by the person). */
  readonly mayUse: (kind: DeviceKind) => Promise<boolean>
  /** Whether the page may see the names of such devices. */
  readonly maySeeNames: (kind: DeviceKind) => Promise<boolean>
}

/** For a page that brings the devices in by itself: it may use them and see their names. */
export const openRights: PageRights = { mayUse: async () => true, maySeeNames: async () => true }

const parts = { camera: 'video', microphone: 'audio' } as const
const infoKinds = { camera: 'videoinput', microphone: 'audioinput' } as const
const labels = { camera: CAMERA_LABEL, microphone: MICROPHONE_LABEL }
const kindsOf = ['microphone', 'camera'] as const

/** Puts the door's devices among those of `mediaDevices`. Everything else is passed on untouched. */
export function installShim(mediaDevices: MediaDevices, door: DeviceDoor, rights: PageRights = openRights): void {
  if (MARK in mediaDevices) return
  Object.defineProperty(mediaDevices, MARK, { value: true })
  const nativeEnumerate = mediaDevices.enumerateDevices.bind(mediaDevices)
  const nativeGetUserMedia = mediaDevices.getUserMedia.bind(mediaDevices)
  /** Kinds that this page has opened: their names are no secret to it any more. */
  const opened = new Set<DeviceKind>()

  mediaDevices.enumerateDevices = async () => {
    const [devices] = await Promise.all([nativeEnumerate(), door.ready])
    if (!door.isPresent) return devices
    const list = [...devices]
    for (const kind of door.kinds) {
      const ofKind = devices.filter((device) => device.kind === infoKinds[kind])
      const isNamed = opened.has(kind) || ofKind.some(({ label }) => label !== '') || (await rights.maySeeNames(kind))
      if (!(await rights.mayUse(kind))) continue
      // Before a page has permission it learns only that there is a device of the kind.
      const info = isNamed ? deviceInfo(door, kind) : ofKind.length === 0 ? namelessInfo(kind) : null
      if (info !== null) list.splice(placeOf(list, kind), 0, info)
    }
    return list
  }

  mediaDevices.getUserMedia = async (constraints = {}) => {
    if (constraints.video || constraints.audio) await door.ready
    const wishes = { camera: wishFor('camera', constraints), microphone: wishFor('microphone', constraints) }
    const ours = new Set(kindsOf.filter((kind) => wishes[kind] === 'ours'))
    for (const kind of ours) await checkRight(kind, constraints)
    const streams = await openOthers(constraints, wishes, ours)
    const tracks = streams?.getTracks() ?? []
    try {
      for (const kind of ours) tracks.push(openOurs(kind, constraints))
    } catch (error) {
      for (const track of tracks) track.stop()
      throw error
    }
    return ours.size === 0 ? streams! : new MediaStream(tracks)
  }

  const wishFor = (kind: DeviceKind, constraints: MediaStreamConstraints): Wish =>
    door.kinds.includes(kind) ? wishOf(constraints[parts[kind]], door.ids[kind]) : wishOf(constraints[parts[kind]], '')

  /** The real devices that are wanted; a kind that the machine lacks, and that any device would do for, becomes ours. */
  async function openOthers(constraints: MediaStreamConstraints, wishes: Record<DeviceKind, Wish>, ours: Set<DeviceKind>): Promise<MediaStream | null> {
    const rest = kindsOf.filter((kind) => wishes[kind] !== 'none' && !ours.has(kind))
    if (rest.length === 0 && ours.size > 0) return null
    try {
      return await nativeGetUserMedia(ours.size === 0 ? constraints : Object.fromEntries(rest.map((kind) => [parts[kind], constraints[parts[kind]]])))
    } catch (error) {
      const lacking = error instanceof DOMException && error.name === 'NotFoundError' ? await lackingOf(rest, wishes) : []
      if (lacking.length === 0) throw error
      for (const kind of lacking) {
        await checkRight(kind, constraints)
        ours.add(kind)
      }
      return openOthers(constraints, wishes, ours)
    }
  }

  /** Kinds of which the machine has no device of its own. */
  async function lackingOf(rest: readonly DeviceKind[], wishes: Record<DeviceKind, Wish>): Promise<DeviceKind[]> {
    if (!door.isPresent) return []
    const real = await nativeEnumerate()
    return rest.filter((kind) => wishes[kind] === 'any' && door.kinds.includes(kind) && real.every((device) => device.kind !== infoKinds[kind]))
  }

  /** Throws what the standard says for a page that has no right to the device, or asks what it cannot give. */
  async function checkRight(kind: DeviceKind, constraints: MediaStreamConstraints): Promise<void> {
    if (!(await rights.mayUse(kind))) throw new DOMException('Permission denied', 'NotAllowedError')
    if (kind === 'camera') checkCamera(door, setOf(constraints.video))
    else checkMicrophone(door, setOf(constraints.audio))
  }

  function openOurs(kind: DeviceKind, constraints: MediaStreamConstraints): MediaStreamTrack {
    const isFirst = !opened.has(kind)
    opened.add(kind)
    const track = kind === 'camera' ? openDressedCamera(door, setOf(constraints.video)) : openDressedMicrophone(door, setOf(constraints.audio))
    if (isFirst) announceDevices(mediaDevices)
    return track
  }
}

/** Tells the page that its list of devices has changed. */
export function announceDevices(mediaDevices: MediaDevices): void {
  mediaDevices.dispatchEvent(new Event('devicechange'))
}

const setOf = (part: boolean | MediaTrackConstraints | undefined): MediaTrackConstraints => (typeof part === 'object' ? part : {})

/** After the others of its kind; without any, where browsers list the kind: microphones first, then cameras. */
function placeOf(list: readonly MediaDeviceInfo[], kind: DeviceKind): number {
  const last = list.findLastIndex((device) => device.kind === infoKinds[kind])
  if (last !== -1 || kind === 'microphone') return last + 1
  return list.findLastIndex((device) => device.kind === infoKinds.microphone) + 1
}

function namelessInfo(kind: DeviceKind): InputDeviceInfo {
  return infoOf({ deviceId: '', groupId: '', kind: infoKinds[kind], label: '' })
}

function deviceInfo(door: DeviceDoor, kind: DeviceKind): InputDeviceInfo {
  return infoOf({ deviceId: door.ids[kind], groupId: door.ids.group, kind: infoKinds[kind], label: labels[kind] })
}

function infoOf(fields: { deviceId: string; groupId: string; kind: MediaDeviceKind; label: string }): InputDeviceInfo {
  const info = Object.create(InputDeviceInfo.prototype) as InputDeviceInfo
  for (const [name, value] of Object.entries(fields)) Object.defineProperty(info, name, { value, enumerable: true })
  Object.defineProperty(info, 'toJSON', { value: () => ({ ...fields }) })
  Object.defineProperty(info, 'getCapabilities', { value: () => ({ deviceId: fields.deviceId, groupId: fields.groupId }) })
  return info
}
