// Loaded by one script tag: <script src="http://STUDIO/webcam/driver.js"></script>
import type { FromMeeting, ToMeeting } from '../signal.ts'
import { WebSocketTransport } from '../transport/websocket-transport.ts'
import { FeedDoor, type DeviceDoor, type DeviceIds } from './device-door.ts'
import { announceDevices, installShim } from './shim.ts'
import { makeVoiceWorker } from './make-voice-worker.ts'

const IDS_KEY = 'green-room-devices'
const { mediaDevices } = navigator
const script = document.currentScript as HTMLScriptElement | null

if (mediaDevices !== undefined && script !== null && 'MediaStreamTrackGenerator' in window) {
  const signal = new URL('/signal?role=meeting', script.src)
  signal.protocol = signal.protocol === 'https:' ? 'wss:' : 'ws:'
  const transport = new WebSocketTransport<FromMeeting, ToMeeting>(signal.href)
  const feed = new FeedDoor(transport, { onPresence: () => announceDevices(mediaDevices), makeVoiceWorker })
  const door: DeviceDoor = {
    ready: Promise.resolve(),
    identify: () => Promise.resolve(),
    ids: lastingIds(),
    kinds: ['camera', 'microphone'],
    get isPresent() {
      return feed.isPresent
    },
    get source() {
      return feed.source
    },
    openCamera: (wish) => feed.openCamera(wish),
    openMicrophone: (wish) => feed.openMicrophone(wish),
    changeCamera: (track, wish) => feed.changeCamera(track, wish),
    changeMicrophone: (track, wish) => feed.changeMicrophone(track, wish),
  }
  installShim(window, door)
}

/** Ids that differ from site to site and last until site data is cleared, as a device's do. */
function lastingIds(): DeviceIds {
  const makeHex = () => [...crypto.getRandomValues(new Uint8Array(32))].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  const fresh = () => ({ camera: makeHex(), microphone: makeHex(), group: makeHex() })
  try {
    const ids = (JSON.parse(localStorage.getItem(IDS_KEY) ?? 'null') as DeviceIds | null) ?? fresh()
    localStorage.setItem(IDS_KEY, JSON.stringify(ids))
    return ids
  } catch {
    // A page that may not store anything still gets its devices, for as long as it is open.
    return fresh()
  }
}
