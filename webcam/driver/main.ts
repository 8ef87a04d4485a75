// Loaded by one script tag: <script src="http://STUDIO/webcam/driver.js"></script>
import type { FromMeeting, ToMeeting } from '../signal.ts'
import { WebSocketTransport } from '../transport/websocket-transport.ts'
import { announceDevices, installShim } from './shim.ts'
import { VirtualCamera } from './virtual-camera.ts'

const ID_KEY = 'green-room-camera'

const { mediaDevices } = navigator
const script = document.currentScript as HTMLScriptElement | null
if (mediaDevices !== undefined && script !== null && 'MediaStreamTrackGenerator' in window) {
  const signal = new URL('/signal?role=meeting', script.src)
  signal.protocol = signal.protocol === 'https:' ? 'wss:' : 'ws:'
  const transport = new WebSocketTransport<FromMeeting, ToMeeting>(signal.href)
  const camera = new VirtualCamera(transport, lastingIds(), () => announceDevices(mediaDevices))
  installShim(mediaDevices, camera)
}

/** Ids that differ from site to site and last until site data is cleared, as a device's do. */
function lastingIds(): { deviceId: string; groupId: string } {
  const makeHex = () => [...crypto.getRandomValues(new Uint8Array(32))].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  try {
    const known = JSON.parse(localStorage.getItem(ID_KEY) ?? 'null') as { deviceId: string; groupId: string } | null
    const ids = known ?? { deviceId: makeHex(), groupId: makeHex() }
    localStorage.setItem(ID_KEY, JSON.stringify(ids))
    return ids
  } catch {
    // A page that may not store anything still gets a camera, for as long as it is open.
    return { deviceId: makeHex(), groupId: makeHex() }
  }
}
