// Measures one treated input for the scopes: at half its size, a few times a second.
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { parseHex } from '../../core/colour/hex.ts'
import { keyFigures } from '../../core/matte/figures.ts'
import { planInput } from '../../core/stage/plan-frame.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { areSameParts } from '../../core/stage/plan-parts.ts'
import { clippingOf, histogramOf, vectorscopeOf, waveformOf } from '../../core/scopes/scopes.ts'
import type { Show } from '../../core/show/show.ts'
import type { StepCall } from '../../core/steps/index.ts'
import type { Executor } from '../executor.ts'
import type { Executors } from '../executors.ts'
import type { LayerPlace, Scopes } from '../protocol.ts'
import type { SourceBook } from '../sources/source-book.ts'
import { stepsOf, treatmentOf } from './steps-of.ts'
import { straightOf } from './straight-alpha.ts'

const WAVEFORM_COLUMNS = 256

export class ScopeWatch {
  readonly inputId: string
  lastMs = -Infinity
  readonly #layer: LayerPlace | null
  readonly #executor: Executor
  #plan: FramePlan | null = null
  #parts: readonly unknown[] = []
  #calls: readonly StepCall[] = []
  #scratch = new Uint8ClampedArray(0)

  constructor(inputId: string, layer: LayerPlace | null, executors: Executors) {
    this.inputId = inputId
    this.#layer = layer
    this.#executor = executors.make()
  }

  /** Forgets the plan after a source changed; an edit of the show is noticed. */
  invalidate(): void {
    this.#plan = null
  }

  /** The scopes of the newest picture; null while there is none. */
  measure(show: Show, book: SourceBook): Scopes | null {
    const info = book.infos.get(inputSourceId(this.inputId))
    const input = show.inputs.find((candidate) => candidate.id === this.inputId)
    if (info === undefined || input === undefined) return null
    const parts = treatmentOf(show, input, this.#layer)
    if (this.#plan === null || !areSameParts(parts, this.#parts)) {
      this.#calls = stepsOf(show, input, this.#layer)
      this.#plan = planInput(this.inputId, info, this.#calls, Math.max(1, info.widthPx >> 1), Math.max(1, info.heightPx >> 1))
      this.#parts = parts
    }
    const rendered = this.#executor.render(this.#plan, book.frames)
    if (this.#scratch.length !== rendered.data.length) this.#scratch = new Uint8ClampedArray(rendered.data.length)
    const picture = straightOf(rendered, this.#scratch)
    const key = this.#calls.findLast((call) => call.kind === 'chromaKey' || call.kind === 'colourKey')
    return {
      histogram: histogramOf(picture, 2),
      waveform: waveformOf(picture, WAVEFORM_COLUMNS),
      vectorscope: vectorscopeOf(picture, 2),
      clipping: clippingOf(picture, 2),
      key: key === undefined ? null : keyFigures(picture, parseHex(key.params.colour)),
    }
  }

  dispose(): void {
    this.#executor.dispose()
  }
}
