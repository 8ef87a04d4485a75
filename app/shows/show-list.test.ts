import { expect, it } from 'vitest'
import type { ShowSummary } from '../show/api.ts'
import { listedShows, type ShowOrder } from './show-list.ts'

function stored(name: string, day: number, scenes: readonly string[]): ShowSummary {
  return {
    id: name,
    name,
    revision: 1,
    updatedAt: `2026-11-${String(day).padStart(2, '0')}T08:00:00.000Z`,
    sceneCount: scenes.length,
    scenes: scenes.map((scene) => ({ id: scene, name: scene })),
    canvas: { widthPx: 1280, heightPx: 720 },
    unreadable: null,
  }
}

const shows = [
  stored('Evening 10', 3, ['Welcome']),
  stored('evening 2', 9, ['Welcome', 'Key points', 'Questions']),
  stored('Ärztetag', 5, ['Begrüßung', 'Fragen']),
]
const names = (typed: string, order: ShowOrder = 'changed') => listedShows(shows, typed, order, 'en').map(({ id }) => id)

it('lists all, the newest change first, by name with numbers in order, or by how many scenes', () => {
  expect(names('')).toEqual(['evening 2', 'Ärztetag', 'Evening 10'])
  expect(names('', 'name')).toEqual(['Ärztetag', 'evening 2', 'Evening 10'])
  expect(names('  ', 'scenes')).toEqual(['evening 2', 'Ärztetag', 'Evening 10'])
})

it('finds by the name of the show or of a scene, whatever its case and accents', () => {
  expect(names('EVEN')).toEqual(['evening 2', 'Evening 10'])
  expect(names('arzte')).toEqual(['Ärztetag'])
  expect(names('question')).toEqual(['evening 2'])
  expect(names('nothing of that name')).toEqual([])
})
