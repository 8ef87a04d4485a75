// Single pictures and colours, asked for once. Null: there is no picture, it cannot be drawn, or the engine ended meanwhile.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Show } from '../../core/show/show.ts'
import type { LayerPlace } from '../protocol.ts'
import type { EngineLink } from './engine-link.ts'

export class PictureCalls {
  readonly #link: EngineLink

  constructor(link: EngineLink) {
    this.#link = link
  }

  /** The colour at (x, y) of an input, 0..1 across, as step `beforeStepId` meets it. */
  pick(inputId: string, x: number, y: number, beforeStepId: string | null, layer: LayerPlace | null): Promise<string | null> {
    return this.#link.ask<string>((requestId) => ({ type: 'pick', requestId, inputId, x, y, beforeStepId, layer }))
  }

  /** An input's picture as it reaches step `beforeStepId` (null: as it comes). */
  grab(inputId: string, beforeStepId: string | null, layer: LayerPlace | null): Promise<RgbaPicture | null> {
    return this.#link.ask<RgbaPicture>((requestId) => ({ type: 'grab', requestId, inputId, beforeStepId, layer }))
  }

  /** A still of a scene of any show, `widthPx` wide, until the signal says that nobody waits. */
  cover(show: Show, sceneId: string, widthPx: number, signal: AbortSignal): Promise<RgbaPicture | null> {
    return this.#link.ask<RgbaPicture>(
      (requestId) => ({ type: 'cover', requestId, show, sceneId, widthPx }),
      signal,
      (requestId) => ({ type: 'dropCover', requestId }),
    )
  }
}
