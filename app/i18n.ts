import { createI18n } from 'vue-i18n'
import { languageOf } from './locales/languages.ts'
import en from './locales/en/index.ts'

export const i18n = createI18n({ legacy: false, locale: 'en', fallbackLocale: 'en', messages: { en } })

/**
 * Shows every text in another language, loading its catalogue first; the page then says its language and its direction of reading.
 *
 * @param tag a BCP 47 tag that `languageFor` gave
 * @throws what the import throws when the catalogue cannot be loaded; the old language stays then
 */
export async function useCatalogue(tag: string): Promise<void> {
  const { load, direction } = languageOf(tag)
  const { global } = i18n as unknown as { global: { setLocaleMessage: (tag: string, words: object) => void; locale: { value: string } } }
  if (tag !== 'en') global.setLocaleMessage(tag, await load())
  global.locale.value = tag
  document.documentElement.lang = tag
  document.documentElement.dir = direction
}
