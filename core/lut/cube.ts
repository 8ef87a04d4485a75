// The .cube text form of a look-up table (Adobe Cube LUT Specification 1.0).
import type { Lut } from './lut.ts'

/** What is wrong with a .cube file, and in which line (from 1). */
export class CubeError extends Error {
  readonly line: number
  constructor(line: number, reason: string) {
    super(`line ${line}: ${reason}`)
    this.line = line
  }
}

const SIZES = { '1d': { min: 2, max: 65536 }, '3d': { min: 2, max: 256 } } as const
const KEYWORDS = ['TITLE', 'LUT_1D_SIZE', 'LUT_3D_SIZE', 'DOMAIN_MIN', 'DOMAIN_MAX', 'LUT_1D_INPUT_RANGE', 'LUT_3D_INPUT_RANGE']

/** Reads a .cube file. Throws a CubeError that names the line, the rule and what came. */
export function parseCube(text: string): Lut {
  // Some editors put a byte-order mark in front.
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/)
  let kind: Lut['kind'] | null = null
  let size = 0
  let sizeLine = 0
  let domainLine = 0
  let min: [number, number, number] = [0, 0, 0]
  let max: [number, number, number] = [1, 1, 1]
  let data: Float32Array | null = null
  let rows = 0
  for (let i = 0; i < lines.length; i += 1) {
    const number = i + 1
    const line = lines[i]!.trim()
    if (line === '' || line.startsWith('#')) continue

    const foreign = /[^\t\x20-\x7e]/.exec(line)
    if (foreign !== null && !line.startsWith('TITLE')) throw new CubeError(number, `"${foreign[0]}" is no character of a .cube file; save it as plain text`)
    const [word, ...rest] = line.split(/\s+/) as [string, ...string[]]
    if (/^[A-Za-z_]/.test(word) && !/^(nan|inf)/i.test(word)) {
      if (!KEYWORDS.includes(word)) throw new CubeError(number, `"${word}" is no keyword of a .cube file`)
      if (data !== null && rows > 0) throw new CubeError(number, `${word} must stand before the rows of colours`)
      if (word === 'TITLE') continue
      if (word === 'LUT_1D_SIZE' || word === 'LUT_3D_SIZE') {
        if (kind !== null) throw new CubeError(number, `a file holds one table, but its size was given in line ${sizeLine}`)
        kind = word === 'LUT_1D_SIZE' ? '1d' : '3d'
        size = sizeOf(kind, rest, number)
        sizeLine = number
        data = new Float32Array((kind === '1d' ? size : size ** 3) * 3)
        continue
      }
      domainLine = number
      if (word === 'DOMAIN_MIN') min = triple(rest, number, word)
      else if (word === 'DOMAIN_MAX') max = triple(rest, number, word)
      else {
        const [low, high] = numbers(rest, 2, number, word) as [number, number]
        min = [low, low, low]
        max = [high, high, high]
      }
      continue
    }
    if (data === null) throw new CubeError(number, 'LUT_1D_SIZE or LUT_3D_SIZE must come before the first row of colours')
    const colour = numbers([word, ...rest], 3, number, 'a row')
    if ((rows + 1) * 3 > data.length) throw new CubeError(number, `one row too many: size ${size} asks for ${data.length / 3} rows`)
    data.set(colour, rows * 3)
    rows += 1
  }
  if (kind === null || data === null) throw new CubeError(lines.length, 'LUT_1D_SIZE or LUT_3D_SIZE is missing')
  if (rows * 3 < data.length) throw new CubeError(lines.length, `the file ends after ${rows} rows: size ${size} asks for ${data.length / 3}`)
  for (let channel = 0; channel < 3; channel += 1) {
    if (min[channel]! >= max[channel]!) throw new CubeError(domainLine, `DOMAIN_MIN must be below DOMAIN_MAX, got ${min.join(' ')} and ${max.join(' ')}`)
  }
  return { kind, size, domainMin: min, domainMax: max, data }
}

function sizeOf(kind: Lut['kind'], words: readonly string[], line: number): number {
  const { min, max } = SIZES[kind]
  const size = Number(words[0])
  if (words.length !== 1 || !/^\d+$/.test(words[0]!) || size < min || size > max) {
    throw new CubeError(line, `the size must be a whole number from ${min} to ${max}, got "${words.join(' ')}"`)
  }
  return size
}

function triple(words: readonly string[], line: number, what: string): [number, number, number] {
  return numbers(words, 3, line, what) as [number, number, number]
}

function numbers(words: readonly string[], count: number, line: number, what: string): number[] {
  if (words.length !== count) throw new CubeError(line, `${what} must hold ${count} numbers, got ${words.length}`)
  return words.map((word) => {
    const value = Number(word)
    if (!/^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$/.test(word) || !Number.isFinite(value)) throw new CubeError(line, `"${word}" is not a number`)
    // Tables are kept as 32-bit floats, which end at 3.4 · 10³⁸.
    if (!Number.isFinite(Math.fround(value))) throw new CubeError(line, `"${word}" is too large for a colour`)
    return value
  })
}
