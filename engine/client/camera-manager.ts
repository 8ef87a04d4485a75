// Opens the cameras a show asks for, says what is wrong with the others, and tries again by itself.
import { isCamera } from '../../core/inputs/camera.ts'
import type { CameraInput, Show } from '../../core/show/show.ts'
import type { LiveSupply } from '../protocol.ts'
import { constraintsFor, controlsOf, refusedOf, type CameraControls } from './camera-controls.ts'

/** What a camera is doing. The words for it are the app's. */
/** 'resting': nobody looks at it, so its light is off. */
export type CameraState = 'resting' | 'starting' | 'live' | 'refused' | 'busy' | 'missing' | 'unplugged' | 'failed'

/** What the manager needs of the page; tests inject their own. */
export interface CameraHost {
  readonly mediaDevices: Pick<MediaDevices, 'getUserMedia' | 'enumerateDevices' | 'addEventListener' | 'removeEventListener'> | undefined
  /** Starts a stand-in camera; its port posts frames until `stop`. */
  readonly openStandin: (input: CameraInput) => { readonly port: MessagePort; readonly stop: () => void }
  readonly streamOf: (track: MediaStreamTrack) => ReadableStream<VideoFrame>
  readonly setTimer: (run: () => void, delayMs: number) => number
  readonly clearTimer: (timer: number) => void
}

export interface CameraOffer {
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
}

export interface CameraManagerEvents {
  readonly onSupply: (inputId: string, supply: LiveSupply) => void
  readonly onGone: (inputId: string) => void
  readonly onState: (inputId: string, state: CameraState) => void
  /** What a camera offers of its own controls, and where they stand. */
  readonly onControls?: (inputId: string, controls: CameraControls) => void
  /** The largest size and rate that a camera says it can give. */
  readonly onOffer?: (inputId: string, most: CameraOffer) => void
}

interface OpenCamera {
  readonly wanted: string
  state: CameraState
  track: MediaStreamTrack | null
  stopStandin: (() => void) | null
  retryTimer: number | null
  /** Held controls as they were last set. */
  held: string
}

const RETRY_AFTER_MS = 2000

export class CameraManager {
  readonly #host: CameraHost
  readonly #events: CameraManagerEvents
  readonly #open = new Map<string, OpenCamera>()
  readonly #onDeviceChange = () => this.#retryAll()
  #inputs: readonly CameraInput[] = []

  constructor(host: CameraHost, events: CameraManagerEvents) {
    this.#host = host
    this.#events = events
    host.mediaDevices?.addEventListener('devicechange', this.#onDeviceChange)
  }

  /** Opens and closes cameras so that they match the show; those that are not `needed` rest. */
  follow(show: Show, needed: ReadonlySet<string>): void {
    const cameras = show.inputs.filter(isCamera)
    this.#inputs = cameras.filter((input) => needed.has(input.id))
    const ids = new Set(this.#inputs.map((input) => input.id))
    for (const inputId of [...this.#open.keys()]) if (!ids.has(inputId)) this.#release(inputId)
    for (const input of cameras) if (!needed.has(input.id)) this.#events.onState(input.id, 'resting')
    for (const input of this.#inputs) {
      const camera = this.#open.get(input.id)
      if (camera?.wanted !== wantedOf(input)) this.#start(input)
      else if (camera.track !== null && camera.held !== heldOf(input)) void this.#hold(input, camera)
    }
  }

  /** Tries one camera again now. */
  retry(inputId: string): void {
    const input = this.#inputs.find((candidate) => candidate.id === inputId)
    if (input !== undefined) this.#start(input)
  }

  /** Tells that the pictures of a camera are over: the cable was pulled, or they cannot be read (`fault`). It is opened again in a moment. */
  ended(inputId: string, fault: string | null = null): void {
    const camera = this.#open.get(inputId)
    if (camera === undefined) return
    this.#events.onGone(inputId)
    this.#setState(inputId, camera, fault === null ? 'unplugged' : 'failed')
    this.#retryLater(inputId, camera)
  }

  dispose(): void {
    this.#host.mediaDevices?.removeEventListener('devicechange', this.#onDeviceChange)
    for (const inputId of [...this.#open.keys()]) this.#release(inputId)
  }

  #start(input: CameraInput): void {
    const before = this.#open.get(input.id)
    if (before !== undefined) this.#stop(before)
    const camera: OpenCamera = { wanted: wantedOf(input), state: before?.state ?? 'starting', track: null, stopStandin: null, retryTimer: null, held: '' }
    this.#open.set(input.id, camera)
    if (before === undefined || before.wanted !== camera.wanted) this.#setState(input.id, camera, 'starting')
    if (input.device.type === 'standin') {
      const standin = this.#host.openStandin(input)
      camera.stopStandin = standin.stop
      this.#events.onSupply(input.id, { type: 'port', port: standin.port })
      this.#setState(input.id, camera, 'live')
    } else {
      void this.#openDevice(input, camera)
    }
  }

  async #openDevice(input: CameraInput, camera: OpenCamera): Promise<void> {
    const { mediaDevices } = this.#host
    if (mediaDevices === undefined || input.device.type !== 'device') return this.#setState(input.id, camera, 'failed')
    try {
      const deviceId = await this.#findDevice(input.device)
      const stream = await mediaDevices.getUserMedia({
        video: {
          deviceId: { exact: deviceId },
          width: { ideal: input.widthPx },
          height: { ideal: input.heightPx },
          frameRate: { ideal: input.frameRate },
        },
      })
      const track = stream.getVideoTracks()[0]!
      if (this.#open.get(input.id) !== camera) return track.stop()
      camera.track = track
      this.#events.onSupply(input.id, { type: 'stream', readable: this.#host.streamOf(track) })
      this.#setState(input.id, camera, 'live')
      void this.#hold(input, camera)
    } catch (error) {
      if (this.#open.get(input.id) !== camera) return
      this.#events.onGone(input.id)
      const state = stateOfError(error, camera.state)
      // A browser may call a device held that is not plugged in: its list knows better.
      const isGone = state === 'busy' && !(await this.#isListed(input))
      if (this.#open.get(input.id) !== camera) return
      this.#setState(input.id, camera, isGone ? 'missing' : state)
      this.#retryLater(input.id, camera)
    }
  }

  /** Sets the controls that the show holds, and tells what the camera offers; one that refuses keeps its picture. */
  async #hold(input: CameraInput, camera: OpenCamera): Promise<void> {
    const { track } = camera
    if (track === null || input.device.type !== 'device') return
    camera.held = heldOf(input)
    this.#tellOffer(input.id, track)
    const offered = controlsOf(track.getCapabilities?.() ?? {}, track.getSettings())
    const constraints = constraintsFor(input.device.controls ?? {}, offered)
    // One at a time: a refused value must not take the others with it. What was refused is seen by where the camera stands afterwards.
    for (const constraint of constraints.advanced ?? []) await track.applyConstraints({ advanced: [constraint] }).catch(() => undefined)
    const now = controlsOf(track.getCapabilities?.() ?? {}, track.getSettings())
    this.#events.onControls?.(input.id, { ...now, refused: refusedOf(input.device.controls ?? {}, now) })
  }

  #tellOffer(inputId: string, track: MediaStreamTrack): void {
    const { width, height, frameRate } = track.getCapabilities?.() ?? {}
    if (width?.max === undefined || height?.max === undefined || frameRate?.max === undefined) return
    this.#events.onOffer?.(inputId, { widthPx: width.max, heightPx: height.max, frameRate: frameRate.max })
  }

  /** The device by id, or by label when its id has changed. */
  async #findDevice(device: { readonly deviceId: string; readonly label: string }): Promise<string> {
    const devices = await this.#host.mediaDevices!.enumerateDevices()
    const cameras = devices.filter((candidate) => candidate.kind === 'videoinput')
    const byId = cameras.some((candidate) => candidate.deviceId === device.deviceId)
    if (byId) return device.deviceId
    return cameras.find((candidate) => device.label !== '' && candidate.label === device.label)?.deviceId ?? device.deviceId
  }

  /** Whether the browser names the device; true where it names none, as before permission. */
  async #isListed({ device }: CameraInput): Promise<boolean> {
    if (device.type !== 'device') return true
    const devices = await this.#host.mediaDevices!.enumerateDevices().catch(() => [])
    const cameras = devices.filter(({ kind, deviceId }) => kind === 'videoinput' && deviceId !== '')
    return cameras.length === 0 || cameras.some(({ deviceId, label }) => deviceId === device.deviceId || (label !== '' && label === device.label))
  }

  #retryAll(): void {
    for (const input of this.#inputs) {
      const camera = this.#open.get(input.id)
      if (camera !== undefined && camera.state !== 'live' && camera.state !== 'starting') this.#start(input)
    }
  }

  /** A busy or vanished camera is tried again; a refusal waits for the presenter. */
  #retryLater(inputId: string, camera: OpenCamera): void {
    if (camera.state === 'refused') return
    camera.retryTimer = this.#host.setTimer(() => this.retry(inputId), RETRY_AFTER_MS)
  }

  #release(inputId: string): void {
    const camera = this.#open.get(inputId)
    if (camera === undefined) return
    this.#stop(camera)
    this.#open.delete(inputId)
    this.#events.onGone(inputId)
  }

  #stop(camera: OpenCamera): void {
    if (camera.retryTimer !== null) this.#host.clearTimer(camera.retryTimer)
    camera.track?.stop()
    camera.stopStandin?.()
  }

  #setState(inputId: string, camera: OpenCamera, state: CameraState): void {
    camera.state = state
    this.#events.onState(inputId, state)
  }
}

function wantedOf(input: CameraInput): string {
  const { device } = input
  const which = device.type === 'device' ? [device.deviceId, device.label] : [device.standin]
  return JSON.stringify([device.type, which, input.widthPx, input.heightPx, input.frameRate])
}

function heldOf(input: CameraInput): string {
  return JSON.stringify(input.device.type === 'device' ? (input.device.controls ?? {}) : {})
}

/** DOMException names of getUserMedia, W3C Media Capture and Streams §10.2. */
export function stateOfError(error: unknown, before: CameraState): CameraState {
  const name = error instanceof DOMException || error instanceof Error ? error.name : ''
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused'
  if (name === 'NotReadableError' || name === 'AbortError') return 'busy'
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return before === 'unplugged' ? 'unplugged' : 'missing'
  return 'failed'
}
