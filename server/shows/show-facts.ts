// What lists say of stored shows: worked out once for each text, not again at every list.
import { createHash } from 'node:crypto'
import { LRUCache } from 'lru-cache'
import { ownScenesOf } from '../../core/show/edits.ts'
import { readShow } from '../../core/show/migrate.ts'
import type { Show } from '../../core/show/show.ts'
import { tryRead } from '../try-read.ts'

export interface ShowFact {
  /** Its scenes in order, without graphics. */
  readonly scenes: readonly { readonly id: string; readonly name: string }[]
  readonly canvas: { readonly widthPx: number; readonly heightPx: number }
  readonly sceneCount: number
  readonly layerCount: number
  /** Why the stored text cannot be read; null when it can. */
  readonly unreadable: string | null
}

const MOST_FACTS = 5000

export class ShowFacts {
  readonly #facts = new LRUCache<string, ShowFact>({ max: MOST_FACTS })

  /** What is known of a stored text. */
  of(document: string): ShowFact {
    const key = keyOf(document)
    const known = this.#facts.get(key)
    if (known !== undefined) return known
    const read = tryRead(() => readShow(JSON.parse(document)))
    const fact = read.isReadable ? factOf(read.value) : { ...NOTHING, unreadable: read.reason }
    this.#facts.set(key, fact)
    return fact
  }

  /** Remembers a text that was checked already. */
  note(document: string, show: Show): void {
    this.#facts.set(keyOf(document), factOf(show))
  }
}

const NOTHING = { scenes: [], canvas: { widthPx: 16, heightPx: 9 }, sceneCount: 0, layerCount: 0 } as const

function factOf(show: Show): ShowFact {
  const { scenes, canvas } = show
  const own = ownScenesOf(show).map(({ id, name }) => ({ id, name }))
  return {
    scenes: own,
    canvas: { widthPx: canvas.widthPx, heightPx: canvas.heightPx },
    sceneCount: own.length,
    layerCount: scenes.reduce((sum, scene) => sum + scene.layers.length, 0),
    unreadable: null,
  }
}

const keyOf = (document: string) => createHash('sha256').update(document).digest('base64')
