// A meeting that only uses the standard calls of W3C Media Capture and Streams.
import '@fontsource-variable/instrument-sans'
import './meeting.css'
import type { MeetingRecord } from './figures-window.ts'
import { FrameFigures } from './frame-figures.ts'
import { SoundFigures } from './sound-figures.ts'

const element = <T extends HTMLElement>(id: string) => document.getElementById(id) as T
const cameraSelect = element<HTMLSelectElement>('camera')
const microphoneSelect = element<HTMLSelectElement>('microphone')
const joinButton = element<HTMLButtonElement>('join')
const leaveButton = element<HTMLButtonElement>('leave')
const sizeSelect = element<HTMLSelectElement>('size')
const status = element('status')
const selfVideo = element<HTMLVideoElement>('self')
const othersVideo = element<HTMLVideoElement>('others')

/** The value of a choice that is no device. */
const NONE = 'none'

let stream: MediaStream | null = null
let figures: FrameFigures | null = null
let sound: SoundFigures | null = null

async function listDevices(): Promise<void> {
  const devices = await navigator.mediaDevices.enumerateDevices()
  fill(cameraSelect, devices, 'videoinput', 'Camera', 'No camera found')
  fill(microphoneSelect, devices, 'audioinput', 'Microphone', 'No microphone found')
  microphoneSelect.append(new Option('None', NONE))
  joinButton.disabled = stream !== null || cameraSelect.value === NONE
}

function fill(select: HTMLSelectElement, devices: readonly MediaDeviceInfo[], kind: MediaDeviceKind, name: string, none: string): void {
  const chosen = select.value
  const ofKind = devices.filter((device) => device.kind === kind)
  select.replaceChildren(...ofKind.map(({ label, deviceId }, index) => new Option(label === '' ? `${name} ${index + 1}` : label, deviceId)))
  if (ofKind.length === 0) select.append(new Option(none, NONE))
  if (ofKind.some(({ deviceId }) => deviceId === chosen) || (chosen === NONE && select === microphoneSelect)) select.value = chosen
}

/** What is asked for: the chosen device, or any before their names are known. */
const chosen = (select: HTMLSelectElement): MediaTrackConstraints | boolean =>
  select.value === NONE ? false : select.value === '' ? true : { deviceId: { exact: select.value } }

async function join(): Promise<void> {
  joinButton.disabled = true
  try {
    stream = await navigator.mediaDevices.getUserMedia({ video: chosen(cameraSelect), audio: chosen(microphoneSelect) })
  } catch (error) {
    status.textContent = `The devices did not open: ${error instanceof Error ? error.name : String(error)}`
    joinButton.disabled = false
    return
  }
  const track = stream.getVideoTracks()[0]!
  selfVideo.srcObject = stream
  othersVideo.srcObject = new MediaStream([track.clone()])
  const [voice] = stream.getAudioTracks()
  sound = voice === undefined ? null : new SoundFigures(voice.clone())
  figures = new FrameFigures(track.clone() as MediaStreamVideoTrack)
  status.textContent = `In the meeting with ${[track, ...(voice === undefined ? [] : [voice])].map(({ label }) => label).join(' and ')}`
  leaveButton.disabled = false
  void listDevices()
}

function leave(): void {
  figures?.stop()
  figures = null
  sound?.stop()
  sound = null
  for (const video of [selfVideo, othersVideo]) {
    for (const track of (video.srcObject as MediaStream | null)?.getTracks() ?? []) track.stop()
    video.srcObject = null
  }
  stream = null
  leaveButton.disabled = true
  status.textContent = 'You left. Choose a camera and join.'
  void listDevices()
}

function showFigures(): void {
  const now = figures?.read()
  element('figure-size').textContent = now?.widthPx ? `${now.widthPx} × ${now.heightPx}` : '–'
  element('figure-fps').textContent = now ? now.fps.toFixed(1) : '–'
  element('figure-latency').textContent = now?.latencyMedianMs == null ? '–' : `${Math.round(now.latencyMedianMs)} ms`
  element('figure-lost').textContent = now?.hasMarks ? String(now.lost) : '–'
  element('figure-sound').textContent = sound === null ? '–' : `${Math.max(-99, sound.peakDb).toFixed(1)} dBFS`
  element('figure-repeated').textContent = now?.hasMarks ? String(now.repeated) : '–'
}

joinButton.addEventListener('click', () => void join())
leaveButton.addEventListener('click', leave)
sizeSelect.addEventListener('change', () => document.body.classList.toggle('tile', sizeSelect.value === 'tile'))
navigator.mediaDevices.addEventListener('devicechange', () => void listDevices())
setInterval(showFigures, 500)
void listDevices()

async function record(ms: number): Promise<MeetingRecord> {
  const frames: { number: number; atMs: number }[] = []
  const blocks: { atMs: number; frames: number }[] = []
  const samples: number[] = []
  if (figures !== null) figures.onNumber = (number, atMs) => frames.push({ number, atMs })
  if (sound !== null) {
    sound.onBlock = (mixed, atMs) => {
      blocks.push({ atMs, frames: mixed.length })
      for (const sample of mixed) samples.push(Math.round(sample * 32_767))
    }
  }
  await new Promise((resolve) => setTimeout(resolve, ms))
  if (figures !== null) figures.onNumber = null
  if (sound !== null) sound.onBlock = null
  return { frames, blocks, samples }
}

window.meetingFigures = {
  record,
  read: () => figures?.read(),
  reset: () => figures?.reset(),
  numbers: () => figures?.numbers ?? [],
  soundDb: () => sound?.peakDb ?? -Infinity,
}
