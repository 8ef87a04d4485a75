// Edits of decks and of what layers show of them.
import { isDeck, type DeckInput } from '../inputs/deck.ts'
import { isInputLayer } from '../layers/input.ts'
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

/** The show with other pages in a deck; a page that it opened at, or stays at somewhere, may be gone. The same object where it has no such deck. */
export function replacePages(show: Show, inputId: string, part: Pick<DeckInput, 'pages' | 'fileName'>): Show {
  const known = show.inputs.find(({ id }) => id === inputId)
  if (known === undefined || !isDeck(known)) return show
  const pageId = part.pages.some(({ id }) => id === known.pageId) ? known.pageId : part.pages[0]!.id
  return { ...show, inputs: show.inputs.map((input) => (input === known ? { ...known, ...part, pageId } : input)) }
}
