// Screens that the presenter shares, and the stand-in. A browser lets no page share by itself: what was shared is gone after a reload,
// and is shared again by a press.
import { SCREEN_RATE, isScreen } from '../../core/inputs/screen.ts'
import type { ScreenInput, Show } from '../../core/show/show.ts'
import type { LiveSupply } from '../protocol.ts'
import { askForPicture } from './ask-for-picture.ts'
import { LiveOwner, type Opened } from './live-owner.ts'
import { statusOf, type LiveState, type LiveStatus } from './live-state.ts'

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
  /** 'off': nothing is shared. 'ended': the browser's own bar, or the window itself, was closed. */
  readonly onState: (inputId: string, state: LiveState) => void
  readonly onShared: (inputId: string, screen: SharedScreen) => void
}

interface OpenScreen extends Opened {
  /** Null for the stand-in. */
  readonly shared: SharedScreen | null
  readonly setRate: (frameRate: number) => void
  /** Gives its pictures away: once when it is opened, and to an engine that has started anew. */
  readonly supply: () => void
}

/** The largest picture that is asked for; without a wish browsers give no more than the screen that the page is on. */
const LARGEST = { width: { ideal: 3840 }, height: { ideal: 2160 } } as const
const atMost = (frameRate: number) => ({ ...LARGEST, frameRate: { ideal: frameRate, max: frameRate } })

export class ScreenManager {
  readonly #host: ScreenHost
  readonly #events: ScreenManagerEvents
  readonly #owners = new Map<string, LiveOwner<OpenScreen>>()
  /** Those that the show has. One that is asked for in the press that makes it comes a moment later. */
  readonly #known = new Map<string, ScreenInput>()

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
      if (before?.source.type !== input.source.type) this.#begin(input, before !== undefined)
      else if (before.frameRate !== input.frameRate) this.#owners.get(input.id)?.opened?.setRate(input.frameRate)
    }
  }

  /** Lets the presenter choose what is shared; to be called from a press. Resolves with what came of it. What was shared before stays until something else is chosen. */
  async share(inputId: string): Promise<LiveStatus> {
    const owner = this.#ownerOf(inputId)
    const { mediaDevices } = this.#host
    if (mediaDevices === undefined) owner.fail('unsupported')
    else await owner.start(() => this.#choose(inputId, mediaDevices), { phase: 'asked', keepsOpened: true })
    return statusOf(owner.state)
  }

  /** Stops sharing, by a press of the presenter's. */
  stop(inputId: string): void {
    if (this.#isOpen(inputId)) this.#ownerOf(inputId).stop('off')
  }

  /** Tells that the pictures of a screen are over: the browser's bar was pressed, the window closed, or they cannot be read (`fault`). */
  ended(inputId: string, fault: string | null = null): void {
    this.#owners.get(inputId)?.lost(fault === null ? null : 'broken', fault)
  }

  /** Gives every screen to an engine that has started anew; what is shared stays shared. */
  restart(): void {
    for (const owner of this.#owners.values()) owner.opened?.supply()
  }

  dispose(): void {
    for (const inputId of [...this.#owners.keys()]) this.#forget(inputId)
  }

  /** A screen that the show has from now on, or whose source is another one now. */
  #begin(input: ScreenInput, isOther: boolean): void {
    const owner = this.#ownerOf(input.id)
    if (isOther) owner.stop('off')
    if (input.source.type === 'standin') void owner.start(() => this.#openStandin(input.id))
    else if (owner.opened !== null) this.#give(input.id, owner.opened)
    else if (this.#host.mediaDevices === undefined) owner.fail('unsupported')
    else if (owner.state.phase === 'off') owner.tell('off')
  }

  #ownerOf(inputId: string): LiveOwner<OpenScreen> {
    const known = this.#owners.get(inputId)
    if (known !== undefined) return known
    const owner = new LiveOwner<OpenScreen>(
      {
        onState: (state) => this.#events.onState(inputId, state),
        // An edit may take a moment longer than the choice: until its input is there, nobody wants the pictures.
        onOpened: (opened) => {
          if (this.#known.has(inputId)) this.#give(inputId, opened)
        },
        onGone: () => this.#events.onGone(inputId),
        failureOf: (error) => (error instanceof DOMException && error.name === 'NotAllowedError' ? 'refused' : 'broken'),
      },
      null,
    )
    this.#owners.set(inputId, owner)
    return owner
  }

  #give(inputId: string, { shared, supply }: OpenScreen): void {
    if (shared !== null) this.#events.onShared(inputId, shared)
    supply()
  }

  async #choose(inputId: string, mediaDevices: Pick<MediaDevices, 'getDisplayMedia'>): Promise<OpenScreen> {
    // A window first: other things on the desk stay private.
    const stream = await mediaDevices.getDisplayMedia({
      video: { ...atMost(this.#known.get(inputId)?.frameRate ?? SCREEN_RATE), displaySurface: 'window' },
      audio: false,
      selfBrowserSurface: 'exclude',
      surfaceSwitching: 'include',
      monitorTypeSurfaces: 'include',
    } as DisplayMediaStreamOptions)
    const [track] = stream.getVideoTracks()
    if (track !== undefined) return this.#openTrack(inputId, track)
    for (const each of stream.getTracks()) each.stop()
    throw new DOMException('nothing was chosen', 'NotAllowedError')
  }

  #openTrack(inputId: string, track: MediaStreamTrack): OpenScreen {
    let read = track
    let isGiven = false
    let stopAsking = () => undefined as void
    const stop = () => {
      stopAsking()
      read.stop()
    }
    return {
      shared: this.#describe(track),
      stop,
      // A browser that cannot change it keeps the rate it has.
      setRate: (frameRate) => void read.applyConstraints(atMost(frameRate)).catch(() => undefined),
      supply: () => {
        // Pictures of a track that were given away cannot be had back: a copy of the track gives new ones.
        const next = isGiven ? read.clone() : read
        if (isGiven) stop()
        isGiven = true
        read = next
        this.#events.onSupply(inputId, { type: 'stream', readable: this.#host.streamOf(read) })
        stopAsking = askForPicture(read, this.#host.streamOf)
      },
    }
  }

  #openStandin(inputId: string): OpenScreen {
    const open = () => this.#host.openStandin(this.#known.get(inputId)!.frameRate)
    let standin = open()
    let isGiven = false
    return {
      shared: null,
      stop: () => standin.stop(),
      setRate: (frameRate) => standin.setRate(frameRate),
      supply: () => {
        if (isGiven) {
          standin.stop()
          standin = open()
        }
        isGiven = true
        this.#events.onSupply(inputId, { type: 'port', port: standin.port })
      },
    }
  }

  #isOpen(inputId: string): boolean {
    return (this.#owners.get(inputId)?.opened ?? null) !== null
  }

  #forget(inputId: string): void {
    this.#owners.get(inputId)?.dispose()
    this.#owners.delete(inputId)
    this.#known.delete(inputId)
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
}
