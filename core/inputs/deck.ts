import { z } from 'zod'
import { strokesSchema, type Stroke } from '../drawing/stroke.ts'
import type { MakeId } from '../random/make-id.ts'
import { LIMITS, RANGES } from '../schema/limits.ts'
import { id, name, whole } from '../schema/values.ts'
import type { Input, InputBase, InputDefinition } from './input.ts'
import { assetSchema, inputBase } from './schema.ts'
import { inputSourceId, pageSourceId } from './source-ids.ts'

/** One page of a deck, as a picture. */
export interface DeckPage {
  readonly id: string
  /** SHA-256 of its picture, lower-case hex. */
  readonly asset: string
  readonly widthPx: number
  readonly heightPx: number
  /** Its place in the file, from 1. */
  readonly number: number
  /** Its first words; empty where it has none. */
  readonly title: string
  /** What the presenter wants to say; the audience never sees it. */
  readonly notes: string
  /** Whether turning passes it over. */
  readonly skipped: boolean
  /** What is drawn on it and kept, from the lowest stroke to the topmost. */
  readonly strokes: readonly Stroke[]
}

/** Slides, or a white board: pages that are turned on air. */
export interface DeckInput extends InputBase {
  readonly kind: 'deck'
  /** The file that it was imported from; null: it is a white board, whose pages are blank sheets. */
  readonly fileName: string | null
  readonly pages: readonly DeckPage[]
  /** The page that it opens at; on air, the page that it was turned to. */
  readonly pageId: string
  /** How long it is meant to take; null: not said. */
  readonly plannedMin: number | null
}

const page = z.strictObject({
  id,
  asset: assetSchema,
  widthPx: whole(RANGES.pageSidePx),
  heightPx: whole(RANGES.pageSidePx),
  number: whole(RANGES.pageNumber),
  title: z.string().max(LIMITS.nameLength),
  notes: z.string().max(LIMITS.notesLength),
  skipped: z.boolean(),
  strokes: strokesSchema,
})

const schema = z
  .strictObject({
    ...inputBase,
    kind: z.literal('deck'),
    fileName: name.nullable(),
    pages: z.array(page).min(1, 'must hold at least one page').max(LIMITS.deckPages),
    pageId: id,
    plannedMin: whole(RANGES.plannedMin).nullable(),
  })
  .refine(({ pages }) => new Set(pages.map(({ id }) => id)).size === pages.length, { path: ['pages'], message: 'must not hold two pages of one id' })
  .refine(({ pages, pageId }) => pages.some(({ id }) => id === pageId), { path: ['pageId'], message: 'must be the id of one of its pages' })

export const deck: InputDefinition<'deck'> = {
  kind: 'deck',
  schema,
  subject: 'page',
  pageRank: 1,
  isPageWhenWhole: true,
  canBeMark: false,
  fit: 'fit',
  hasPicture: true,
  sourceId: ({ id, pages }, pageId = null) => (pages.some((one) => one.id === pageId) ? pageSourceId(id, pageId!) : inputSourceId(id)),
  still: (input, pageId = null) => ({ type: 'asset', asset: pageAt(input, pageId).asset }),
  files: ({ pages }) => pages.map(({ asset }) => asset),
  ahead: (input) => [turned(input, 1), turned(input, 2), turned(input, -1)].map((one) => pageAt(one).asset),
  inCover: (input) => ({ id: input.id, kind: 'picture', name: input.name, asset: pageAt(input).asset, treatment: input.treatment }),
  placeholder: null,
}

export const isDeck = (input: Input): input is DeckInput => input.kind === 'deck'

/** The page of an id; the one that the deck is at where there is none of that id. */
export function pageAt({ pages, pageId }: DeckInput, staysAt: string | null = null): DeckPage {
  return pages.find(({ id }) => id === staysAt) ?? pages.find(({ id }) => id === pageId) ?? pages[0]!
}

/** The deck turned by so many pages, back where negative; pages that are skipped don't count, and it stops at either end. */
export function turned(deck: DeckInput, by: number): DeckInput {
  const at = deck.pages.indexOf(pageAt(deck))
  const way = Math.sign(by)
  let reached = at
  for (let left = Math.abs(by), index = at + way; left > 0 && index >= 0 && index < deck.pages.length; index += way) {
    if (deck.pages[index]!.skipped) continue
    reached = index
    left -= 1
  }
  return reached === at ? deck : { ...deck, pageId: deck.pages[reached]!.id }
}

/** The pages that turning stops at; all of them where every one is skipped. */
export function shownPages({ pages }: DeckInput): readonly DeckPage[] {
  const shown = pages.filter(({ skipped }) => !skipped)
  return shown.length === 0 ? pages : shown
}

/** Whether its pages are blank sheets. */
export const isBoard = ({ fileName }: DeckInput): boolean => fileName === null

/** A white board of so many sheets, at least one, that all have one picture. */
export function newBoard(name: string, sheet: Pick<DeckPage, 'asset' | 'widthPx' | 'heightPx'>, count: number, makeId: MakeId): DeckInput {
  const pages = Array.from({ length: count }, (_, index) => newSheet(sheet, index + 1, makeId))
  return newDeck(name, null, pages, makeId)
}

/** A blank sheet like another. */
export function newSheet({ asset, widthPx, heightPx }: Pick<DeckPage, 'asset' | 'widthPx' | 'heightPx'>, number: number, makeId: MakeId): DeckPage {
  return { id: makeId(), asset, widthPx, heightPx, number, title: '', notes: '', skipped: false, strokes: [] }
}

/** A deck at its first page. `pages` must not be empty. */
export function newDeck(name: string, fileName: string | null, pages: readonly DeckPage[], makeId: MakeId): DeckInput {
  const first = pages.find(({ skipped }) => !skipped) ?? pages[0]
  if (first === undefined) throw new RangeError('a deck has at least one page')
  return { id: makeId(), kind: 'deck', name, fileName, pages, pageId: first.id, plannedMin: null, treatment: [] }
}
