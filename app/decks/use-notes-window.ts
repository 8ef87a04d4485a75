// The window of notes reads the studio that opened it, and turns its pages.
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import type { DeckPage } from '../../core/inputs/deck.ts'
import { useDecksStore } from './decks.store.ts'

/** What the window of notes shows. */
export interface NotesNow {
  readonly deckName: string
  readonly page: DeckPage
  readonly next: DeckPage | null
  /** From 0; −1 for a page that is skipped. */
  readonly index: number
  readonly count: number
  readonly sinceMs: number
  /** When the deck was first seen in this tab, by the clock of the day. */
  readonly beganMs: number
  readonly plannedMin: number | null
}

declare global {
  interface Window {
    greenRoomNotes?: { readonly read: () => NotesNow | null; readonly turn: (by: number) => void }
  }
}

/** Lets windows of notes read which page is shown, whichever view is open. */
export function shareNotes(): void {
  const decks = useDecksStore()
  window.greenRoomNotes = {
    read: () => {
      const now = decks.current
      if (now === null) return null
      const { deck, page, next, index, shown } = now
      const { sinceMs, beganMs } = decks.timesOf(deck.id)
      return { deckName: deck.name, page, next, index, count: shown.length, sinceMs, beganMs, plannedMin: deck.plannedMin }
    },
    turn: (by) => void decks.turn(by),
  }
}

export function useNotesWindow() {
  const { t } = useI18n()

  function openNotes(): void {
    if (window.open('/notes/', 'green-room-notes', 'popup,width=900,height=640') === null) toast.error(t('outputs.windowBlocked'))
  }

  return { openNotes }
}
