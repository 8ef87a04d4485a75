import en from '../../app/locales/en/index.ts'
import type { GraphicWords } from '../../core/graphics/make-graphic.ts'

/** The words of graphics as the studio has them in English. */
export const graphicWordsForTests: GraphicWords = { names: en.graphics.kinds, parts: en.graphics.parts, says: en.graphics.says }
