import en from './en/index.ts'
import type { Words } from './words.ts'

export type Catalogue = Words<typeof en>

export interface Language {
  /** Its own name, in its own words. */
  readonly name: string
  readonly direction: 'ltr' | 'rtl'
  /** Loaded when it is chosen; English is always there, as the fallback. */
  readonly load: () => Promise<Catalogue>
  /** What the server refuses, by code; English says it as the server does. */
  readonly loadRefusals?: () => Promise<Readonly<Record<string, string>>>
}

const loadPseudo = async (how: 'longer' | 'rightToLeft') => (await import('./pseudo.ts')).pseudoCatalogue(en, how)

/** The languages that can be chosen, by BCP 47 tag. */
export const languages: Readonly<Record<string, Language>> = {
  en: { name: 'English', direction: 'ltr', load: () => Promise.resolve(en) },
  de: {
    name: 'Deutsch',
    direction: 'ltr',
    load: async () => (await import('./de/index.ts')).default,
    loadRefusals: async () => (await import('./de/refusals.ts')).refusals,
  },
}

/** Not offered: what tests read the views in. The tags are those of the pseudo-locales of Unicode CLDR. */
export const pseudoLanguages: Readonly<Record<string, Language>> = {
  'en-XA': { name: 'Longer', direction: 'ltr', load: () => loadPseudo('longer') },
  'ar-XB': { name: 'Right to left', direction: 'rtl', load: () => loadPseudo('rightToLeft') },
}

/** The tag of the language to use: the chosen one if it is there, else the first that the browser asks for, else English. */
export function languageFor(chosen: string, browserTags: readonly string[]): string {
  if (Object.hasOwn(languages, chosen) || Object.hasOwn(pseudoLanguages, chosen)) return chosen
  for (const tag of browserTags) {
    const primary = tag.toLowerCase().split('-')[0]!
    if (Object.hasOwn(languages, primary)) return primary
  }
  return 'en'
}

/** The language of a tag that `languageFor` gave. */
export function languageOf(tag: string): Language {
  return languages[tag] ?? pseudoLanguages[tag] ?? languages['en']!
}
