// Which sources are cameras, and which have pictures only while something runs.
import { isCamera } from '../../core/inputs/camera.ts'
import { inputKindOf } from '../../core/inputs/index.ts'
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { Input } from '../../core/show/show.ts'

export class LiveIds {
  #inputs: readonly Input[] | null = null
  #cameras: ReadonlySet<SourceId> = new Set()
  #live: ReadonlySet<SourceId> = new Set()

  /** Takes over the inputs of a show; false where they are the ones of before. */
  follow(inputs: readonly Input[]): boolean {
    if (inputs === this.#inputs) return false
    this.#inputs = inputs
    this.#cameras = sourceIdsOf(inputs.filter(isCamera))
    this.#live = sourceIdsOf(inputs.filter((input) => inputKindOf(input).still(input) === null))
    return true
  }

  readonly isCamera = (sourceId: SourceId): boolean => this.#cameras.has(sourceId)

  /** A scene that should have one of these and has none is not shown. */
  readonly isLive = (sourceId: SourceId): boolean => this.#live.has(sourceId)
}

function sourceIdsOf(inputs: readonly Input[]): ReadonlySet<SourceId> {
  return new Set(inputs.map(({ id }) => inputSourceId(id)))
}
