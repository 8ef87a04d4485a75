// Which shows the library lists, and in what order.
import { ownScenesOf } from '../../core/show/edits.ts'
import { matchSorter } from 'match-sorter'
import type { StoredShow } from '../show/api.ts'

export const showOrders = ['changed', 'name', 'scenes'] as const
/** Newest change first, by name, or with the most scenes first. */
export type ShowOrder = (typeof showOrders)[number]

/** The shows whose name, or the name of a scene, has what was typed, in any case and without accents. */
export function listedShows(shows: readonly StoredShow[], typed: string, order: ShowOrder, locale: string): StoredShow[] {
  const words = typed.trim()
  const fitting = words === '' ? [...shows] : matchSorter(shows, words, { keys: ['show.name', 'show.scenes.*.name'], threshold: matchSorter.rankings.CONTAINS })
  const compare: Readonly<Record<ShowOrder, (one: StoredShow, other: StoredShow) => number>> = {
    changed: (one, other) => Date.parse(other.updatedAt) - Date.parse(one.updatedAt),
    name: (one, other) => one.show.name.localeCompare(other.show.name, locale, { numeric: true, sensitivity: 'base' }),
    scenes: (one, other) => ownScenesOf(other.show).length - ownScenesOf(one.show).length,
  }
  return fitting.toSorted(compare[order])
}
