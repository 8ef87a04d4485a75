import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { mutants } from '../mutants/mutants.mjs'

it('every fault can be made: its file holds the text once', () => {
  const stale = mutants.filter(({ file, from }) => readFileSync(file, 'utf8').split(from).length !== 2)
  expect(stale).toEqual([])
})
