import type { ShowFace } from '../style/style-names.ts'

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

/** A shadow of the letters. */
export interface TextShadow {
  readonly dx: number
  readonly dy: number
  /** As CSS has it: twice the gaussian's deviation. */
  readonly blurPx: number
  readonly colour: string
  /** 0..1 */
  readonly opacity: number
}

/** How letters stand where nobody asked for more. */
export const USUAL_LETTERS = { lineHeight: 1.22, letterSpacingEm: 0, outline: null, shadow: null } as const

/** A text as a layer shows it: blocks under each other in a box, shrunk together if too big. */
export interface TextContent {
  /** Of its own, or one of the show's. */
  readonly family: TextFamily | ShowFace
  readonly align: 'start' | 'centre' | 'end'
  readonly blocks: readonly TextBlock[]
  /** From one baseline to the next, of the letters' size. */
  readonly lineHeight: number
  /** More between two letters, of their size. */
  readonly letterSpacingEm: number
  /** A line round the letters, outside of them; null for none. */
  readonly outline: { readonly widthPx: number; readonly colour: string } | null
  /** Under the letters; null for none. */
  readonly shadow: TextShadow | null
  readonly plate: TextPlate | null
}

/** Typefaces that ship with Green Room. */
export const textFamilies = [
  'Bricolage Grotesque',
  'Instrument Sans',
  'Atkinson Hyperlegible Next',
  'Archivo',
  'Figtree',
  'Lexend',
  'Public Sans',
  'Literata',
  'Source Serif 4',
  'Spline Sans Mono',
] as const
export type TextFamily = (typeof textFamilies)[number]
