import { useLocalStorage } from '@vueuse/core'
import { ref } from 'vue'
import { loadCatalogue, showCatalogue } from '../i18n.ts'
import { languageFor, languageOf } from '../locales/languages.ts'

/** A BCP 47 tag, or `auto` for the language of the browser. */
const chosen = useLocalStorage('green-room:language', 'auto')
/** Tag and direction of what is shown now; both change once the words are there. */
const shown = ref('en')
/** The name of the language that could not be loaded. */
const failed = ref<string | null>(null)
let turn = 0

async function show(): Promise<void> {
  const mine = ++turn
  const tag = languageFor(chosen.value, navigator.languages)
  failed.value = null
  try {
    await loadCatalogue(tag)
    // Another may have been chosen meanwhile.
    if (mine !== turn) return
    showCatalogue(tag)
    shown.value = tag
  } catch {
    if (mine !== turn) return
    // The words that are there stay: what failed is said in the settings, where it can be tried again.
    failed.value = languageOf(tag).name
  }
}

/** The language of the interface, kept in this browser. */
export function useLanguage() {
  return {
    chosen,
    shown,
    failed,
    /** Loads what was chosen; the first call is made before the first view. */
    show,
    choose: async (tag: string) => {
      chosen.value = tag
      await show()
    },
    direction: () => languageOf(shown.value).direction,
  }
}
