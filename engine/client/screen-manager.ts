// Screens that the presenter shares, and the stand-in. A browser lets no page share by itself: what was shared is gone after a reload,
// and is shared again by a press.
import { SCREEN_RATE, isScreen } from '../../core/inputs/screen.ts'
import type { ScreenInput, Show } from '../../core/show/show.ts'
import type { LiveSupply } from '../protocol.ts'
import { askForPicture } from './ask-for-picture.ts'

/** What a screen is doing. The words for it are the app's. 'ended': the browser's own bar, or the window itself, was closed. */
export type ScreenState = 'unshared' | 'choosing' | 'live' | 'ended' | 'refused' | 'failed' | 'unsupported'

/** What the browser says was chosen. */
export interface SharedScreen {
  readonly label: string
  readonly surface: 'window' | 'browser' | 'monitor' | 'unknown'
  /** Whether it is the tab that the studio itself is in. */
  readonly isOwnTab: boolean
}

export interface ScreenHost {
  readonly mediaDevices: Pick<MediaDevices, 'getDisplayMedia'> | undefined
  /** Starts the stand-in screen; its port posts frames until `stop`. */
  readonly openStandin: (frameRate: number) => { readonly port: MessagePort; readonly stop: () => void; readonly setRate: (frameRate: number) => void }
  readonly streamOf: (track: MediaStreamTrack) => ReadableStream<VideoFrame>
  /** Whether a capture handle is the studio's own. */
  readonly isOwnHandle: (handle: unknown) => boolean
}

export interface ScreenManagerEvents {
  readonly onSupply: (inputId: string, supply: LiveSupply) => void
  readonly onGone: (inputId: string) => void
  readonly onState: (inputId: string, state: ScreenState) => void
  readonly onShared: (inputId: string, screen: SharedScreen) => void
}

interface OpenScreen {
  readonly stop: () => void
  readonly setRate: (frameRate: number) => void
  /** Gives its pictures to an engine that has none of it. */
  readonly supplyAgain: () => void
}

/** The largest picture that is asked for; without a wish browsers give no more than the screen that the page is on. */
const LARGEST = { width: { ideal: 3840 }, height: { ideal: 2160 } } as const
const atMost = (frameRate: number) => ({ ...LARGEST, frameRate: { ideal: frameRate, max: frameRate } })

export class ScreenManager {
  readonly #host: ScreenHost
  readonly #events: ScreenManagerEvents
  readonly #open = new Map<string, OpenScreen>()
  readonly #known = new Map<string, ScreenInput>()
  /** What was chosen for inputs that are not there yet. */
  readonly #chosen = new Map<string, MediaStreamTrack>()
  /** Grows with each request of an input, so that an answer that comes late is let go. */
  readonly #requests = new Map<string, number>()

  constructor(host: ScreenHost, events: ScreenManagerEvents) {
    this.#host = host
    this.#events = events
  }

  /** Opens stand-ins and closes what no input is there for any more. Shared screens stay shared while their input is there, seen or not. */
  follow(show: Show): void {
    const screens = show.inputs.filter(isScreen)
    const ids = new Set(screens.map(({ id }) => id))
    for (const inputId of [...this.#known.keys()]) if (!ids.has(inputId)) this.#forget(inputId)
    for (const input of screens) {
      const before = this.#known.get(input.id)
      this.#known.set(input.id, input)
      if (before?.source.type === input.source.type) {
        if (before.frameRate !== input.frameRate) this.#open.get(input.id)?.setRate(input.frameRate)
        continue
      }
      this.#close(input.id)
      const chosen = this.#chosen.get(input.id)
      this.#chosen.delete(input.id)
      if (input.source.type === 'standin') this.#openStandin(input)
      else if (chosen !== undefined) this.#show(input.id, chosen)
      // One that was asked for in the press that made it is being chosen already.
      else if (!this.#requests.has(input.id)) this.#tell(input.id, this.#host.mediaDevices === undefined ? 'unsupported' : 'unshared')
    }
  }

  /** Lets the presenter choose what is shared; to be called from a press. Resolves with what came of it. What was shared before stays until something else is chosen. */
  async share(inputId: string): Promise<ScreenState> {
    const { mediaDevices } = this.#host
    if (mediaDevices === undefined) return this.#tell(inputId, 'unsupported')
    const request = (this.#requests.get(inputId) ?? 0) + 1
    this.#requests.set(inputId, request)
    const wasLive = this.#open.has(inputId)
    if (!wasLive) this.#tell(inputId, 'choosing')
    try {
      // A window first: other things on the desk stay private.
      const stream = await mediaDevices.getDisplayMedia({
        video: { ...atMost(this.#rateOf(inputId)), displaySurface: 'window' },
        audio: false,
        selfBrowserSurface: 'exclude',
        surfaceSwitching: 'include',
        monitorTypeSurfaces: 'include',
      } as DisplayMediaStreamOptions)
      const [track] = stream.getVideoTracks()
      if (track === undefined || request !== this.#requests.get(inputId)) {
        for (const each of stream.getTracks()) each.stop()
        return wasLive ? 'live' : this.#tell(inputId, 'unshared')
      }
      // An edit may take a moment longer than the choice: until its input is there, nobody wants the pictures.
      if (this.#known.has(inputId)) this.#show(inputId, track)
      else this.#chosen.set(inputId, track)
      return 'live'
    } catch (error) {
      if (request !== this.#requests.get(inputId)) return 'refused'
      if (wasLive) return 'live'
      return this.#tell(inputId, error instanceof DOMException && error.name === 'NotAllowedError' ? 'refused' : 'failed')
    }
  }

  /** Stops sharing, by a press of the presenter's. */
  stop(inputId: string): void {
    if (!this.#open.has(inputId)) return
    this.#close(inputId)
    this.#tell(inputId, 'unshared')
  }

  /** Tells that the pictures of a screen are over: the browser's bar was pressed, the window closed, or they cannot be read (`fault`). */
  ended(inputId: string, fault: string | null = null): void {
    if (!this.#open.has(inputId)) return
    this.#close(inputId)
    this.#tell(inputId, fault === null ? 'ended' : 'failed')
  }

  /** Gives every screen to an engine that has started anew; what is shared stays shared. */
  restart(): void {
    for (const open of [...this.#open.values()]) open.supplyAgain()
  }

  dispose(): void {
    for (const inputId of [...this.#known.keys()]) this.#forget(inputId)
    for (const track of this.#chosen.values()) track.stop()
    this.#chosen.clear()
  }

  #show(inputId: string, track: MediaStreamTrack): void {
    this.#close(inputId)
    let read = track
    let stopAsking = () => undefined as void
    const supply = () => {
      this.#events.onSupply(inputId, { type: 'stream', readable: this.#host.streamOf(read) })
      stopAsking = askForPicture(read, this.#host.streamOf)
    }
    const stop = () => {
      stopAsking()
      read.stop()
    }
    this.#open.set(inputId, {
      stop,
      // A browser that cannot change it keeps the rate it has.
      setRate: (frameRate) => void read.applyConstraints(atMost(frameRate)).catch(() => undefined),
      // Pictures of a track that were given away cannot be had back: a copy of the track gives new ones.
      supplyAgain: () => {
        const next = read.clone()
        stop()
        read = next
        supply()
      },
    })
    this.#events.onShared(inputId, this.#describe(track))
    supply()
    this.#tell(inputId, 'live')
  }

  #openStandin({ id, frameRate }: ScreenInput): void {
    const { port, stop, setRate } = this.#host.openStandin(frameRate)
    const supplyAgain = () => {
      this.#close(id)
      this.#openStandin(this.#known.get(id)!)
    }
    this.#open.set(id, { stop, setRate, supplyAgain })
    this.#events.onSupply(id, { type: 'port', port })
    this.#tell(id, 'live')
  }

  /** A screen that is asked for in the press that makes it is not known yet. */
  #rateOf(inputId: string): number {
    return this.#known.get(inputId)?.frameRate ?? SCREEN_RATE
  }

  #close(inputId: string): void {
    const open = this.#open.get(inputId)
    if (open === undefined) return
    this.#open.delete(inputId)
    open.stop()
    this.#events.onGone(inputId)
  }

  #forget(inputId: string): void {
    this.#close(inputId)
    this.#known.delete(inputId)
    this.#requests.delete(inputId)
  }

  #describe(track: MediaStreamTrack): SharedScreen {
    const settings = track.getSettings() as { readonly displaySurface?: string }
    const surface = settings.displaySurface
    const handle = (track as { getCaptureHandle?: () => unknown }).getCaptureHandle?.()
    return {
      label: track.label.slice(0, 200),
      surface: surface === 'window' || surface === 'browser' || surface === 'monitor' ? surface : 'unknown',
      isOwnTab: this.#host.isOwnHandle(handle),
    }
  }

  #tell(inputId: string, state: ScreenState): ScreenState {
    this.#events.onState(inputId, state)
    return state
  }
}
