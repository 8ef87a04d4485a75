// In a meeting page's own world: makes our camera and microphone two of its devices.
import { announceDevices, installRefusal, installShim, type PageRights } from '../webcam/driver/shim.ts'
import { FIRST_FORMAT, NO_IDS, type DeviceDoor, type DeviceIds, type DeviceKind } from '../webcam/driver/device-door.ts'
import type { PictureFormat } from '../webcam/driver/constraints.ts'
import { PageLine } from './crossing.ts'

/** A page that asks for its devices before the extension has answered waits this long at most. */
const LONGEST_WAIT_MS = 1500

/** What the page may do by its permissions policy and by what the person allowed it, so that it hears why it is refused. The bridge judges for itself. */
const pageRights: PageRights = {
  mayUse: async (kind) => isInPolicy(kind) && (await permissionFor(kind)) !== 'denied',
  maySeeNames: async (kind) => (await permissionFor(kind)) === 'granted',
}

function isInPolicy(kind: DeviceKind): boolean {
  const { featurePolicy } = document as Document & { featurePolicy?: { allowsFeature(name: string): boolean } }
  return featurePolicy?.allowsFeature(kind) ?? true
}

async function permissionFor(kind: DeviceKind): Promise<PermissionState> {
  return (await navigator.permissions.query({ name: kind as PermissionName })).state
}

/** Something that becomes so once, or never: who waits goes on after a while, and what comes late is told of. */
class Waited {
  #resolve: () => void = () => undefined
  readonly #done = new Promise<void>((resolve) => (this.#resolve = resolve))
  #asked: Promise<void> | null = null
  isLate = false

  wait(ask: () => void): Promise<void> {
    return (this.#asked ??= new Promise((resolve) => {
      const timer = setTimeout(() => {
        this.isLate = true
        resolve()
      }, LONGEST_WAIT_MS)
      void this.#done.then(() => {
        clearTimeout(timer)
        resolve()
      })
      ask()
    }))
  }

  done(): void {
    this.#resolve()
  }
}

const { mediaDevices } = navigator

if (mediaDevices !== undefined && 'MediaStreamTrackGenerator' in window) {
  if (self.origin === 'null') installRefusal(window)
  else {
    let ids: DeviceIds | null = null
    let isPresent = false
    const greeted = new Waited()
    const identified = new Waited()
    const line = new PageLine((told) => {
      isPresent = told.isPresent
      ids = told.ids ?? ids
      greeted.done()
      if (ids !== null || !isPresent) identified.done()
      const isLate = greeted.isLate || identified.isLate
      greeted.isLate = identified.isLate = false
      if (isLate) announceDevices(mediaDevices)
    })
    const door: DeviceDoor = {
      get ready() {
        return greeted.wait(() => line.ask({ type: 'hello' }))
      },
      identify: () => (ids === null ? identified.wait(() => line.ask({ type: 'identify' })) : Promise.resolve()),
      kinds: ['camera', 'microphone'],
      get isPresent() {
        return isPresent
      },
      get ids() {
        return ids ?? NO_IDS
      },
      get source() {
        return (line.ask({ type: 'source' }).answer as PictureFormat | null | undefined) ?? FIRST_FORMAT
      },
      openCamera: (wish) => trackOf(line.ask({ type: 'camera', wish }).element),
      openMicrophone: (wish) => trackOf(line.ask({ type: 'microphone', wish }).element),
      changeCamera: (track, wish) => void line.ask({ type: 'changeCamera', wish }, track),
      changeMicrophone: (track, wish) => void line.ask({ type: 'changeMicrophone', wish }, track),
    }
    installShim(window, door, pageRights)
  }
}

function trackOf(element: HTMLVideoElement): MediaStreamTrack {
  const track = (element.srcObject as MediaStream | null)?.getTracks()[0]
  if (track === undefined) throw new DOMException('The device could not be opened', 'NotReadableError')
  return track
}
