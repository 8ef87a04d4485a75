// Which shipped typefaces a text needs, script by script: a family has no letters for every name.

/** One file of a family: a part of its letters, told by code points. */
export interface FaceFile {
  readonly family: string
  readonly url: string
  /** CSS weight range, for example "200 800". */
  readonly weights: string
  /** CSS unicode-range, for example "U+0000-00FF,U+0131". */
  readonly range: string
}

/** Families that stand in for letters that the chosen one lacks, in the order they are asked. */
const FALLBACKS = ['Noto Sans', 'Noto Sans Arabic', 'Noto Sans Hebrew', 'Noto Sans Thai'] as const
const HAN = ['Noto Sans SC', 'Noto Sans JP', 'Noto Sans KR'] as const

/** The families for a text, the chosen one first. Letters that several share follow the script around them: kana, hangul, or neither. */
export function familiesFor(family: string, text: string): readonly string[] {
  const first = /[\u3040-\u30ff\u31f0-\u31ff\uff66-\uff9f]/.test(text)
    ? 'Noto Sans JP'
    : /[\u1100-\u11ff\u3130-\u318f\uac00-\ud7af]/.test(text)
      ? 'Noto Sans KR'
      : HAN[0]
  return [family, ...FALLBACKS.filter((name) => name !== family), first, ...HAN.filter((name) => name !== first)]
}

/** A CSS font-family list for a text. */
export function fontStackFor(family: string, text: string): string {
  return [...familiesFor(family, text).map((name) => `"${name}"`), 'sans-serif'].join(', ')
}

type Ranges = readonly (readonly [from: number, to: number])[]

/** Parses a CSS unicode-range without wildcards. */
export function parseRange(range: string): Ranges {
  return range.split(',').map((part) => {
    const [from, to = from] = part.trim().replace(/^U\+/i, '').split('-')
    return [Number.parseInt(from!, 16), Number.parseInt(to!, 16)] as const
  })
}

const parsed = new WeakMap<FaceFile, Ranges>()

function holds(file: FaceFile, point: number): boolean {
  let ranges = parsed.get(file)
  if (ranges === undefined) {
    ranges = parseRange(file.range)
    parsed.set(file, ranges)
  }
  return ranges.some(([from, to]) => point >= from && point <= to)
}

/** The files that draw a text: for each letter, of the first family that has it. Letters that none has need none. */
export function facesFor<File extends FaceFile>(family: string, text: string, files: readonly File[]): readonly File[] {
  const needed = new Set<File>()
  const families = familiesFor(family, text)
  for (const letter of new Set(text)) {
    const point = letter.codePointAt(0)!
    for (const name of families) {
      const file = files.find((candidate) => candidate.family === name && holds(candidate, point))
      if (file === undefined) continue
      needed.add(file)
      break
    }
  }
  return [...needed]
}

/**
 * Whether a paragraph is written from right to left: by its first letter that has a direction, past what is isolated (Unicode Standard
 * Annex 9, rules P2 and P3).
 */
export function isRightToLeft(paragraph: string): boolean {
  const first = /\p{L}/u.exec(paragraph.replace(/[\u2066-\u2068][^\u2069]*(\u2069|$)/gu, ''))?.[0]
  return first !== undefined && /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u.test(first)
}
