// What of a show's style others may name: a colour or a typeface that follows the show when it changes.
import { z } from 'zod'

/** What the colours of a show are for. `onAccent` is for words on the accent. */
export const styleColours = ['ground', 'panel', 'ink', 'accent', 'onAccent'] as const
export type StyleColour = (typeof styleColours)[number]

/** What its typefaces are for: titles and names, and everything else. */
export const styleFaces = ['head', 'body'] as const
export type StyleFace = (typeof styleFaces)[number]

/** The name by which a part of a document takes a colour or a typeface from the show. */
export const fromShow = <N extends StyleColour | StyleFace>(name: N): `show:${N}` => `show:${name}`
export type ShowColour = `show:${StyleColour}`
export type ShowFace = `show:${StyleFace}`

export const isFromShow = (value: string): value is ShowColour | ShowFace => value.startsWith('show:')

/** A colour of its own, or one of the show's. */
export const paintColour = z
  .string()
  .regex(
    new RegExp(`^(#[0-9a-fA-F]{6}|show:(${styleColours.join('|')}))$`),
    `must be a colour written #rrggbb, or one of the show's: ${styleColours.map(fromShow).join(', ')}`,
  )
