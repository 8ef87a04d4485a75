// The camera itself, as a page meets it: tracks that answer like a device's.
import type { FromMeeting, ToMeeting } from '../signal.ts'
import type { Transport } from '../transport/transport.ts'
import { unmetConstraint, type CameraFacts } from './constraints.ts'
import { Receiver } from './receiver.ts'

export const CAMERA_LABEL = 'Green Room Camera'

export class VirtualCamera {
  readonly deviceId: string
  readonly groupId: string
  readonly #transport: Transport<FromMeeting, ToMeeting>
  readonly #onPresence: () => void
  readonly #given = new Set<MediaStreamTrack>()
  #receiver: Receiver | null = null
  #isPresent = false
  #isFeedOn = false

  /** `onPresence` hears when the camera first can be listed. */
  constructor(transport: Transport<FromMeeting, ToMeeting>, ids: { deviceId: string; groupId: string }, onPresence: () => void) {
    this.deviceId = ids.deviceId
    this.groupId = ids.groupId
    this.#transport = transport
    this.#onPresence = onPresence
    transport.onMessage = (message) => this.#receive(message)
  }

  /** Whether a studio has been seen; once seen, the camera stays listed while the page lives. */
  get isPresent(): boolean {
    return this.#isPresent
  }

  /** Opens the camera. Throws an OverconstrainedError, as the standard names it. */
  open(constraints: MediaTrackConstraints): MediaStreamTrack {
    this.#check(constraints)
    this.#receiver ??= new Receiver(this.#transport, this.#isFeedOn)
    return this.#dress(this.#receiver.track.clone(), constraints)
  }

  #receive(message: ToMeeting): void {
    if (message.type === 'studio') {
      this.#isFeedOn = message.isFeedOn
      if (message.isOpen && !this.#isPresent) {
        this.#isPresent = true
        this.#onPresence()
      }
    }
    // A session that cannot be made is asked for again; the card stands in meanwhile.
    this.#receiver?.receive(message).catch(() => this.#receiver?.abandon())
  }

  #facts(): CameraFacts {
    const format = this.#receiver?.format ?? { widthPx: 1280, heightPx: 720, frameRate: 30 }
    return { deviceId: this.deviceId, groupId: this.groupId, ...format }
  }

  #check(constraints: MediaTrackConstraints): void {
    const unmet = unmetConstraint(constraints, this.#facts())
    if (unmet !== null) throw new OverconstrainedError(unmet, `${CAMERA_LABEL} cannot meet the required "${unmet}"`)
  }

  /** Makes a track of ours answer as a camera's track does. */
  #dress(track: MediaStreamTrack, constraints: MediaTrackConstraints): MediaStreamTrack {
    let current = constraints
    const nativeStop = track.stop.bind(track)
    const nativeClone = track.clone.bind(track)
    this.#given.add(track)
    const answers: Partial<MediaStreamTrack> = {
      getSettings: () => {
        const { widthPx: width, heightPx: height, frameRate } = this.#facts()
        return {
          deviceId: this.deviceId,
          groupId: this.groupId,
          width,
          height,
          frameRate,
          aspectRatio: width / height,
          resizeMode: 'none',
        } as MediaTrackSettings
      },
      getCapabilities: () => {
        const { widthPx, heightPx, frameRate } = this.#facts()
        return {
          deviceId: this.deviceId,
          groupId: this.groupId,
          width: { min: widthPx, max: widthPx },
          height: { min: heightPx, max: heightPx },
          frameRate: { min: 1, max: frameRate },
          facingMode: [],
        } as MediaTrackCapabilities
      },
      getConstraints: () => ({ ...current }),
      applyConstraints: async (next = {}) => {
        this.#check(next)
        current = next
      },
      clone: () => this.#dress(nativeClone(), current),
      stop: () => {
        nativeStop()
        this.#giveBack(track)
      },
    }
    for (const [name, value] of Object.entries(answers)) Object.defineProperty(track, name, { value, configurable: true })
    Object.defineProperty(track, 'label', { get: () => CAMERA_LABEL, configurable: true })
    return track
  }

  /** The camera's light goes off when the last track is stopped. */
  #giveBack(track: MediaStreamTrack): void {
    this.#given.delete(track)
    if (this.#given.size > 0) return
    this.#receiver?.close()
    this.#receiver = null
  }
}
