// A file that was changed and is imported again: which of its pages are the ones that the deck has, so that their ids, and all that hangs on them, stay.
import type { DeckPage } from '../inputs/deck.ts'
import type { MakeId } from '../random/make-id.ts'

/** A page as it was just imported. */
export type NewPage = Omit<DeckPage, 'id' | 'skipped' | 'strokes'>

export interface MatchedPages {
  readonly pages: readonly DeckPage[]
  /** Numbers of pages: those that look other than before, that are new, and that are gone (their old numbers). */
  readonly changed: readonly number[]
  readonly added: readonly number[]
  readonly removed: readonly number[]
}

/**
 * Pairs pages in three rounds, each among those that are left: equal pictures; equal titles, in order; and whatever lies between the same two
 * neighbours, as many as there are on both sides. Pages that are paired keep their ids, what is drawn on them, and whether they are skipped.
 */
export function matchPages(before: readonly DeckPage[], now: readonly NewPage[], makeId: MakeId): MatchedPages {
  const pairs = new Map<number, DeckPage>()
  const left = new Set(before)
  const pair = (index: number, page: DeckPage | undefined) => {
    if (page === undefined || pairs.has(index)) return
    pairs.set(index, page)
    left.delete(page)
  }
  now.forEach((page, index) =>
    pair(
      index,
      nearest(left, ({ asset }) => asset === page.asset, page.number),
    ),
  )
  now.forEach((page, index) => {
    if (!pairs.has(index) && page.title !== '')
      pair(
        index,
        nearest(left, ({ title }) => title === page.title, page.number),
      )
  })
  for (const { indices, pages } of gaps(before, now, pairs)) {
    if (indices.length === pages.length) indices.forEach((index, place) => pair(index, pages[place]))
  }
  const pages = now.map((page, index) => {
    const known = pairs.get(index)
    return { ...page, id: known?.id ?? makeId(), skipped: known?.skipped ?? false, strokes: known?.strokes ?? [] }
  })
  return {
    pages,
    changed: now.flatMap(({ asset, number }, index) => (pairs.has(index) && pairs.get(index)!.asset !== asset ? [number] : [])),
    added: now.flatMap(({ number }, index) => (pairs.has(index) ? [] : [number])),
    removed: before.filter((page) => left.has(page)).map(({ number }) => number),
  }
}

/** Of several that fit, the one whose place in the file is nearest. */
function nearest(pages: ReadonlySet<DeckPage>, fits: (page: DeckPage) => boolean, number: number): DeckPage | undefined {
  return [...pages].filter(fits).toSorted((one, other) => Math.abs(one.number - number) - Math.abs(other.number - number))[0]
}

/** Runs of pages without a partner, on both sides between the same partners. */
function gaps(before: readonly DeckPage[], now: readonly NewPage[], pairs: ReadonlyMap<number, DeckPage>) {
  const found: { indices: number[]; pages: DeckPage[] }[] = []
  const paired = new Set(pairs.values())
  let oldAt = 0
  let indices: number[] = []
  for (let index = 0; index <= now.length; index += 1) {
    const partner = pairs.get(index)
    if (index < now.length && partner === undefined) {
      indices.push(index)
      continue
    }
    const end = partner === undefined ? before.length : before.indexOf(partner)
    // A page that was moved to the front is no end of a gap.
    if (end >= oldAt) {
      if (indices.length > 0) found.push({ indices, pages: before.slice(oldAt, end).filter((page) => !paired.has(page)) })
      oldAt = end + 1
    }
    indices = []
  }
  return found
}
