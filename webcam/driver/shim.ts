// Makes the virtual camera and microphone two of a page's devices.
import { wishOf, type Wish } from './constraints.ts'
import type { DeviceDoor, DeviceKind } from './device-door.ts'
import { DeviceInfos, INFO_KINDS } from './device-infos.ts'
import { checkCamera, checkMicrophone, DressedTracks } from './dressed-tracks.ts'
import { standardConstraints } from './legacy-constraints.ts'
import type { MediaScope } from './media-scope.ts'
import { wrapMethod } from './wrap.ts'

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
const kindsOf = ['microphone', 'camera'] as const

type Asked = Readonly<Record<DeviceKind, MediaTrackConstraints>>

/** Puts the door's devices among those of a page. Everything that is not theirs is passed on untouched. All of it shares the originals that it stands before. */
// eslint-disable-next-line max-lines-per-function
export function installShim(scope: MediaScope, door: DeviceDoor, rights: PageRights = openRights): void {
  const { mediaDevices } = scope.navigator
  if (MARK in mediaDevices) return
  Object.defineProperty(mediaDevices, MARK, { value: true })
  const nativeEnumerate = scope.MediaDevices.prototype.enumerateDevices.bind(mediaDevices)
  const nativeGetUserMedia = scope.MediaDevices.prototype.getUserMedia.bind(mediaDevices)
  const tracks = new DressedTracks(door)
  const infos = new DeviceInfos(door, scope)
  tracks.install(scope)
  infos.install()
  /** Kinds that this page has opened: their names are no secret to it any more. */
  const opened = new Set<DeviceKind>()

  wrapMethod(scope.MediaDevices.prototype, 'enumerateDevices', (self, _args, native) => (self === mediaDevices ? listDevices() : native()))
  wrapMethod(scope.MediaDevices.prototype, 'getUserMedia', (self, [constraints], native) =>
    self === mediaDevices && isObject(constraints) ? open(constraints, native as () => Promise<MediaStream>) : native(),
  )
  for (const name of ['getUserMedia', 'webkitGetUserMedia'])
    wrapMethod(scope.Navigator?.prototype, name, (self, [constraints, taken, refused], native) =>
      self === scope.navigator && isObject(constraints) && typeof taken === 'function' && typeof refused === 'function'
        ? void mediaDevices.getUserMedia(constraints).then(taken as () => void, refused as () => void)
        : native(),
    )

  async function listDevices(): Promise<MediaDeviceInfo[]> {
    const [devices] = await Promise.all([nativeEnumerate(), door.ready])
    if (!door.isPresent) return devices
    const list = [...devices]
    for (const kind of door.kinds) {
      const ofKind = devices.filter((device) => device.kind === INFO_KINDS[kind])
      if (!(await rights.mayUse(kind))) continue
      const isNamed = opened.has(kind) || ofKind.some(({ label }) => label !== '') || (await rights.maySeeNames(kind))
      if (isNamed) await door.identify()
      // Before a page has permission it learns only that there is a device of the kind.
      const info = isNamed && door.ids[kind] !== '' ? infos.named(kind) : ofKind.length === 0 ? infos.nameless(kind) : null
      if (info !== null) list.splice(placeOf(list, kind), 0, info)
    }
    return list
  }

  async function open(constraints: MediaStreamConstraints, native: () => Promise<MediaStream>): Promise<MediaStream> {
    if (constraints.video || constraints.audio) await door.ready
    const asked = { camera: standardConstraints(constraints.video), microphone: standardConstraints(constraints.audio) }
    const wishFor = (kind: DeviceKind): Wish => wishOf(asked[kind], door.kinds.includes(kind) ? { deviceId: door.ids[kind], groupId: door.ids.group } : NO_IDS)
    const wishes = { camera: wishFor('camera'), microphone: wishFor('microphone') }
    const sets: Asked = { camera: setOf(asked.camera), microphone: setOf(asked.microphone) }
    const ours = new Set(kindsOf.filter((kind) => wishes[kind] === 'ours'))
    for (const kind of ours) await checkRight(kind, sets)
    const stream = ours.size === 0 ? await openReal(constraints, native, wishes, sets, ours) : await openOthers(constraints, wishes, sets, ours)
    if (ours.size === 0) return stream!
    await door.identify()
    const all = stream?.getTracks() ?? []
    try {
      for (const kind of kindsOf) if (ours.has(kind)) all.push(openOurs(kind, sets))
    } catch (error) {
      for (const track of all) track.stop()
      throw error
    }
    return new scope.MediaStream(all)
  }

  /** As the page asked, of the browser itself, with ours for a kind that the machine lacks. */
  async function openReal(
    constraints: MediaStreamConstraints,
    native: () => Promise<MediaStream>,
    wishes: Record<DeviceKind, Wish>,
    sets: Asked,
    ours: Set<DeviceKind>,
  ): Promise<MediaStream | null> {
    try {
      return await native()
    } catch (error) {
      await standIn(error, wishes, sets, ours)
      return openOthers(constraints, wishes, sets, ours)
    }
  }

  /** The real devices that are wanted beside ours; a kind that the machine lacks, and that any device would do for, becomes ours. */
  async function openOthers(
    constraints: MediaStreamConstraints,
    wishes: Record<DeviceKind, Wish>,
    sets: Asked,
    ours: Set<DeviceKind>,
  ): Promise<MediaStream | null> {
    const rest = kindsOf.filter((kind) => wishes[kind] !== 'none' && !ours.has(kind))
    if (rest.length === 0) return null
    try {
      return await nativeGetUserMedia(Object.fromEntries(rest.map((kind) => [parts[kind], constraints[parts[kind]]])))
    } catch (error) {
      await standIn(error, wishes, sets, ours)
      return openOthers(constraints, wishes, sets, ours)
    }
  }

  /** Adds to `ours` the kinds that no device of the machine can serve; throws the browser's error when there is none. */
  async function standIn(error: unknown, wishes: Record<DeviceKind, Wish>, sets: Asked, ours: Set<DeviceKind>): Promise<void> {
    const isLack = error instanceof Error && (error.name === 'NotFoundError' || (error.name === 'OverconstrainedError' && isAboutDevice(error)))
    const real = isLack && door.isPresent ? await nativeEnumerate() : []
    const isLacking = (kind: DeviceKind) => real.every((device) => device.kind !== INFO_KINDS[kind])
    const lacking =
      isLack && door.isPresent ? kindsOf.filter((kind) => wishes[kind] === 'any' && !ours.has(kind) && door.kinds.includes(kind) && isLacking(kind)) : []
    if (lacking.length === 0) throw error
    for (const kind of lacking) {
      await checkRight(kind, sets)
      ours.add(kind)
    }
  }

  /** Throws what the standard says for a page that has no right to the device, or asks what it cannot give. */
  async function checkRight(kind: DeviceKind, sets: Asked): Promise<void> {
    if (!(await rights.mayUse(kind))) throw new DOMException('Permission denied', 'NotAllowedError')
    if (kind === 'camera') checkCamera(door, sets.camera)
    else checkMicrophone(sets.microphone)
  }

  function openOurs(kind: DeviceKind, sets: Asked): MediaStreamTrack {
    const isFirst = !opened.has(kind)
    const track = kind === 'camera' ? tracks.openCamera(sets.camera) : tracks.openMicrophone(sets.microphone)
    opened.add(kind)
    if (isFirst) announceDevices(mediaDevices)
    return track
  }
}

/** For a page of an opaque origin: it has no name that a presenter could trust, so it gets no device of ours. */
export function installRefusal({ MediaDevices, navigator }: MediaScope): void {
  wrapMethod(MediaDevices.prototype, 'getUserMedia', async (self, _args, native) => {
    try {
      return await (native() as Promise<MediaStream>)
    } catch (error) {
      const isLack = error instanceof Error && ['NotFoundError', 'OverconstrainedError'].includes(error.name)
      throw isLack && self === navigator.mediaDevices ? new DOMException('A page without an origin cannot use this device', 'SecurityError') : error
    }
  })
}

/** Tells the page that its list of devices has changed. */
export function announceDevices(mediaDevices: MediaDevices): void {
  mediaDevices.dispatchEvent(new Event('devicechange'))
}

const NO_IDS = { deviceId: '', groupId: '' }
const isObject = (value: unknown): value is MediaStreamConstraints => typeof value === 'object' && value !== null
const isAboutDevice = (error: Error) => ['deviceId', 'groupId'].includes((error as { constraint?: string }).constraint ?? '')
const setOf = (part: boolean | MediaTrackConstraints | undefined): MediaTrackConstraints => (typeof part === 'object' ? part : {})

/** After the others of its kind; without any, where browsers list the kind: microphones first, then cameras. */
function placeOf(list: readonly MediaDeviceInfo[], kind: DeviceKind): number {
  const last = list.findLastIndex((device) => device.kind === INFO_KINDS[kind])
  if (last !== -1 || kind === 'microphone') return last + 1
  return list.findLastIndex((device) => device.kind === INFO_KINDS.microphone) + 1
}
