// Outputs of the engine, and their tracks while they run.
import type { OutputId } from '../../core/plan/frame-plan.ts'
import type { OutputOrder } from '../output-order.ts'
import type { EngineLink } from './engine-link.ts'

export class OutputCalls {
  readonly #link: EngineLink
  readonly #tracks = new Map<OutputId, MediaStreamTrack>()

  constructor(link: EngineLink) {
    this.#link = link
  }

  /** Starts an output, or goes on with it; the track lives until `close`. */
  open(order: OutputOrder): MediaStreamTrack {
    const known = this.#tracks.get(order.id)
    if (known !== undefined) return known
    const generator = new MediaStreamTrackGenerator({ kind: 'video' })
    generator.contentHint = 'motion'
    this.#tracks.set(order.id, generator)
    this.#link.post({ type: 'openOutput', order, writable: generator.writable }, [generator.writable])
    return generator
  }

  /** The track of an output; null while it does not run. */
  trackOf(id: OutputId): MediaStreamTrack | null {
    return this.#tracks.get(id) ?? null
  }

  close(id: OutputId): void {
    this.#link.post({ type: 'closeOutput', id })
    this.#tracks.get(id)?.stop()
    this.#tracks.delete(id)
  }

  closeAll(): void {
    for (const id of [...this.#tracks.keys()]) this.close(id)
  }
}
