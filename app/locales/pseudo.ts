// Languages that nobody speaks, made from the English catalogue: one with longer texts, one written from right to left in Arabic letters.
import type { Words } from './words.ts'

export type Pseudo = 'longer' | 'rightToLeft'

/** How much longer texts become in other languages: German is about a third longer than English (common practice, no source). */
const LONGER = 1.4
/** Places to fill, other texts that are linked, and our own name. */
const STAYS = /(\{[^}]*\}|@(?:\.\w+)?:|Green Room)/
const ARABIC: Readonly<Record<string, string>> = Object.fromEntries(
  [...'abcdefghijklmnopqrstuvwxyz'].map((letter, at) => [letter, [...'ابصدةفغهيجكلمنوبقرستعثخزضظ'][at]!]),
)

/** The catalogue in a pseudo-language. Places to fill, forms of a plural and our own name stay as they are. */
export function pseudoCatalogue<T extends object>(catalogue: T, how: Pseudo): Words<T> {
  const entries = Object.entries(catalogue).map(([key, value]) => [
    key,
    typeof value === 'string' ? pseudoText(value, how) : pseudoCatalogue(value as object, how),
  ])
  return Object.fromEntries(entries) as Words<T>
}

/** One text of the catalogue in a pseudo-language. */
export function pseudoText(text: string, how: Pseudo): string {
  return text
    .split(' | ')
    .map((form) => (how === 'longer' ? longer(form) : inArabicLetters(form)))
    .join(' | ')
}

/** The parts of a text that are words, and those that must stay. */
function parts(text: string): readonly { readonly words: string; readonly stays: boolean }[] {
  return text.split(STAYS).map((words, at) => ({ words, stays: at % 2 === 1 }))
}

/** Vowels are drawn out until the whole is long enough; the accents show that every text comes from the catalogue. */
function longer(text: string): string {
  const letters = parts(text)
    .filter(({ stays }) => !stays)
    .reduce((count, { words }) => count + words.length, 0)
  const vowels = text.replace(/\{[^}]*\}/g, '').match(/[aeiou]/gi)?.length ?? 0
  if (vowels === 0) return text
  let due = 0
  const each = ((LONGER - 1) * letters) / vowels
  return parts(text)
    .map(({ words, stays }) =>
      stays
        ? words
        : words.replace(/[aeiou]/gi, (vowel) => {
            due += each
            const more = Math.floor(due)
            due -= more
            return accented(vowel) + accented(vowel.toLowerCase()).repeat(more)
          }),
    )
    .join('')
}

function accented(vowel: string): string {
  return 'âêîôûÂÊÎÔÛ'['aeiouAEIOU'.indexOf(vowel)]!
}

function inArabicLetters(text: string): string {
  return parts(text)
    .map(({ words, stays }) => (stays ? words : words.replace(/[a-z]/gi, (letter) => ARABIC[letter.toLowerCase()]!)))
    .join('')
}
