// The outside cases of cases.json: formulas of standards, and what general tools printed. Each entry
// names its source; `expected` is the source's value.
import { readFileSync } from 'node:fs'
import path from 'node:path'
import sharp from 'sharp'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Matte } from '../support/matte-metrics.ts'

export interface ReferenceCase {
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  readonly input: any
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  readonly params: any
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  readonly expected: any
}

interface Reference {
  readonly source: string
  readonly cases: readonly ReferenceCase[]
}

const folder = path.dirname(new URL(import.meta.url).pathname)
const all = JSON.parse(readFileSync(path.join(folder, 'cases.json'), 'utf8')) as Record<string, Reference>

/** The cases of one capability. */
export function casesOf(name: string): readonly ReferenceCase[] {
  const found = all[name]
  if (found === undefined || found.cases.length === 0) throw new RangeError(`cases.json has no case of "${name}"`)
  return found.cases
}

/** Where the numbers of a capability come from, for test titles. */
export function sourceOf(name: string): string {
  const found = all[name]
  if (found === undefined) throw new RangeError(`cases.json has no "${name}"`)
  return found.source
}

/** Path of an input file of the cases. */
export function inputFile(name: string): string {
  return path.join(folder, 'inputs', path.basename(name))
}

/** An input picture as straight RGBA. */
export async function loadPicture(name: string): Promise<RgbaPicture> {
  const { data, info } = await sharp(inputFile(name)).toColourspace('srgb').ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  return { format: 'rgba', widthPx: info.width, heightPx: info.height, data: new Uint8Array(data) }
}

/** A grey input picture (PGM or PNG) as a matte. */
export async function loadMatte(name: string): Promise<Matte> {
  const bytes = readFileSync(inputFile(name))
  if (name.endsWith('.pgm')) return readPgm(bytes)
  const { data, info } = await sharp(bytes).toColourspace('b-w').extractChannel(0).raw().toBuffer({ resolveWithObject: true })
  return { widthPx: info.width, heightPx: info.height, data: new Uint8Array(data) }
}

/** Binary PGM of 8 bits: "P5", width, height, 255, then the bytes. */
function readPgm(bytes: Buffer): Matte {
  const header = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(bytes.subarray(0, 64).toString('latin1'))
  if (header === null) throw new RangeError('not an 8-bit binary PGM')
  return { widthPx: Number(header[1]), heightPx: Number(header[2]), data: new Uint8Array(bytes.subarray(header[0].length)) }
}
