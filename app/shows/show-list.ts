// Which shows the library lists, and in what order.
import { matchSorter } from 'match-sorter'
import type { ShowSummary } from '../show/api.ts'

export const showOrders = ['changed', 'name', 'scenes'] as const
/** Newest change first, by name, or with the most scenes first. */
export type ShowOrder = (typeof showOrders)[number]

/** The shows whose name, or the name of a scene, has what was typed, in any case and without accents. */
export function listedShows(shows: readonly ShowSummary[], typed: string, order: ShowOrder, locale: string): ShowSummary[] {
  const words = typed.trim()
  const fitting = words === '' ? [...shows] : matchSorter(shows, words, { keys: ['name', 'scenes.*.name'], threshold: matchSorter.rankings.CONTAINS })
  const compare: Readonly<Record<ShowOrder, (one: ShowSummary, other: ShowSummary) => number>> = {
    changed: (one, other) => Date.parse(other.updatedAt) - Date.parse(one.updatedAt),
    name: (one, other) => one.name.localeCompare(other.name, locale, { numeric: true, sensitivity: 'base' }),
    scenes: (one, other) => other.sceneCount - one.sceneCount,
  }
  return fitting.toSorted(compare[order])
}
