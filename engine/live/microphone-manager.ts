// Opens the microphone that a show asks for, and no other: says what is wrong with it, what changed beside it, and tries again.
import type { Microphone } from '../../core/show/show.ts'
import { LiveOwner, type Opened, type Timers } from './live-owner.ts'
import { failureOf, type LiveState } from './live-state.ts'

/** A source of sound: a port that posts chunks until `stop`. */
export interface SoundSource extends Opened {
  readonly port: MessagePort
}

/** What the manager needs of the page; tests inject their own. */
export interface MicrophoneHost extends Timers {
  readonly mediaDevices: Pick<MediaDevices, 'getUserMedia' | 'enumerateDevices' | 'addEventListener' | 'removeEventListener'> | undefined
  readonly openStandin: () => SoundSource
  /** Takes a stream apart into chunks. The stream stays the manager's. */
  readonly openStream: (stream: MediaStream) => Promise<SoundSource>
}

export interface MicrophoneManagerEvents {
  /** The voice comes from here from now on; null: from nowhere. */
  readonly onSource: (port: MessagePort | null) => void
  /** 'off': the show wants none. */
  readonly onState: (state: LiveState) => void
  /** Another microphone was plugged in; the voice stays where it is. */
  readonly onOther: (label: string) => void
}

interface OpenMicrophone extends SoundSource {
  /** Null for the stand-in. */
  readonly deviceId: string | null
}

/** Names under which browsers list whichever microphone the system prefers: never taken, since it changes unasked. */
const SYSTEM_CHOICES = new Set(['default', 'communications'])

/** The microphones among devices, each by its own id. */
export function microphonesOf(devices: readonly MediaDeviceInfo[]): MediaDeviceInfo[] {
  return devices.filter(({ kind, deviceId }) => kind === 'audioinput' && !SYSTEM_CHOICES.has(deviceId))
}

export class MicrophoneManager {
  readonly #host: MicrophoneHost
  readonly #owner: LiveOwner<OpenMicrophone>
  readonly #onOther: (label: string) => void
  readonly #onDeviceChange = () => void this.#compare()
  #wantedKey = ''
  #known: ReadonlySet<string> | null = null

  constructor(host: MicrophoneHost, events: MicrophoneManagerEvents) {
    this.#host = host
    this.#onOther = events.onOther
    this.#owner = new LiveOwner<OpenMicrophone>(
      {
        onState: events.onState,
        onOpened: ({ port }) => {
          events.onSource(port)
          void this.#remember()
        },
        onGone: () => events.onSource(null),
        failureOf,
      },
      host,
    )
    host.mediaDevices?.addEventListener('devicechange', this.#onDeviceChange)
  }

  /** Opens the microphone of a show in place of the one before; null: none. */
  follow(microphone: Microphone | null): void {
    const key = microphone === null ? '' : openedBy(microphone)
    if (key === this.#wantedKey) return
    this.#wantedKey = key
    if (microphone === null || microphone.device.type === 'none') this.#owner.stop('off')
    else void this.#owner.start(() => this.#open(microphone))
  }

  /** Tries again now. */
  retry(): void {
    if (this.#owner.state.phase !== 'off') void this.#owner.retry()
  }

  dispose(): void {
    this.#host.mediaDevices?.removeEventListener('devicechange', this.#onDeviceChange)
    this.#owner.dispose()
  }

  #open(wanted: Microphone): OpenMicrophone | Promise<OpenMicrophone> {
    if (wanted.device.type === 'device') return this.#openDevice(wanted.device, wanted)
    const { port, stop } = this.#host.openStandin()
    return { port, stop, deviceId: null }
  }

  async #openDevice(device: { readonly deviceId: string; readonly label: string }, wanted: Microphone): Promise<OpenMicrophone> {
    const { mediaDevices } = this.#host
    if (mediaDevices === undefined) throw new Error('this page may not use microphones')
    const listed = microphonesOf(await mediaDevices.enumerateDevices())
    const found = listed.find(({ deviceId }) => deviceId === device.deviceId) ?? listed.find(({ label }) => label !== '' && label === device.label)
    const deviceId = found?.deviceId ?? device.deviceId
    const { echoCancellation, noiseSuppression, autoGainControl } = wanted
    const stream = await mediaDevices.getUserMedia({
      audio: { deviceId: { exact: deviceId }, echoCancellation, noiseSuppression, autoGainControl, channelCount: { ideal: 2 } },
    })
    try {
      const source = await this.#host.openStream(stream)
      const opened: OpenMicrophone = {
        port: source.port,
        deviceId,
        stop: () => {
          source.stop()
          stopAll(stream)
        },
      }
      stream.getAudioTracks()[0]!.addEventListener('ended', () => this.#lost(opened))
      return opened
    } catch (error) {
      stopAll(stream)
      throw error
    }
  }

  /** The cable was pulled. */
  #lost(opened: OpenMicrophone): void {
    if (this.#owner.opened === opened) this.#owner.fail('unplugged')
  }

  /** Devices came or went. A system may move a stream to another microphone without a word: one that left the list is gone. */
  async #compare(): Promise<void> {
    const before = this.#known
    const { opened } = this.#owner
    const listed = await this.#remember()
    if (this.#owner.opened !== opened) return
    if (this.#owner.state.phase === 'failed') return void this.#owner.retry()
    if (opened === null || opened.deviceId === null) return
    if (!listed.some(({ deviceId }) => deviceId === opened.deviceId)) return this.#lost(opened)
    for (const { deviceId, label } of listed) if (before !== null && !before.has(deviceId)) this.#onOther(label)
  }

  async #remember(): Promise<MediaDeviceInfo[]> {
    const listed = microphonesOf((await this.#host.mediaDevices?.enumerateDevices()) ?? [])
    this.#known = new Set(listed.map(({ deviceId }) => deviceId))
    return listed
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
