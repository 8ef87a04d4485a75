// The class with its slides: two scenes show them, as the studio makes them.
import { addDeckScenes, type DeckStyle } from '../core/decks/deck-scenes.ts'
import { newDeck, type DeckPage } from '../core/inputs/deck.ts'
import type { Show } from '../core/show/show.ts'
import { classSlides, SLIDE_HEIGHT_PX, SLIDE_WIDTH_PX } from './draw/class-slides.ts'

const SCENES = { shoulder: 'Slides beside me', inside: 'Inside the slides' } as const
/** After "Just me". */
const AFTER_INDEX = 1

/** The class with a deck of pages, by the hashes of their pictures in the store. Ids count up, so it is the same each time. */
export function withClassDeck(show: Show, hashes: readonly string[]): Show {
  let count = 0
  const makeId = () => `k${(count += 1)}`
  const pages = hashes.map((asset, index): DeckPage => {
    const { title, notes } = classSlides[index]!
    return { id: makeId(), asset, widthPx: SLIDE_WIDTH_PX, heightPx: SLIDE_HEIGHT_PX, number: index + 1, title, notes, skipped: false, strokes: [] }
  })
  const deck = { ...newDeck('Class slides', 'brood-frame.pdf', pages, makeId), plannedMin: 40 }
  const words = { scene: (style: DeckStyle) => SCENES[style as keyof typeof SCENES], divider: 'Divider', ink: 'Class slides, ink' }
  return addDeckScenes(show, deck, ['shoulder', 'inside'], AFTER_INDEX, { infos: new Map(), heads: new Map() }, words, makeId)
}
