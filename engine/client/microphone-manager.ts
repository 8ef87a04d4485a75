// Opens the microphone that a show asks for, and no other: says what is wrong with it, what changed beside it, and tries again.
import type { Microphone } from '../../core/show/show.ts'
import { stateOfError, type CameraState } from './camera-manager.ts'

/** What a microphone is doing. 'off': the show wants none. The words for it are the app's. */
export type MicrophoneState = 'off' | CameraState

/** A source of sound: a port that posts chunks until `stop`. */
export interface SoundSource {
  readonly port: MessagePort
  readonly stop: () => void
}

/** What the manager needs of the page; tests inject their own. */
export interface MicrophoneHost {
  readonly mediaDevices: Pick<MediaDevices, 'getUserMedia' | 'enumerateDevices' | 'addEventListener' | 'removeEventListener'> | undefined
  readonly openStandin: () => SoundSource
  /** Takes a stream apart into chunks. The stream stays the manager's. */
  readonly openStream: (stream: MediaStream) => Promise<SoundSource>
  readonly setTimer: (run: () => void, delayMs: number) => number
  readonly clearTimer: (timer: number) => void
}

export interface MicrophoneManagerEvents {
  /** The voice comes from here from now on; null: from nowhere. */
  readonly onSource: (port: MessagePort | null) => void
  readonly onState: (state: MicrophoneState) => void
  /** Another microphone was plugged in; the voice stays where it is. */
  readonly onOther: (label: string) => void
}

const RETRY_AFTER_MS = 2000
/** Names under which browsers list whichever microphone the system prefers: never taken, since it changes unasked. */
const SYSTEM_CHOICES = new Set(['default', 'communications'])

/** The microphones among devices, each by its own id. */
export function microphonesOf(devices: readonly MediaDeviceInfo[]): MediaDeviceInfo[] {
  return devices.filter(({ kind, deviceId }) => kind === 'audioinput' && !SYSTEM_CHOICES.has(deviceId))
}

export class MicrophoneManager {
  readonly #host: MicrophoneHost
  readonly #events: MicrophoneManagerEvents
  readonly #onDeviceChange = () => void this.#compare()
  #wanted: Microphone | null = null
  #wantedKey = ''
  #state: MicrophoneState = 'off'
  /** Grows with every start, so that an answer to an earlier one is known. */
  #turn = 0
  #stream: MediaStream | null = null
  #source: SoundSource | null = null
  #deviceId: string | null = null
  #known: ReadonlySet<string> | null = null
  #retryTimer: number | null = null

  constructor(host: MicrophoneHost, events: MicrophoneManagerEvents) {
    this.#host = host
    this.#events = events
    host.mediaDevices?.addEventListener('devicechange', this.#onDeviceChange)
  }

  /** Opens the microphone of a show in place of the one before; null: none. */
  follow(microphone: Microphone | null): void {
    const key = microphone === null ? '' : openedBy(microphone)
    if (key === this.#wantedKey) return
    this.#wanted = microphone
    this.#wantedKey = key
    this.#start()
  }

  /** Tries again now. */
  retry(): void {
    this.#start()
  }

  dispose(): void {
    this.#host.mediaDevices?.removeEventListener('devicechange', this.#onDeviceChange)
    this.#close()
  }

  #start(): void {
    this.#close()
    const { device } = this.#wanted ?? { device: { type: 'none' } as const }
    if (device.type === 'none') return this.#setState('off')
    if (device.type === 'standin') {
      this.#give(this.#host.openStandin())
      return this.#setState('live')
    }
    if (this.#state === 'off' || this.#state === 'live') this.#setState('starting')
    void this.#openDevice(device, this.#wanted!)
  }

  async #openDevice(device: { readonly deviceId: string; readonly label: string }, wanted: Microphone): Promise<void> {
    const { mediaDevices } = this.#host
    if (mediaDevices === undefined) return this.#setState('failed')
    const turn = this.#turn
    try {
      const listed = microphonesOf(await mediaDevices.enumerateDevices())
      const found = listed.find(({ deviceId }) => deviceId === device.deviceId) ?? listed.find(({ label }) => label !== '' && label === device.label)
      const deviceId = found?.deviceId ?? device.deviceId
      const { echoCancellation, noiseSuppression, autoGainControl } = wanted
      const stream = await mediaDevices.getUserMedia({
        audio: { deviceId: { exact: deviceId }, echoCancellation, noiseSuppression, autoGainControl, channelCount: { ideal: 2 } },
      })
      if (turn !== this.#turn) return stopAll(stream)
      this.#stream = stream
      this.#deviceId = deviceId
      const source = await this.#host.openStream(stream)
      if (turn !== this.#turn) return source.stop()
      stream.getAudioTracks()[0]!.addEventListener('ended', () => this.#lost(turn))
      this.#give(source)
      this.#setState('live')
      await this.#remember()
    } catch (error) {
      if (turn !== this.#turn) return
      const state = stateOfError(error, this.#state === 'off' ? 'starting' : this.#state)
      this.#close()
      this.#setState(state)
      this.#retryLater()
    }
  }

  #give(source: SoundSource): void {
    this.#source = source
    this.#events.onSource(source.port)
  }

  /** The cable was pulled. */
  #lost(turn: number): void {
    if (turn !== this.#turn) return
    this.#close()
    this.#setState('unplugged')
    this.#retryLater()
  }

  /** Devices came or went. A system may move a stream to another microphone without a word: one that left the list is gone. */
  async #compare(): Promise<void> {
    const before = this.#known
    const turn = this.#turn
    const listed = await this.#remember()
    if (turn !== this.#turn) return
    if (this.#state !== 'live' && this.#state !== 'off' && this.#state !== 'starting') return this.#start()
    if (this.#deviceId === null || this.#state !== 'live') return
    if (!listed.some(({ deviceId }) => deviceId === this.#deviceId)) return this.#lost(turn)
    for (const { deviceId, label } of listed) if (before !== null && !before.has(deviceId)) this.#events.onOther(label)
  }

  async #remember(): Promise<MediaDeviceInfo[]> {
    const listed = microphonesOf((await this.#host.mediaDevices?.enumerateDevices()) ?? [])
    this.#known = new Set(listed.map(({ deviceId }) => deviceId))
    return listed
  }

  /** A busy or vanished microphone is tried again; a refusal waits for the presenter. */
  #retryLater(): void {
    if (this.#state !== 'refused') this.#retryTimer = this.#host.setTimer(() => this.retry(), RETRY_AFTER_MS)
  }

  #close(): void {
    this.#turn += 1
    if (this.#retryTimer !== null) this.#host.clearTimer(this.#retryTimer)
    this.#retryTimer = null
    if (this.#source !== null) this.#events.onSource(null)
    this.#source?.stop()
    this.#source = null
    if (this.#stream !== null) stopAll(this.#stream)
    this.#stream = null
    this.#deviceId = null
  }

  #setState(state: MicrophoneState): void {
    this.#state = state
    this.#events.onState(state)
  }
}

function stopAll(stream: MediaStream): void {
  for (const track of stream.getTracks()) track.stop()
}

/** What makes it necessary to open the microphone anew: gain, sides and delay do not. */
function openedBy({ device, echoCancellation, noiseSuppression, autoGainControl }: Microphone): string {
  const which = device.type === 'device' ? [device.deviceId, device.label] : []
  return JSON.stringify([device.type, which, echoCancellation, noiseSuppression, autoGainControl])
}
