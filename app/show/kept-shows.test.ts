// What the browser keeps of edits that the server has not acknowledged.
import version4 from '../../tests/fixtures/show-v4.json'
import { beforeEach, describe, expect, it } from 'vitest'
import { readShow } from '../../core/show/migrate.ts'
import { renameShow, updateScene } from '../../core/show/edits.ts'
import type { Show } from '../../core/show/show.ts'
import { testShow } from '../../tests/support/shows.ts'
import { findKept, forgetFound, looseAnchors, ShowKeeper, type KeptShow, type KeptStorage } from './kept-shows.ts'

let entries: Map<string, string>
let room: number
let written: number
let storage: KeptStorage
beforeEach(() => {
  entries = new Map()
  room = Infinity
  written = 0
  storage = {
    get length() {
      return entries.size
    },
    key: (index) => [...entries.keys()][index] ?? null,
    getItem: (key) => entries.get(key) ?? null,
    setItem: (key, value) => {
      if (value.length > room) throw new DOMException('full', 'QuotaExceededError')
      written += value.length
      entries.set(key, value)
    },
    removeItem: (key) => void entries.delete(key),
  }
})

const state = (show: Show, baseRevision = 3): KeptShow => ({ baseRevision, show, saveId: null, copyId: 'copy', keptAtMs: 1 })
const keeper = (tabId = 'other-tab') => new ShowKeeper(storage, 'show', tabId)
const found = () => findKept(storage, 'show', 'this-tab')
const noted = (show: Show, notes: string) => updateScene(show, show.scenes[0]!.id, (scene) => ({ ...scene, notes }))

describe('what a tab keeps', () => {
  it('is found by other tabs as it was last, and not by itself', () => {
    const one = keeper()
    let show = testShow()
    for (const notes of ['a', 'ab', 'abc']) expect(one.keep(state((show = noted(show, notes))))).toBe(true)
    expect(found()).toMatchObject([{ tabId: 'other-tab', kept: { baseRevision: 3, copyId: 'copy', show: { scenes: [{ notes: 'abc' }, {}, {}, {}] } } }])
    expect(found()[0]!.kept.show).toEqual(show)
    expect(findKept(storage, 'show', 'other-tab')).toEqual([])
  })

  it('writes the show once, then what each edit changed, saved in between or not', () => {
    const one = keeper()
    const show = testShow()
    one.keep(state(noted(show, 'first')))
    const whole = written
    for (let i = 0; i < 50; i += 1) {
      one.keep(state(noted(show, `note ${i}`), i))
      one.forget()
    }
    expect(whole).toBeGreaterThan(JSON.stringify(show).length)
    expect((written - whole) / 50).toBeLessThan(JSON.stringify(show).length / 10)
    expect(found()).toEqual([])
  })

  it('writes the show anew when edits have grown, and never names an anchor that is gone', () => {
    const one = keeper()
    const show = testShow()
    const seen = new Set<string>()
    for (let i = 0; i < 30; i += 1) {
      const layers = Array.from({ length: i * 8 }, (_, n) => ({ ...show.scenes[0]!.layers[0]!, id: `l${n}`, name: 'x'.repeat(80) }))
      const next = updateScene(show, show.scenes[0]!.id, (scene) => ({ ...scene, notes: `${'long '.repeat(700)}${i}`, layers }))
      one.keep(state(next))
      expect(found()[0]!.kept.show).toEqual(next)
      seen.add(found()[0]!.anchor!)
      expect([...entries.keys()].filter((key) => key.startsWith('green-room:anchor:'))).toHaveLength(1)
    }
    expect(seen.size).toBeGreaterThan(2)
    expect(seen.size).toBeLessThan(20)
  })

  it('stays as it was where the browser has no room, and says so', () => {
    const one = keeper()
    const show = testShow()
    expect(one.keep(state(noted(show, 'kept')))).toBe(true)
    room = 100
    expect(one.keep(state(noted(show, 'lost')))).toBe(false)
    expect(found()[0]!.kept.show.scenes[0]!.notes).toBe('kept')
    room = Infinity
    expect(one.keep(state(noted(show, 'kept again')))).toBe(true)
    expect(found()[0]!.kept.show.scenes[0]!.notes).toBe('kept again')
    const other = keeper('full-tab')
    room = 100
    expect(other.keep(state(show))).toBe(false)
    expect(found().map(({ tabId }) => tabId)).toEqual(['other-tab'])
  })

  it('leaves nothing behind when it is told so; another tab takes up and forgets both parts', () => {
    const one = keeper()
    one.keep(state(testShow()))
    one.dropAnchor()
    expect(found(), 'an entry needs it').toHaveLength(1)
    one.forget()
    one.dropAnchor()
    expect(entries.size).toBe(0)
    one.keep(state(renameShow(testShow(), 'After')))
    expect(found()[0]!.kept.show.name).toBe('After')
    forgetFound(storage, found()[0]!)
    expect(entries.size).toBe(0)
  })

  it('is swept where a tab is gone and all was saved; what an entry names is not', () => {
    keeper('gone').keep(state(testShow()))
    new ShowKeeper(storage, 'show', 'gone').forget()
    keeper('unsaved').keep(state(testShow()))
    expect(looseAnchors(storage).map(({ tabId }) => tabId)).toEqual(['gone'])
  })
})

it('edits that an earlier version kept in the browser are found as shows of this one; what cannot be read is left where it is', () => {
  const old = structuredClone(version4) as unknown as Show
  storage.setItem('green-room:pending:show:old-tab', JSON.stringify(state(old)))
  storage.setItem('green-room:pending:show:broken', '{')
  storage.setItem('green-room:pending:show:empty', 'null')
  storage.setItem('green-room:pending:show:loose', JSON.stringify({ ...state(old), show: undefined, anchor: 'gone', patch: [] }))
  storage.setItem('green-room:pending:show:odd', JSON.stringify({ ...state(old), show: undefined, anchor: 'gone', patch: [{ op: 'remove', path: '/x' }] }))
  expect(found().map(({ tabId, anchor }) => [tabId, anchor])).toEqual([['old-tab', null]])
  expect(found()[0]!.kept.show).toEqual(readShow(structuredClone(old)))
  expect(entries.size).toBe(5)
})
