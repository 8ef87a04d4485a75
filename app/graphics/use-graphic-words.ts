// The words that graphics are made with, in the presenter's language.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { graphicKinds, type GraphicWords } from '../../core/graphics/make-graphic.ts'

export function useGraphicWords() {
  const { t } = useI18n()
  return computed<GraphicWords>(() => ({
    names: named(graphicKinds, (kind) => t(`graphics.kinds.${kind}`)),
    parts: named(['plate', 'photo', 'name', 'heading', 'text', 'point', 'source'], (part) => t(`graphics.parts.${part}`)),
    says: {
      ...named(['title', 'subtitle', 'bannerHeading', 'bannerText', 'agenda', 'caption', 'quote', 'source', 'countdown'], (said) => t(`graphics.says.${said}`)),
      points: [0, 1, 2, 3].map((index) => t(`graphics.says.points.${index}`)),
    },
  }))
}

/** A text for each of some keys. */
export function named<K extends string>(keys: readonly K[], wordsOf: (key: K) => string): Record<K, string> {
  return Object.fromEntries(keys.map((key) => [key, wordsOf(key)])) as Record<K, string>
}
