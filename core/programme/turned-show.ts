// A show with its decks at the pages that they were turned to.
import { isDeck } from '../inputs/deck.ts'
import type { Show } from '../show/show.ts'
import type { TurnedDeck } from './programme.ts'

/** The show as the programme has turned its decks; a page that the show does not have any more is passed over. The same object where no deck is turned. */
export function turnedShow(show: Show, showId: string, decks: readonly TurnedDeck[]): Show {
  const pageIds = new Map(decks.flatMap((deck) => (deck.showId === showId ? [[deck.inputId, deck.pageId] as const] : [])))
  if (pageIds.size === 0) return show
  let isTurned = false
  const inputs = show.inputs.map((input) => {
    const pageId = pageIds.get(input.id)
    if (pageId === undefined || !isDeck(input) || input.pageId === pageId || !input.pages.some(({ id }) => id === pageId)) return input
    isTurned = true
    return { ...input, pageId }
  })
  return isTurned ? { ...show, inputs } : show
}
