// Tables of colour functions, least recently used first to go.
import type { PointFunction } from '../../core/steps/step.ts'
import { ColourMemo, type AlphaForm, type CodeSpace } from './colour-memo.ts'
import type { Heap } from './heap.ts'

const TABLES_KEPT = 9

interface Entry {
  key: string
  readonly memo: ColourMemo
  lastUse: number
}

export class TableCache {
  readonly #heap: Heap
  readonly #entries: Entry[] = []
  #uses = 0

  constructor(heap: Heap) {
    this.#heap = heap
  }

  /** The table of colour functions that `pointsKey` names. */
  table(pointsKey: string, points: readonly PointFunction[], space: CodeSpace, form: AlphaForm): ColourMemo {
    this.#uses += 1
    const key = `${space === 'rgb' ? 'rgb' : `${space.matrix} ${space.range}`} ${form} ${pointsKey}`
    for (let i = 0; i < this.#entries.length; i += 1) {
      const entry = this.#entries[i]!
      if (entry.key !== key) continue
      entry.lastUse = this.#uses
      return entry.memo
    }
    const entry = this.#free()
    entry.key = key
    entry.lastUse = this.#uses
    entry.memo.reset(points, space, form)
    return entry.memo
  }

  dispose(): void {
    for (const entry of this.#entries) entry.memo.dispose()
    this.#entries.length = 0
  }

  #free(): Entry {
    if (this.#entries.length < TABLES_KEPT) {
      const memo = this.#newTable()
      if (memo !== null) {
        const entry = { key: '', memo, lastUse: 0 }
        this.#entries.push(entry)
        return entry
      }
    }
    return this.#entries.reduce((oldest, entry) => (entry.lastUse < oldest.lastUse ? entry : oldest))
  }

  /** Another table; null when there is no room and an old one can serve. */
  #newTable(): ColourMemo | null {
    try {
      return new ColourMemo(this.#heap)
    } catch (error) {
      if (this.#entries.length === 0) throw error
      return null
    }
  }
}
