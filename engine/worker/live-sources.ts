// Cameras, screens and clips that are open, and whose pictures set the beat.
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { LiveSupply, EngineStats } from '../protocol.ts'
import { LiveSource } from './live-source.ts'
import type { FrameLedger } from './frame-ledger.ts'

/** A supply that ended by itself: which, and what failed; null where nothing did. */
export interface SupplyEnd {
  readonly serial: number
  readonly fault: string | null
}

/** Pictures for an input. `setsBeat`: whether the feed may follow them. */
export interface Supplied {
  readonly supply: LiveSupply
  readonly serial: number
  readonly setsBeat: boolean
}

export interface LiveEvents {
  /** A new picture has come. */
  readonly onFrame: (inputId: string, source: LiveSource) => void
  /** One was dropped: by who opened it (null), or because it ended, and if it failed, why. */
  readonly onGone: (inputId: string, ended: SupplyEnd | null) => void
}

export class LiveSources {
  readonly #sources = new Map<string, LiveSource>()
  /** Those that the feed may follow. */
  readonly #beating = new Set<string>()
  readonly #ledger: FrameLedger
  #isResting = false
  readonly #events: LiveEvents

  constructor(ledger: FrameLedger, events: LiveEvents) {
    this.#ledger = ledger
    this.#events = events
  }

  /** Takes pictures from a supply; one that was open for the input is closed. */
  open(inputId: string, { supply, serial, setsBeat }: Supplied): void {
    if (setsBeat) this.#beating.add(inputId)
    else this.#beating.delete(inputId)
    this.#sources.get(inputId)?.close()
    const isCurrent = () => this.#sources.get(inputId) === source
    const events = {
      onFrame: () => {
        if (isCurrent()) this.#events.onFrame(inputId, source)
      },
      onEnd: (fault: string | null) => {
        if (!isCurrent()) return
        this.#sources.delete(inputId)
        source.close()
        this.#events.onGone(inputId, { serial, fault })
      },
    }
    const source: LiveSource =
      supply.type === 'stream' ? LiveSource.fromStream(supply.readable, this.#ledger, events) : LiveSource.fromPort(supply.port, events)
    source.rest(this.#isResting)
    this.#sources.set(inputId, source)
  }

  drop(inputId: string): void {
    this.#sources.get(inputId)?.close()
    this.#sources.delete(inputId)
    this.#events.onGone(inputId, null)
  }

  /** Drops those that no input is there for any more. */
  keepOnly(inputIds: ReadonlySet<string>): void {
    for (const inputId of [...this.#sources.keys()]) if (!inputIds.has(inputId)) this.drop(inputId)
  }

  freeze(inputId: string, isFrozen: boolean): void {
    this.#sources.get(inputId)?.freeze(isFrozen)
  }

  /** While nobody sees them, most of the devices' pictures are let go unread. */
  rest(isResting: boolean): void {
    if (isResting === this.#isResting) return
    this.#isResting = isResting
    for (const source of this.#sources.values()) source.rest(isResting)
  }

  /** The camera whose pictures set the beat: the frontmost of those drawn on air, else any; null without one. `drawn` from back to front. */
  beatInputId(drawn: readonly SourceId[]): string | null {
    for (let i = drawn.length - 1; i >= 0; i -= 1) {
      for (const inputId of this.#sources.keys()) if (this.#beating.has(inputId) && drawn[i] === inputSourceId(inputId)) return inputId
    }
    // Nothing on air moves: any camera will do for the views.
    for (const inputId of this.#sources.keys()) if (this.#beating.has(inputId)) return inputId
    return null
  }

  stats(nowMs: number): EngineStats['inputs'] {
    return Object.fromEntries(
      [...this.#sources].map(([inputId, { meter, frame, frameNumber }]) => [
        inputId,
        { fps: meter.rate(nowMs), widthPx: frame?.picture.widthPx ?? 0, heightPx: frame?.picture.heightPx ?? 0, frameNumber },
      ]),
    )
  }
}
