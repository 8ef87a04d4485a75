// What is measured of single inputs while somebody looks: scopes, motion, the colour under the pointer.
import { formatHex } from '../../core/colour/hex.ts'
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import type { Show } from '../../core/show/show.ts'
import { blockMeans } from '../../core/sync/clap-picture.ts'
import type { Executors } from '../executors.ts'
import type { FromEngine, LayerPlace, ToEngine } from '../protocol.ts'
import type { SourceBook } from '../sources/source-book.ts'
import type { LiveSource } from './live-source.ts'
import { pickColour } from './pick-colour.ts'
import { ScopeWatch } from './scope-watch.ts'
import { treatmentOf } from './steps-of.ts'

const SCOPES_EVERY_MS = 220
const SCOPES_EVERY_MS_ON_AIR = 600

export class Figures {
  readonly #executors: Executors
  readonly #book: SourceBook
  readonly #post: (message: FromEngine, transfer?: Transferable[]) => void
  #scopes: ScopeWatch | null = null
  #motionInputId: string | null = null

  constructor(executors: Executors, book: SourceBook, post: (message: FromEngine, transfer?: Transferable[]) => void) {
    this.#executors = executors
    this.#book = book
    this.#post = post
  }

  /** Measures one input's scopes from now on; null for none. */
  watchScopes(inputId: string | null, layer: LayerPlace | null): void {
    this.#scopes?.dispose()
    this.#scopes = inputId === null ? null : new ScopeWatch(inputId, layer, this.#executors)
  }

  /** Tells what moves in one input from now on; null for none. */
  watchMotion(inputId: string | null): void {
    this.#motionInputId = inputId
  }

  /** Whether every picture of some input counts. */
  get watchesMotion(): boolean {
    return this.#motionInputId !== null
  }

  /** A source has another size: nothing measured before fits. */
  invalidate(): void {
    this.#scopes?.invalidate()
  }

  /** Measures the scopes if they are due. */
  measureScopes(show: Show, nowMs: number, isOnAir: boolean): void {
    const scopes = this.#scopes
    if (scopes === null || nowMs - scopes.lastMs < (isOnAir ? SCOPES_EVERY_MS_ON_AIR : SCOPES_EVERY_MS)) return
    scopes.lastMs = nowMs
    const measured = scopes.measure(show, this.#book)
    if (measured !== null) this.#post({ type: 'scopes', inputId: scopes.inputId, scopes: measured })
  }

  /** A new picture of an input has come: when, on the clock that all threads share, and what it looks like in coarse. */
  takeFrame(inputId: string, { frame, captureMs }: LiveSource): void {
    if (this.#motionInputId !== inputId || frame === null) return
    const sample = { arrivalMs: performance.timeOrigin + performance.now(), captureMs, blocks: blockMeans(frame.picture) }
    this.#post({ type: 'motion', sample }, [sample.blocks.buffer as ArrayBuffer])
  }

  /** Tells the colour at a place of an input. */
  pick(show: Show | null, { requestId, inputId, layer, beforeStepId, x, y }: Extract<ToEngine, { type: 'pick' }>): void {
    const frame = this.#book.frames.get(inputSourceId(inputId))
    const input = show?.inputs.find((candidate) => candidate.id === inputId)
    const colour =
      frame === undefined || show === null || input === undefined
        ? null
        : formatHex(pickColour(frame.picture, treatmentOf(show, input, layer), beforeStepId, x, y))
    this.#post({ type: 'picked', requestId, colour })
  }
}
