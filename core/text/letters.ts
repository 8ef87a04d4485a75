const segmenter = new Intl.Segmenter(undefined, { granularity: 'grapheme' })

/** The letters of a text as a reader counts them: an accent or a joined emoji is part of its letter. */
export function lettersOf(text: string): string[] {
  return Array.from(segmenter.segment(text), ({ segment }) => segment)
}
