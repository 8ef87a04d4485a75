// A meeting that only uses the standard calls of W3C Media Capture and Streams.
import '@fontsource-variable/instrument-sans'
import './meeting.css'
import './figures-window.ts'
import { FrameFigures } from './frame-figures.ts'

const element = <T extends HTMLElement>(id: string) => document.getElementById(id) as T
const cameraSelect = element<HTMLSelectElement>('camera')
const joinButton = element<HTMLButtonElement>('join')
const leaveButton = element<HTMLButtonElement>('leave')
const sizeSelect = element<HTMLSelectElement>('size')
const status = element('status')
const selfVideo = element<HTMLVideoElement>('self')
const othersVideo = element<HTMLVideoElement>('others')

let stream: MediaStream | null = null
let figures: FrameFigures | null = null

async function listCameras(): Promise<void> {
  const chosen = cameraSelect.value
  const devices = await navigator.mediaDevices.enumerateDevices()
  const cameras = devices.filter((device) => device.kind === 'videoinput')
  cameraSelect.replaceChildren(...cameras.map((camera, index) => new Option(camera.label === '' ? `Camera ${index + 1}` : camera.label, camera.deviceId)))
  if (cameras.length === 0) cameraSelect.append(new Option('No camera found', ''))
  if (cameras.some((camera) => camera.deviceId === chosen)) cameraSelect.value = chosen
  joinButton.disabled = stream !== null || cameras.length === 0
}

async function join(): Promise<void> {
  joinButton.disabled = true
  try {
    stream = await navigator.mediaDevices.getUserMedia({ video: { deviceId: { exact: cameraSelect.value } } })
  } catch (error) {
    status.textContent = `The camera did not open: ${error instanceof Error ? error.name : String(error)}`
    joinButton.disabled = false
    return
  }
  const track = stream.getVideoTracks()[0]!
  selfVideo.srcObject = stream
  othersVideo.srcObject = new MediaStream([track.clone()])
  figures = new FrameFigures(track.clone() as MediaStreamVideoTrack)
  status.textContent = `In the meeting with ${track.label}`
  leaveButton.disabled = false
  void listCameras()
}

function leave(): void {
  figures?.stop()
  figures = null
  for (const video of [selfVideo, othersVideo]) {
    for (const track of (video.srcObject as MediaStream | null)?.getTracks() ?? []) track.stop()
    video.srcObject = null
  }
  stream = null
  leaveButton.disabled = true
  status.textContent = 'You left. Choose a camera and join.'
  void listCameras()
}

function showFigures(): void {
  const now = figures?.read()
  element('figure-size').textContent = now?.widthPx ? `${now.widthPx} × ${now.heightPx}` : '–'
  element('figure-fps').textContent = now ? now.fps.toFixed(1) : '–'
  element('figure-latency').textContent = now?.latencyMedianMs == null ? '–' : `${Math.round(now.latencyMedianMs)} ms`
  element('figure-lost').textContent = now?.hasMarks ? String(now.lost) : '–'
  element('figure-repeated').textContent = now?.hasMarks ? String(now.repeated) : '–'
}

joinButton.addEventListener('click', () => void join())
leaveButton.addEventListener('click', leave)
sizeSelect.addEventListener('change', () => document.body.classList.toggle('tile', sizeSelect.value === 'tile'))
navigator.mediaDevices.addEventListener('devicechange', () => void listCameras())
setInterval(showFigures, 500)
void listCameras()

window.meetingFigures = {
  read: () => figures?.read(),
  reset: () => figures?.reset(),
  numbers: () => figures?.numbers ?? [],
}
