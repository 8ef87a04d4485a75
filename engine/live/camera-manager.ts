// Opens the cameras a show asks for, says what is wrong with the others, and tries again by itself.
import { isCamera } from '../../core/inputs/camera.ts'
import type { CameraInput, Show } from '../../core/show/show.ts'
import type { LiveSupply } from '../protocol.ts'
import { constraintsFor, controlsOf, refusedOf, type CameraControls } from './camera-controls.ts'
import { LiveOwner, type Opened, type Timers } from './live-owner.ts'
import { failureOf, type LiveFailure, type LiveState } from './live-state.ts'

/** What the manager needs of the page; tests inject their own. */
export interface CameraHost extends Timers {
  readonly mediaDevices: Pick<MediaDevices, 'getUserMedia' | 'enumerateDevices' | 'addEventListener' | 'removeEventListener'> | undefined
  /** Starts a stand-in camera; its port posts frames until `stop`. */
  readonly openStandin: (input: CameraInput) => { readonly port: MessagePort; readonly stop: () => void }
  readonly streamOf: (track: MediaStreamTrack) => ReadableStream<VideoFrame>
}

export interface CameraOffer {
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
}

export interface CameraManagerEvents {
  readonly onSupply: (inputId: string, supply: LiveSupply) => void
  readonly onGone: (inputId: string) => void
  /** 'paused': nobody looks at it, so its light is off. */
  readonly onState: (inputId: string, state: LiveState) => void
  /** What a camera offers of its own controls, and where they stand. */
  readonly onControls?: (inputId: string, controls: CameraControls) => void
  /** The largest size and rate that a camera says it can give. */
  readonly onOffer?: (inputId: string, most: CameraOffer) => void
}

interface OpenCamera extends Opened {
  readonly supply: LiveSupply
  /** Null for a stand-in. */
  readonly track: MediaStreamTrack | null
}

interface KnownCamera {
  readonly owner: LiveOwner<OpenCamera>
  input: CameraInput
  /** What it was opened by; an input that asks for something else is opened anew. */
  openedBy: string | null
  /** Held controls as they were last set. */
  held: string
}

export class CameraManager {
  readonly #host: CameraHost
  readonly #events: CameraManagerEvents
  readonly #known = new Map<string, KnownCamera>()
  readonly #onDeviceChange = () => this.#retryFailed()

  constructor(host: CameraHost, events: CameraManagerEvents) {
    this.#host = host
    this.#events = events
    host.mediaDevices?.addEventListener('devicechange', this.#onDeviceChange)
  }

  /** Opens and closes cameras so that they match the show; those that are not `needed` rest. */
  follow(show: Show, needed: ReadonlySet<string>): void {
    const inputs = show.inputs.filter(isCamera)
    const ids = new Set(inputs.map((input) => input.id))
    for (const inputId of [...this.#known.keys()]) if (!ids.has(inputId)) this.#forget(inputId)
    for (const input of inputs) {
      const camera = this.#know(input)
      camera.input = input
      if (!needed.has(input.id)) this.#rest(camera)
      else if (camera.openedBy !== wantedOf(input)) this.#start(camera)
      else if (camera.held !== heldOf(input)) void this.#hold(camera)
    }
  }

  /** Tries one camera again now. */
  retry(inputId: string): void {
    const camera = this.#known.get(inputId)
    if (camera !== undefined && camera.openedBy !== null) void camera.owner.retry()
  }

  /** Tells that the pictures of a camera are over: the cable was pulled, or they cannot be read (`fault`). It is opened again in a moment. */
  ended(inputId: string, fault: string | null = null): void {
    this.#known.get(inputId)?.owner.lost(fault === null ? 'unplugged' : 'broken', fault)
  }

  /** Opens every camera anew, for an engine that has started anew. */
  restart(): void {
    for (const inputId of this.#known.keys()) this.retry(inputId)
  }

  dispose(): void {
    this.#host.mediaDevices?.removeEventListener('devicechange', this.#onDeviceChange)
    for (const inputId of [...this.#known.keys()]) this.#forget(inputId)
  }

  #know(input: CameraInput): KnownCamera {
    const known = this.#known.get(input.id)
    if (known !== undefined) return known
    const { id } = input
    const owner = new LiveOwner<OpenCamera>(
      {
        onState: (state) => this.#events.onState(id, state),
        onOpened: ({ supply }) => {
          this.#events.onSupply(id, supply)
          void this.#hold(camera)
        },
        onGone: () => this.#events.onGone(id),
        failureOf: (error, before) => this.#failureOf(camera.input, error, before),
      },
      this.#host,
    )
    const camera: KnownCamera = { owner, input, openedBy: null, held: '' }
    this.#known.set(id, camera)
    return camera
  }

  #rest(camera: KnownCamera): void {
    if (camera.owner.state.phase === 'paused') return
    camera.openedBy = null
    camera.owner.stop('paused')
  }

  #forget(inputId: string): void {
    this.#known.get(inputId)?.owner.dispose()
    this.#known.delete(inputId)
  }

  #start(camera: KnownCamera): void {
    camera.openedBy = wantedOf(camera.input)
    void camera.owner.start(() => (camera.input.device.type === 'standin' ? this.#openStandin(camera.input) : this.#openDevice(camera.input)))
  }

  #openStandin(input: CameraInput): OpenCamera {
    const { port, stop } = this.#host.openStandin(input)
    return { supply: { type: 'port', port }, track: null, stop }
  }

  async #openDevice(input: CameraInput): Promise<OpenCamera> {
    const { mediaDevices } = this.#host
    if (mediaDevices === undefined || input.device.type !== 'device') throw new Error('this page may not use cameras')
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
    return { supply: { type: 'stream', readable: this.#host.streamOf(track) }, track, stop: () => track.stop() }
  }

  /** A browser may call a device busy that is not plugged in: its list knows better. */
  async #failureOf(input: CameraInput, error: unknown, before: LiveState): Promise<LiveFailure> {
    const failure = failureOf(error, before)
    return failure === 'busy' && !(await this.#isListed(input)) ? 'missing' : failure
  }

  /** Sets the controls that the show holds, and tells what the camera offers; one that refuses keeps its picture. */
  async #hold(camera: KnownCamera): Promise<void> {
    const { input, owner } = camera
    const track = owner.opened?.track ?? null
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

  /** Devices came or went: what failed may come now, a refusal may have been taken back. */
  #retryFailed(): void {
    for (const { owner, openedBy } of this.#known.values()) if (openedBy !== null && owner.state.phase === 'failed') void owner.retry()
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
