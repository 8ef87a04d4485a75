// What becomes of slides that were imported: a deck in the show, seen where the presenter wants it; each one step of undo.
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { replacePages } from '../../core/decks/deck-edits.ts'
import { addDeckScenes, type DeckStyle } from '../../core/decks/deck-scenes.ts'
import { matchPages, type NewPage } from '../../core/decks/match-pages.ts'
import { isDeck, newDeck, type DeckInput } from '../../core/inputs/deck.ts'
import { usePlacing } from '../build/use-placing.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useHeads } from '../inputs/use-heads.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useDeckImportStore } from './deck-import.store.ts'

export function useAddDeck() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const deckImport = useDeckImportStore()
  const { heads } = useHeads()
  const { placeInput } = usePlacing()

  /** Adds the imported slides as scenes of the styles, or to the scene on the stage where none is named. Throws as calls of the server do. */
  async function addDeck(styles: readonly DeckStyle[]): Promise<void> {
    const { showId } = showStore
    const pages = await deckImport.keepPages()
    // Given up, or the show was closed meanwhile.
    if (pages === null || showStore.showId !== showId) return
    const deck = newDeck(deckImport.name, deckImport.fileName, withIds(pages, deckImport.skipped), makeId)
    const isAdded = styles.length === 0 ? placeInput(deck, true) !== null : addScenes(deck, styles)
    if (isAdded) deckImport.close()
    else deckImport.phase = 'ready'
  }

  function addScenes(deck: DeckInput, styles: readonly DeckStyle[]): boolean {
    const { show, sceneId } = showStore
    const index = show!.scenes.filter(({ graphic }) => graphic === null).findIndex(({ id }) => id === sceneId)
    const facts = { infos: engine.infos, heads: heads.value }
    const words = {
      scene: (style: DeckStyle) => `${deck.name.slice(0, 50)}, ${t(`decks.sceneNames.${style}`)}`,
      divider: t('layouts.divider'),
      ink: t('layouts.ink', { name: deck.name.slice(0, 60) }),
    }
    const isAdded = showStore.edit(t('edits.addDeck', { name: deck.name }), (now) => addDeckScenes(now, deck, styles, index, facts, words, makeId))
    if (isAdded) showStore.selectScene(showStore.show!.scenes[index + 1]!.id)
    return isAdded
  }

  /** Gives a deck the pages of the imported slides; those that it had keep their ids. Throws as calls of the server do. */
  async function replaceDeck(inputId: string): Promise<void> {
    const { showId } = showStore
    const kept = await deckImport.keepPages()
    const before = showStore.show?.inputs.find(({ id }) => id === inputId)
    if (kept === null || showStore.showId !== showId) return
    if (before === undefined || !isDeck(before)) {
      toast.error(t('decks.gone'))
      return deckImport.close()
    }
    const { pages } = matchPages(before.pages, kept, makeId)
    const marked = pages.map((page) => ({ ...page, skipped: page.skipped || deckImport.skipped.has(page.number) }))
    const isDone = showStore.edit(t('edits.replaceDeck', { name: before.name }), (now) =>
      replacePages(now, inputId, { pages: marked, fileName: deckImport.fileName }),
    )
    if (isDone) deckImport.close()
    else deckImport.phase = 'ready'
  }

  return { addDeck, replaceDeck }
}

function withIds(pages: readonly NewPage[], skipped: ReadonlySet<number>) {
  return pages.map((page) => ({ ...page, id: makeId(), skipped: skipped.has(page.number), strokes: [] }))
}
