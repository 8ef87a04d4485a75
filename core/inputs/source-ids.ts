// Names of the pictures that layers show.
import { hash53 } from '../random/hash.ts'
import type { SourceId } from '../picture/source.ts'

/** The source that carries an input's pictures. */
export function inputSourceId(inputId: string): SourceId {
  return `input:${inputId}`
}

/** The source that carries one page of a deck, whichever page the deck is at. */
export function pageSourceId(inputId: string, pageId: string): SourceId {
  return `page:${inputId}:${pageId}`
}

/** The source that carries a text's picture. It is named by what it shows: equal names are equal pictures. */
export function textSourceId(key: string): SourceId {
  return `text:${hash53(key).toString(36)}`
}

/** The source that carries a drawn outline's picture, named as a text's is. */
export function outlineSourceId(key: string): SourceId {
  return `outline:${hash53(key).toString(36)}`
}

/** The one-pixel source of a plain colour. */
export function plainSourceId(hex: string): SourceId {
  return `colour:${hex.toLowerCase()}`
}
