// In a meeting page's own world: makes our camera and microphone two of its devices.
import { installShim, type PageRights } from '../webcam/driver/shim.ts'
import type { PictureFormat } from '../webcam/driver/constraints.ts'
import type { DeviceDoor, DeviceIds, DeviceKind } from '../webcam/driver/device-door.ts'
import { ask, TELL, type Told } from './crossing.ts'

/** A page that asks for its devices before the extension has answered waits this long at most. */
const LONGEST_WAIT_MS = 1500

/** What the page may do by its permissions policy and by what the person allowed it. */
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

const { mediaDevices } = navigator

if (mediaDevices !== undefined && 'MediaStreamTrackGenerator' in window && location.origin !== 'null') {
  let ids: DeviceIds | null = null
  let ready: Promise<void> | null = null
  /** Asks for the ids when the page first uses its devices. */
  const learn = () =>
    new Promise<void>((resolve) => {
      document.addEventListener(TELL, (event) => {
        const element = (event as MouseEvent).relatedTarget
        if (!(element instanceof HTMLVideoElement) || ids !== null) return
        ids = (JSON.parse(element.dataset['told'] ?? 'null') as Told).ids
        resolve()
      })
      setTimeout(resolve, LONGEST_WAIT_MS)
      ask({ type: 'hello' })
    })

  const door: DeviceDoor = {
    get ready() {
      return (ready ??= learn())
    },
    kinds: ['camera', 'microphone'],
    get isPresent() {
      return ids !== null
    },
    get ids() {
      return ids ?? { camera: '', microphone: '', group: '' }
    },
    get source() {
      return ask({ type: 'source' }).answer as PictureFormat
    },
    openCamera: (wish) => trackOf(ask({ type: 'camera', wish }).element),
    openMicrophone: () => trackOf(ask({ type: 'microphone' }).element),
    change: (track, wish) => void ask({ type: 'change', wish }, track),
  }
  installShim(mediaDevices, door, pageRights)
}

function trackOf(element: HTMLVideoElement): MediaStreamTrack {
  const track = (element.srcObject as MediaStream | null)?.getTracks()[0]
  if (track === undefined) throw new DOMException('The device could not be opened', 'NotReadableError')
  return track
}
