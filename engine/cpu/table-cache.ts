// Tables of colour functions; the one that was not used for longest serves again.
import { LRUCache } from 'lru-cache'
import type { Run } from '../../core/steps/chain.ts'
import type { PointFunction } from '../../core/steps/step.ts'
import { ColourMemo, type AlphaForm, type CodeSpace } from './colour-memo.ts'
import type { Heap } from './heap.ts'

const TABLES_KEPT = 9

export class TableCache {
  readonly #heap: Heap
  readonly #memos = new LRUCache<string, ColourMemo>({ max: TABLES_KEPT })

  constructor(heap: Heap) {
    this.#heap = heap
  }

  /** The table of colour functions that `pointsKey` names. */
  table(pointsKey: string, points: readonly PointFunction[], space: CodeSpace, form: AlphaForm): ColourMemo {
    const key = `${space === 'rgb' ? 'rgb' : `${space.matrix} ${space.range}`} ${form} ${pointsKey}`
    const known = this.#memos.get(key)
    if (known !== undefined) return known
    const memo = (this.#memos.size < TABLES_KEPT ? this.#newTable() : null) ?? this.#memos.pop()!
    memo.reset(points, space, form)
    this.#memos.set(key, memo)
    return memo
  }

  /** The table of a chain's colour functions; null where there are none, and colours stay as they are coded. */
  tableOf({ key, points }: Run, space: CodeSpace, form: AlphaForm): ColourMemo | null {
    return points.length === 0 ? null : this.table(key, points, space, form)
  }

  dispose(): void {
    for (const memo of this.#memos.values()) memo.dispose()
    this.#memos.clear()
  }

  /** Another table; null when there is no room and an old one can serve. */
  #newTable(): ColourMemo | null {
    try {
      return new ColourMemo(this.#heap)
    } catch (error) {
      if (this.#memos.size === 0) throw error
      return null
    }
  }
}
