import version4 from '../../tests/fixtures/show-v4.json'
import { expect, it } from 'vitest'
import { readShow } from '../../core/show/migrate.ts'
import { findKept, keepShow, type KeptShow, type KeptStorage } from './kept-shows.ts'

function storage(): KeptStorage {
  const entries = new Map<string, string>()
  return {
    get length() {
      return entries.size
    },
    key: (index) => [...entries.keys()][index] ?? null,
    getItem: (key) => entries.get(key) ?? null,
    setItem: (key, value) => void entries.set(key, value),
    removeItem: (key) => void entries.delete(key),
  }
}

it('edits that an earlier version kept in the browser are found as shows of this one', () => {
  const kept = storage()
  const old = structuredClone(version4) as unknown as KeptShow['show']
  keepShow(kept, 'show', 'other-tab', { baseRevision: 3, show: old, saveId: null, copyId: 'copy', keptAtMs: 1 })
  kept.setItem('green-room:pending:show:broken', '{')
  kept.setItem('green-room:pending:show:empty', 'null')
  const found = findKept(kept, 'show', 'this-tab')
  expect(found.map(({ tabId }) => tabId)).toEqual(['other-tab'])
  expect(found[0]!.kept.show).toEqual(readShow(structuredClone(old)))
  expect(findKept(kept, 'show', 'other-tab')).toEqual([])
})
