// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- the package has no types, and each of our projects is to find these
/// <reference path="./linebreak.d.ts" />
// Where a line of text may end.
import LineBreaker from 'linebreak'

/** Thai, Lao, Burmese and Khmer: words without spaces, which Unicode Standard Annex 14 leaves to a dictionary (class SA). */
const BY_DICTIONARY = /[\u0e00-\u0eff\u1000-\u109f\u1780-\u17ff]+/g

const words = new Intl.Segmenter(undefined, { granularity: 'word' })

/**
 * The places at which a paragraph may be broken, as counts of UTF-16 codes from its beginning, rising; its end is the last. By Unicode
 * Standard Annex 14, and by words where that asks for a dictionary.
 */
export function breakPlaces(paragraph: string): number[] {
  const places = new Set<number>([paragraph.length])
  const breaker = new LineBreaker(paragraph)
  for (let next = breaker.nextBreak(); next !== null; next = breaker.nextBreak()) places.add(next.position)
  for (const { 0: run, index } of paragraph.matchAll(BY_DICTIONARY)) {
    for (const { index: at } of words.segment(run)) if (at > 0) places.add(index + at)
  }
  return [...places].sort((a, b) => a - b)
}

/** A paragraph in lines that `fits` takes; what cannot be broken is a line of its own. Spaces at the end of a line hang beyond it and are left out. */
export function linesOf(paragraph: string, fits: (line: string) => boolean): string[] {
  const lines: string[] = []
  let start = 0
  let end = 0
  for (const place of breakPlaces(paragraph)) {
    if (end > start && !fits(withoutHanging(paragraph.slice(start, place)))) {
      lines.push(withoutHanging(paragraph.slice(start, end)))
      start = end
    }
    end = place
  }
  lines.push(withoutHanging(paragraph.slice(start)))
  return lines
}

const withoutHanging = (line: string) => line.replace(/ +$/, '')
