import type { DeckInput } from '../../core/inputs/deck.ts'
import { useDeckImportStore } from './deck-import.store.ts'
import { DECK_KINDS } from './deck-source.ts'

export function useChooseDeck() {
  const deckImport = useDeckImportStore()

  /** Opens the browser's chooser of files; with `deck`, for its file anew. */
  function chooseDeck(deck: DeckInput | null = null): void {
    const field = document.createElement('input')
    field.type = 'file'
    field.accept = DECK_KINDS
    field.multiple = true
    field.onchange = () => {
      const files = [...(field.files ?? [])]
      if (files.length > 0) void deckImport.open(files, deck)
    }
    field.click()
  }

  return { chooseDeck }
}
