import jsonPatch from 'fast-json-patch'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { patched, patchOf } from './patch.ts'

interface Item {
  readonly id: string
  readonly value: number
  readonly inner?: readonly Item[]
}

describe('patchOf', () => {
  it('says nothing of what is the same object, however large', () => {
    const part = { id: 'a', list: Array.from({ length: 1000 }, (_, i) => ({ id: `${i}` })) }
    expect(patchOf({ part, name: 'x' }, { part, name: 'y' })).toEqual([{ op: 'replace', path: '/name', value: 'y' }])
    expect(patchOf(part, part)).toEqual([])
  })

  it('names one value deep in lists', () => {
    const before = { scenes: [{ id: 's', layers: [{ id: 'a', x: 1 }, { id: 'b', x: 2 }] }] } // prettier-ignore
    const after = { scenes: [{ id: 's', layers: [before.scenes[0]!.layers[0]!, { id: 'b', x: 3 }] }] }
    expect(patchOf(before, after)).toEqual([{ op: 'replace', path: '/scenes/0/layers/1/x', value: 3 }])
  })

  it('moves, adds and removes entries of a list by their ids', () => {
    const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((id) => ({ id }))
    const patch = patchOf([a, b, c], [c, a, d])
    expect(patch).toEqual([
      { op: 'remove', path: '/1' },
      { op: 'move', from: '/1', path: '/0' },
      { op: 'add', path: '/2', value: d },
    ])
    const made = patched([a, b, c], patch)
    expect(made[0]).toBe(c)
    expect(made[1]).toBe(a)
  })

  it.each([
    ['keys with / and ~', { 'a/b': 1, 'c~d': 2, '': 3 }, { 'a/b': 2, 'c~d': { x: 1 }, '': 4 }],
    ['a key that is gone', { a: 1, b: 2 }, { b: 2 }],
    ['a list that becomes longer, without ids', { a: [1, 2] }, { a: [1, 2, 3] }],
    ['a list that becomes an object', { a: [1] }, { a: { 0: 1 } }],
    ['null in place of an object', { a: { b: 1 } }, { a: null }],
    ['two entries of one id', [{ id: 'a', n: 1 }, { id: 'a', n: 2 }], [{ id: 'a', n: 2 }]], // prettier-ignore
    ['an entry whose id changed', [{ id: 'a', n: 1 }], [{ id: 'b', n: 1 }]],
    ['the whole', 1, 2],
  ])('%s', (_name, before, after) => {
    const patch = patchOf(before, after)
    expect(patched(before, patch)).toEqual(after)
    expect(
      jsonPatch.applyPatch(structuredClone({ whole: before }), patch.map((one) => ({ ...one, path: `/whole${one.path}` })) as never, true).newDocument,
    ).toEqual({ whole: after })
  })

  it('leads from any list of entries to any other, as another implementation of RFC 6902 has it (fast-json-patch)', () => {
    const random = seededRandom(61)
    const items = (depth: number): Item[] =>
      Array.from({ length: Math.floor(random() * 7) }, () => `${Math.floor(random() * 9)}`)
        .filter((id, i, all) => all.indexOf(id) === i)
        .map((id) => ({ id, value: Math.floor(random() * 3), ...(depth > 0 && random() < 0.5 ? { inner: items(depth - 1) } : {}) }))
    for (let round = 0; round < 2000; round += 1) {
      const [before, after] = [{ list: items(2) }, { list: items(2) }]
      const patch = structuredClone(patchOf(before, after))
      expect(patched(before, patch)).toEqual(after)
      expect(jsonPatch.applyPatch(structuredClone(before), patch as never, true).newDocument).toEqual(after)
    }
  })
})

describe('patched', () => {
  const document = { list: [{ id: 'a' }], name: 'x' }

  it.each([
    [{ op: 'replace', path: '/list/1/id', value: 'b' }, '/list/1/id'],
    [{ op: 'remove', path: '/title' }, '/title'],
    [{ op: 'move', from: '/list/3', path: '/list/0' }, '/list/3'],
    [{ op: 'add', path: '/scenes/0', value: 1 }, '/scenes'],
  ] as const)('refuses what does not fit: %o', (operation, path) => {
    expect(() => patched(document, [operation])).toThrow(`there is nothing at "${path}"`)
  })

  it('changes nothing in place', () => {
    const before = JSON.stringify(document)
    patched(document, [{ op: 'replace', path: '/list/0/id', value: 'c' }])
    expect(JSON.stringify(document)).toBe(before)
  })
})
