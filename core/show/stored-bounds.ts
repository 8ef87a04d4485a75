// Bounds of what comes from outside, checked without recursion before anything walks it: a small file can be deep, wide, or both.
import { isLoose } from './migrations.ts'
import { LIMITS } from '../schema/limits.ts'

/** How deep values of a stored file may lie in each other: a step's list of numbers, in a layer, in the deepest group, needs 22. */
const MOST_NESTED = 40
/** Values of any kind in a file. A show with every list full of layers needs less. */
const MOST_VALUES = 500_000
const MOST_ENTRIES = LIMITS.contents
/** Path data of all drawn forms together, in characters. */
const MOST_PATH_CHARACTERS = 400_000

/** A file that is too deep or too large to be looked at any closer. */
export class BoundsError extends RangeError {}

interface Stop {
  readonly value: object
  readonly depth: number
  readonly key: string
  readonly parent: Stop | null
}

/** Throws a BoundsError that names where, the rule and what came. Linear in its size. */
export function checkBounds(stored: unknown): void {
  if (typeof stored !== 'object' || stored === null) return
  const open: Stop[] = [{ value: stored, depth: 0, key: '', parent: null }]
  let values = 0
  let pathCharacters = 0
  for (let stop = open.pop(); stop !== undefined; stop = open.pop()) {
    const { value, depth } = stop
    if (depth > MOST_NESTED)
      throw new BoundsError(`${pathOf(stop)}: must not lie in more than ${MOST_NESTED} others; groups may hold groups ${LIMITS.depth} deep`)
    if (Array.isArray(value) && value.length > MOST_ENTRIES) {
      throw new BoundsError(`${pathOf(stop)}: must hold at most ${MOST_ENTRIES} entries, got ${value.length}`)
    }
    for (const [key, inner] of Object.entries(value) as [string, unknown][]) {
      values += 1
      if (values > MOST_VALUES) throw new BoundsError(`file: must hold at most ${MOST_VALUES} values`)
      if (typeof inner === 'string' && inner.includes('\0'))
        throw new BoundsError(`${pathOf(stop)}.${key}: must not hold the character NUL (U+0000); take it out`)
      if (typeof inner === 'string' && key === 'path' && isLoose(value)) {
        pathCharacters += inner.length
        if (pathCharacters > MOST_PATH_CHARACTERS) {
          throw new BoundsError(`${pathOf(stop)}.path: drawn forms must have at most ${MOST_PATH_CHARACTERS} characters of path data together`)
        }
      }
      if (typeof inner === 'object' && inner !== null) open.push({ value: inner, depth: depth + 1, key, parent: stop })
    }
  }
}

/** Where a value is: "scenes.0.layers.2", its first parts when it is long. */
function pathOf(stop: Stop): string {
  const keys: string[] = []
  for (let at: Stop | null = stop; at !== null && at.parent !== null; at = at.parent) keys.push(at.key)
  keys.reverse()
  return keys.length === 0 ? 'file' : keys.length > 8 ? `${keys.slice(0, 8).join('.')} …` : keys.join('.')
}
