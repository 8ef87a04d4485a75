/** One run of text in one style; line breaks are kept. */
export interface TextBlock {
  readonly text: string
  readonly weight: number
  readonly sizePx: number
  /** "#rrggbb" */
  readonly colour: string
}

/** The plate behind a text; null for none. */
export interface TextPlate {
  readonly colour: string
  /** 0..1 */
  readonly opacity: number
  readonly paddingPx: number
  /** A bar along the leading edge; null for none. */
  readonly accent: string | null
}

/** A text as a layer shows it: blocks under each other in a box, shrunk together if too big. */
export interface TextContent {
  readonly family: TextFamily
  readonly align: 'start' | 'centre' | 'end'
  readonly blocks: readonly TextBlock[]
  readonly plate: TextPlate | null
}

/** Typefaces that ship with Green Room. */
export const textFamilies = ['Bricolage Grotesque', 'Instrument Sans', 'Spline Sans Mono'] as const
export type TextFamily = (typeof textFamilies)[number]
