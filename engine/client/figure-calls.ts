// What the engine measures for as long as somebody looks: one input's scopes, one camera's motion.
import type { LayerPlace } from '../protocol.ts'
import type { EngineLink } from './engine-link.ts'

export class FigureCalls {
  readonly #link: EngineLink

  constructor(link: EngineLink) {
    this.#link = link
  }

  /** Measures an input's scopes until told otherwise; null for none. */
  watchScopes(inputId: string | null, layer: LayerPlace | null): void {
    this.#link.post({ type: 'watch', inputId, layer })
  }

  /** Tells what moves in a camera's pictures until told otherwise; null for none. */
  watchMotion(inputId: string | null): void {
    this.#link.post({ type: 'watchMotion', inputId })
  }
}
