// The doorway between a page's shim and the feed: beside it in the page, or in an extension's own world.
import type { FromMeeting, ToMeeting } from '../signal.ts'
import type { Transport } from '../transport/transport.ts'
import type { PictureFormat, PictureWish } from './constraints.ts'
import { Receiver } from './receiver.ts'
import type { SoundWish } from './sound-constraints.ts'
import type { MakeVoiceWorker } from './voice-receiver.ts'

export const CAMERA_LABEL = 'Green Room Camera'
export const MICROPHONE_LABEL = 'Green Room Microphone'

export type DeviceKind = 'camera' | 'microphone'

export interface DeviceIds {
  readonly camera: string
  readonly microphone: string
  readonly group: string
}

/** While a page has none. */
export const NO_IDS: DeviceIds = { camera: '', microphone: '', group: '' }

/** What a shim needs of the virtual devices. */
export interface DeviceDoor {
  /** Resolves once it is known whether the devices are present, and their ids if this page has any yet. */
  readonly ready: Promise<void>
  /** Whether the devices can be listed. */
  readonly isPresent: boolean
  /** Ids that last as long as the site's data; empty strings while this page has none. */
  readonly ids: DeviceIds
  /** Gives the page ids, once it may know which devices there are. */
  identify(): Promise<void>
  /** Which devices there are. */
  readonly kinds: readonly DeviceKind[]
  /** Size and rate of the feed. */
  readonly source: PictureFormat
  /** A new track of its own, which lives until it and its copies are stopped. */
  openCamera(wish: PictureWish): MediaStreamTrack
  openMicrophone(wish: SoundWish): MediaStreamTrack
  /** Changes what a camera's track gives. */
  changeCamera(track: MediaStreamTrack, wish: PictureWish): void
  /** Changes what a microphone's track gives. */
  changeMicrophone(track: MediaStreamTrack, wish: SoundWish): void
}

/** Before a studio has said what its show has. */
export const FIRST_FORMAT: PictureFormat = { widthPx: 1280, heightPx: 720, frameRate: 30 }

export interface FeedDoorEvents {
  /** The devices can be listed from now on. */
  readonly onPresence?: () => void
  /** A first track was opened, or the last was stopped. */
  readonly onUse?: (isUsed: boolean) => void
  /** For the sound, a thread of its own. */
  readonly makeVoiceWorker?: MakeVoiceWorker
}

/** The doorway's inner side: opens and ends the feed as tracks come and go. */
export class FeedDoor {
  readonly #transport: Transport<FromMeeting, ToMeeting>
  readonly #events: FeedDoorEvents
  #receiver: Receiver | null = null
  #lastFormat = FIRST_FORMAT
  #isPresent = false
  #isFeedOn = false

  constructor(transport: Transport<FromMeeting, ToMeeting>, events: FeedDoorEvents = {}) {
    this.#transport = transport
    this.#events = events
    transport.onMessage = (message) => this.#receive(message)
  }

  /** Whether a studio has been seen; once seen, the devices stay listed while the page lives. */
  get isPresent(): boolean {
    return this.#isPresent
  }

  get isUsed(): boolean {
    return this.#receiver !== null
  }

  get source(): PictureFormat {
    return this.#receiver?.format ?? this.#lastFormat
  }

  openCamera(wish: PictureWish): MediaStreamTrack {
    return this.#open().openTrack(wish)
  }

  openMicrophone(wish: SoundWish): MediaStreamTrack {
    return this.#open().openSound(wish)
  }

  /** A track that is not of this feed is left alone. */
  changeCamera(track: MediaStreamTrack | null, wish: PictureWish): void {
    if (track !== null) this.#receiver?.changePicture(track.id, wish)
  }

  changeMicrophone(track: MediaStreamTrack | null, wish: SoundWish): void {
    if (track !== null) this.#receiver?.changeSound(track.id, wish)
  }

  /** Ends every track of a kind: the page may have it no more. */
  end(kind: DeviceKind): void {
    this.#receiver?.end(kind)
  }

  /** Ends every track; the page is going away. */
  close(): void {
    this.#receiver?.close()
    this.#rest()
  }

  #open(): Receiver {
    if (this.#receiver !== null) return this.#receiver
    this.#receiver = new Receiver(this.#transport, this.#isFeedOn, this.#lastFormat, () => this.close(), this.#events.makeVoiceWorker ?? null)
    this.#events.onUse?.(true)
    return this.#receiver
  }

  /** The camera's light goes off when the last track is stopped. */
  #rest(): void {
    if (this.#receiver === null) return
    this.#lastFormat = this.#receiver.format
    this.#receiver = null
    this.#events.onUse?.(false)
  }

  #receive(message: ToMeeting): void {
    if (message.type === 'studio') {
      this.#isFeedOn = message.isFeedOn
      if (message.format !== undefined) this.#lastFormat = message.format
      if (message.isOpen && !this.#isPresent) {
        this.#isPresent = true
        this.#events.onPresence?.()
      }
    }
    // A session that cannot be made is asked for again; the card stands in meanwhile.
    this.#receiver?.receive(message).catch(() => this.#receiver?.abandon())
  }
}
