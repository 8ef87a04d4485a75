// What graphics are put together from: plates, bars and words, in units that suit any canvas.
import type { Rect } from '../box/fit.ts'
import { PLAIN_FRAME, type Frame } from '../box/frame.ts'
import type { Appearance } from '../motion/appearance.ts'
import type { Input } from '../inputs/input.ts'
import { newLayerBase, type Content, type Layer, type LayerPart } from '../layers/layer.ts'
import type { Fill } from '../paint/fill.ts'
import type { MakeId } from '../random/make-id.ts'
import { fromShow, type ShowColour, type StyleColour } from '../style/style-names.ts'
import { USUAL_LETTERS, type TextContent } from '../text/text-content.ts'

/** A form behind or beside words. */
export interface PlatePart {
  readonly type: 'plate'
  readonly box: Rect
  readonly fill: Fill
  readonly frame?: Partial<Frame>
  /** The order in which it comes; parts of one order come together. */
  readonly turn: number
  /** What it is in a graphic with a photo. */
  readonly part?: LayerPart
}

/** A picture of somebody, filled into its box; a faint plate where there is none yet. */
export interface PhotoPart {
  readonly type: 'photo'
  readonly name: string
  readonly box: Rect
  readonly frame: Partial<Frame>
  readonly photo: Input | null
  /** Of the plate: that of the words beside it. */
  readonly colour: StyleColour
  readonly turn: number
}

/** Words in a box; too many are set smaller, all together. */
export interface WordsPart {
  readonly type: 'words'
  /** What the form calls them. */
  readonly name: string
  readonly box: Rect
  readonly blocks: readonly WordsBlock[]
  readonly align: TextContent['align']
  readonly turn: number
  /** What they are in a graphic with a photo. */
  readonly part?: LayerPart
}

export interface WordsBlock {
  readonly text: string
  readonly sizePx: number
  readonly weight: number
  readonly colour: StyleColour
}

export type Part = PlatePart | WordsPart | PhotoPart

/** Of the place of a photo. */
const PLACE_OPACITY = 0.3

export const plain = (colour: StyleColour, opacity = 1): Fill => ({ kind: 'plain', colour: fromShow(colour), opacity })

/** From nothing to a colour of the show at `fullAt` of the way; the angle is where it is fullest, as CSS has it. */
export function fading(colour: StyleColour, angleDeg: number, opacity: number, fullAt: number): Fill {
  const named: ShowColour = fromShow(colour)
  return {
    kind: 'linear',
    angleDeg,
    stops: [
      { at: 0, colour: named, opacity: 0 },
      { at: fullAt, colour: named, opacity },
      { at: 1, colour: named, opacity },
    ],
  }
}

/** A colour of the show across a box, full between two places and fading to nothing above and below them. */
export function bandOf(colour: StyleColour, opacity: number, from: number, to: number): Fill {
  const named: ShowColour = fromShow(colour)
  const stop = (at: number, share: number) => ({ at, colour: named, opacity: opacity * share })
  return { kind: 'linear', angleDeg: 180, stops: [stop(0, 0), stop(from, 1), stop(to, 1), stop(1, 0)] }
}

/** The part of a box that is left when each side loses as much: top, right, bottom, left, as CSS has it. */
export function inset({ x, y, width, height }: Rect, top: number, right = top, bottom = top, left = right): Rect {
  return { x: x + left, y: y + top, width: Math.max(1, width - left - right), height: Math.max(1, height - top - bottom) }
}

/** What parts become: layers from back to front, and what they show. */
export function layersFrom(
  parts: readonly Part[],
  names: { readonly plate: string },
  entrance: (turn: number) => Appearance | null,
  exit: Appearance | null,
  makeId: MakeId,
): { readonly layers: readonly Layer[]; readonly contents: readonly Content[] } {
  const contents: Content[] = []
  const layers = parts.map((part): Layer => {
    const { x, y, width, height } = part.box
    const placement = { x: Math.round(x), y: Math.round(y), width: Math.max(1, Math.round(width)), height: Math.max(1, Math.round(height)), angleDeg: 0 }
    const moves = { entrance: entrance(part.turn), exit, part: part.type === 'photo' ? ('photo' as const) : (part.part ?? null) }
    if (part.type === 'photo' && part.photo !== null) {
      const base = newLayerBase(part.name, { ...placement, fit: 'fill' }, makeId)
      return { ...base, ...moves, kind: 'input', inputId: part.photo.id, pageId: null, frame: { ...PLAIN_FRAME, ...part.frame } }
    }
    if (part.type !== 'words') {
      const [name, fill] = part.type === 'photo' ? [part.name, plain(part.colour, PLACE_OPACITY)] : [names.plate, part.fill]
      const base = newLayerBase(name, { ...placement, fit: 'stretch' }, makeId)
      contents.push({ id: base.id, kind: 'shape', fill, outline: null })
      return { ...base, ...moves, kind: 'shape', contentId: base.id, frame: { ...PLAIN_FRAME, ...part.frame } }
    }
    const base = newLayerBase(part.name, { ...placement, fit: 'fit' }, makeId)
    const blocks = part.blocks.map(({ colour, ...block }) => ({ ...block, colour: fromShow(colour) }))
    const family = fromShow(part.blocks.some(({ weight }) => weight >= 600) ? 'head' : 'body')
    contents.push({ id: base.id, kind: 'text', text: { ...USUAL_LETTERS, family, align: part.align, blocks, plate: null } })
    return { ...base, ...moves, kind: 'text', contentId: base.id }
  })
  return { layers, contents }
}
