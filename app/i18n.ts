import { createI18n } from 'vue-i18n'
import { languageOf } from './locales/languages.ts'
import en from './locales/en/index.ts'

export const i18n = createI18n({ legacy: false, locale: 'en', fallbackLocale: 'en', messages: { en } })
// The library's type knows the languages that were there at the start only.
const { global } = i18n as unknown as { global: { setLocaleMessage: (tag: string, words: object) => void; locale: { value: string } } }

/**
 * Loads the catalogue of a language, which does not show it yet.
 *
 * @param tag a BCP 47 tag that `languageFor` gave
 * @throws what the import throws when the catalogue cannot be loaded
 */
export async function loadCatalogue(tag: string): Promise<void> {
  if (tag === 'en') return
  const { load, loadRefusals } = languageOf(tag)
  const [words, refusals] = await Promise.all([load(), loadRefusals?.() ?? {}])
  global.setLocaleMessage(tag, { ...words, refusals })
}

/** Shows every text in a language whose catalogue is loaded; the page then says its language and its direction of reading. */
export function showCatalogue(tag: string): void {
  global.locale.value = tag
  document.documentElement.lang = tag
  document.documentElement.dir = languageOf(tag).direction
}
