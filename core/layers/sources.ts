// Names of the pictures that layers show.
import type { SourceId } from '../plan/frame-plan.ts'

/** The source that carries an input's pictures. */
export function inputSourceId(inputId: string): SourceId {
  return `input:${inputId}`
}

/** The source that carries a text layer's picture at one size. */
export function textSourceId(layerId: string, widthPx: number, heightPx: number, scale: number): SourceId {
  return `text:${layerId}:${widthPx}×${heightPx}${scale === 1 ? '' : `@${scale}`}`
}

/** The one-pixel source of a plain colour. */
export function plainSourceId(hex: string): SourceId {
  return `colour:${hex.toLowerCase()}`
}
