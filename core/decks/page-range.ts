// "1-3, 7" and back: which pages of a file are meant.

/** The pages that words name, in order and each once; null for words that are no list of pages of a file that long. */
export function pagesIn(words: string, pageCount: number): readonly number[] | null {
  const pages = new Set<number>()
  for (const part of words.split(/[,;]/)) {
    const found = /^\s*(\d+)\s*(?:[-–]\s*(\d+)\s*)?$/.exec(part)
    if (found === null) return null
    const [from, to] = [Number(found[1]), Number(found[2] ?? found[1])]
    if (from < 1 || to < from || to > pageCount) return null
    for (let page = from; page <= to; page += 1) pages.add(page)
  }
  return [...pages].toSorted((one, other) => one - other)
}

/** The shortest words for some pages, which are in order. */
export function rangeWords(pages: readonly number[]): string {
  const runs: [from: number, to: number][] = []
  for (const page of pages) {
    const last = runs.at(-1)
    if (last !== undefined && page === last[1] + 1) last[1] = page
    else runs.push([page, page])
  }
  return runs.map(([from, to]) => (from === to ? String(from) : `${from}–${to}`)).join(', ')
}
