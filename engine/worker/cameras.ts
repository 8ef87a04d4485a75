// The cameras that are open, and whose pictures set the beat.
import type { SourceId } from '../../core/plan/frame-plan.ts'
import { inputSourceId } from '../../core/plan/plan-frame.ts'
import type { CameraSupply, EngineStats } from '../protocol.ts'
import { CameraSource } from './camera-source.ts'
import type { FrameLedger } from './frame-ledger.ts'

export interface CameraEvents {
  /** A new picture has come. */
  readonly onFrame: (inputId: string, source: CameraSource) => void
  /** A camera was dropped: by who opened it, or because it ended. */
  readonly onGone: (inputId: string, hasEnded: boolean) => void
}

export class Cameras {
  readonly #sources = new Map<string, CameraSource>()
  readonly #ledger: FrameLedger
  readonly #events: CameraEvents

  constructor(ledger: FrameLedger, events: CameraEvents) {
    this.#ledger = ledger
    this.#events = events
  }

  /** Takes pictures from a supply; a camera that was open for the input is closed. */
  open(inputId: string, supply: CameraSupply): void {
    this.#sources.get(inputId)?.close()
    const isCurrent = () => this.#sources.get(inputId) === source
    const events = {
      onFrame: () => {
        if (isCurrent()) this.#events.onFrame(inputId, source)
      },
      onEnd: () => {
        if (!isCurrent()) return
        this.#sources.delete(inputId)
        source.close()
        this.#events.onGone(inputId, true)
      },
    }
    const source: CameraSource =
      supply.type === 'stream' ? CameraSource.fromStream(supply.readable, this.#ledger, events) : CameraSource.fromPort(supply.port, events)
    this.#sources.set(inputId, source)
  }

  drop(inputId: string): void {
    this.#sources.get(inputId)?.close()
    this.#sources.delete(inputId)
    this.#events.onGone(inputId, false)
  }

  /** Drops those that no input is there for any more. */
  keepOnly(inputIds: ReadonlySet<string>): void {
    for (const inputId of [...this.#sources.keys()]) if (!inputIds.has(inputId)) this.drop(inputId)
  }

  freeze(inputId: string, isFrozen: boolean): void {
    this.#sources.get(inputId)?.freeze(isFrozen)
  }

  /** The camera whose pictures set the beat: the frontmost of those drawn on air, else any; null without one. `drawn` from back to front. */
  beatInputId(drawn: readonly SourceId[]): string | null {
    for (let i = drawn.length - 1; i >= 0; i -= 1) {
      for (const inputId of this.#sources.keys()) if (drawn[i] === inputSourceId(inputId)) return inputId
    }
    // Nothing on air moves: any camera will do for the views.
    for (const inputId of this.#sources.keys()) return inputId
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
