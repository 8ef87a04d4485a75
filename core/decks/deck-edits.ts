// Edits of decks and of what layers show of them.
import { isBoard, isDeck, newSheet, type DeckInput } from '../inputs/deck.ts'
import { isInputLayer } from '../layers/input.ts'
import type { MakeId } from '../random/make-id.ts'
import { LIMITS } from '../schema/limits.ts'
import { updateInputOf, updateLayer } from '../show/edits.ts'
import type { Show } from '../show/show.ts'

/** Has a layer stay at a page of its deck; null: it follows the deck. */
export function setPage(show: Show, sceneId: string, layerId: string, pageId: string | null): Show {
  return updateLayer(show, sceneId, layerId, (layer) => (isInputLayer(layer) && layer.pageId !== pageId ? { ...layer, pageId } : layer))
}

/** Has turning pass over a page, or no longer. */
export function skipPage(show: Show, inputId: string, pageId: string, isSkipped: boolean): Show {
  const pages = (deck: DeckInput) => deck.pages.map((page) => (page.id === pageId ? { ...page, skipped: isSkipped } : page))
  return updateInputOf(show, inputId, isDeck, (deck) => ({ ...deck, pages: pages(deck) }))
}

/** Adds a sheet after the last of a white board; other decks stay as they are. */
export function addSheet(show: Show, inputId: string, makeId: MakeId): Show {
  const added = (deck: DeckInput) => [...deck.pages, newSheet(deck.pages[0]!, Math.max(...deck.pages.map(({ number }) => number)) + 1, makeId)]
  return updateInputOf(show, inputId, isDeck, (deck) => (isBoard(deck) && deck.pages.length < LIMITS.deckPages ? { ...deck, pages: added(deck) } : deck))
}

/** The show with other pages in a deck; a page that it opened at, or stays at somewhere, may be gone. The same object where it has no such deck. */
export function replacePages(show: Show, inputId: string, part: Pick<DeckInput, 'pages' | 'fileName'>): Show {
  const known = show.inputs.find(({ id }) => id === inputId)
  if (known === undefined || !isDeck(known)) return show
  const pageId = part.pages.some(({ id }) => id === known.pageId) ? known.pageId : part.pages[0]!.id
  return { ...show, inputs: show.inputs.map((input) => (input === known ? { ...known, ...part, pageId } : input)) }
}
