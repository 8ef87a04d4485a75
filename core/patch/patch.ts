// Edits of a document as a patch (RFC 6902, JSON Patch): what changed, and nothing else. Two states of a document share what did not change, so a
// patch is found by comparing identities, and putting it on leaves every other part the same object.
import { existsIn, immutableJSONPatch, parsePath } from 'immutable-json-patch'

/** One operation of RFC 6902. Paths are JSON Pointers (RFC 6901). */
export type PatchOperation =
  | { readonly op: 'add' | 'replace'; readonly path: string; readonly value: unknown }
  | { readonly op: 'remove'; readonly path: string }
  | { readonly op: 'move'; readonly from: string; readonly path: string }

export type Patch = readonly PatchOperation[]

type JsonObject = Readonly<Record<string, unknown>>
interface Entry {
  readonly id: string
}

/** What makes `after` of `before`. Cost: what changed and the lists it lies in. Empty when both are the same object. */
export function patchOf(before: unknown, after: unknown): Patch {
  const operations: PatchOperation[] = []
  compare(before, after, '', operations)
  return operations
}

/**
 * The document with a patch put on; what the patch does not name stays the same object. Throws a RangeError that names the path when an operation
 * does not fit.
 */
export function patched<T>(document: T, patch: Patch): T {
  let current: unknown = document
  for (const operation of patch) {
    // The library passes over what is not there.
    const needed = operation.op === 'add' ? parentOf(operation.path) : operation.op === 'move' ? operation.from : operation.path
    if (!isThere(current, needed)) throw new RangeError(`the patch does not fit the document: there is nothing at "${needed}"`)
    current = immutableJSONPatch(current, [operation as Parameters<typeof immutableJSONPatch>[1][number]])
  }
  return current as T
}

function isThere(document: unknown, path: string): boolean {
  return path === '' || existsIn(document, parsePath(document, path))
}

function parentOf(path: string): string {
  return path.slice(0, Math.max(0, path.lastIndexOf('/')))
}

function compare(before: unknown, after: unknown, path: string, into: PatchOperation[]): void {
  if (before === after) return
  if (isList(before) && isList(after)) compareLists(before, after, path, into)
  else if (isObject(before) && isObject(after)) compareObjects(before, after, path, into)
  else into.push({ op: 'replace', path, value: after })
}

function compareObjects(before: JsonObject, after: JsonObject, path: string, into: PatchOperation[]): void {
  for (const key of Object.keys(before)) if (after[key] === undefined && before[key] !== undefined) into.push({ op: 'remove', path: `${path}/${escaped(key)}` })
  for (const [key, value] of Object.entries(after)) {
    const at = `${path}/${escaped(key)}`
    if (value === undefined) continue
    if (before[key] === undefined) into.push({ op: 'add', path: at, value })
    else compare(before[key], value, at, into)
  }
}

function compareLists(before: readonly unknown[], after: readonly unknown[], path: string, into: PatchOperation[]): void {
  if (before.every(hasId) && after.every(hasId) && areUnique(before) && areUnique(after)) return compareEntries(before, after, path, into)
  if (before.length === after.length) return after.forEach((value, index) => compare(before[index], value, `${path}/${index}`, into))
  into.push({ op: 'replace', path, value: after })
}

/** Lists of things with ids: what went is removed, what is new added, what lies elsewhere moved, and then what is there on both sides compared. */
function compareEntries(before: readonly Entry[], after: readonly Entry[], path: string, into: PatchOperation[]): void {
  const wanted = new Set(after.map(({ id }) => id))
  const known = new Map(before.map((entry) => [entry.id, entry]))
  for (let index = before.length - 1; index >= 0; index -= 1) if (!wanted.has(before[index]!.id)) into.push({ op: 'remove', path: `${path}/${index}` })
  const order = before.filter(({ id }) => wanted.has(id)).map(({ id }) => id)
  after.forEach((entry, index) => {
    if (order[index] === entry.id) return
    if (!known.has(entry.id)) {
      into.push({ op: 'add', path: `${path}/${index}`, value: entry })
      order.splice(index, 0, entry.id)
      return
    }
    const from = order.indexOf(entry.id, index)
    into.push({ op: 'move', from: `${path}/${from}`, path: `${path}/${index}` })
    order.splice(index, 0, ...order.splice(from, 1))
  })
  after.forEach((entry, index) => {
    const earlier = known.get(entry.id)
    if (earlier !== undefined) compare(earlier, entry, `${path}/${index}`, into)
  })
}

function isList(value: unknown): value is readonly unknown[] {
  return Array.isArray(value)
}

function isObject(value: unknown): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

function hasId(value: unknown): value is Entry {
  return isObject(value) && typeof value['id'] === 'string'
}

function areUnique(entries: readonly Entry[]): boolean {
  return new Set(entries.map(({ id }) => id)).size === entries.length
}

function escaped(key: string): string {
  return key.replaceAll('~', '~0').replaceAll('/', '~1')
}
