import { matchSorter } from 'match-sorter'
import type { Component } from 'vue'

/** Something that can be found by typing. */
export interface Findable {
  readonly id: string
  readonly title: string
  /** What kind of thing it is, in words; found by it too. */
  readonly group: string
  /** Why it cannot be had now; null when it can. */
  readonly whyNot: string | null
}

/** An entry of the palette. */
export interface PaletteItem extends Findable {
  readonly icon: Component | null
  /** Its key in words. */
  readonly key: string | null
  readonly run: () => void
}

/** Most that is listed: more nobody reads. */
const MOST = 60

/** What fits the words that were typed, the best first, in any order of the words; what cannot run comes after what can. All of it without words. */
export function found<T extends Findable>(all: readonly T[], typed: string): T[] {
  const words = typed
    .trim()
    .split(/\s+/)
    .filter((word) => word !== '')
  // The last word is sorted by first, so that the order is that of the first word in the end.
  const fitting = words.reduceRight<T[]>(
    (rest, word) => matchSorter(rest, word, { keys: ['title', { key: 'group', maxRanking: matchSorter.rankings.CONTAINS }] }),
    [...all],
  )
  return fitting.toSorted((one, other) => Number(one.whyNot !== null) - Number(other.whyNot !== null)).slice(0, MOST)
}
