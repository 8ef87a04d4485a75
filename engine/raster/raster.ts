// Pictures that are drawn from words and forms, not filmed: what they are made of, and who makes them.
import { drawHoldingCard } from '../../core/card/holding-card.ts'
import { outlinePicture } from '../../core/outline/outline-picture.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { OutlineJob, TextJob } from '../../core/plan/frame-plan.ts'
import type { StackOf } from '../text/draw-text.ts'
import { textPicture, type TextCanvas } from '../text/text-picture.ts'

/** What the audience sees when there is no picture. */
export interface CardJob {
  readonly widthPx: number
  readonly heightPx: number
  readonly title: string
  readonly detail: string
}

export type Raster =
  { readonly type: 'text'; readonly job: TextJob } | { readonly type: 'outline'; readonly job: OutlineJob } | { readonly type: 'card'; readonly job: CardJob }

/** Whose picture waits for it; lower comes first. */
export const URGENCY = { air: 0, stage: 1, small: 2 } as const
export type Urgency = (typeof URGENCY)[keyof typeof URGENCY]

/** Makes rasters, at once or later. A promise rejects with an Error that says why it cannot be drawn. */
export interface RasterMaker {
  make(raster: Raster, urgency: Urgency): RgbaPicture | Promise<RgbaPicture>
}

/** The typefaces that texts are set in. */
export interface TextFonts {
  readonly isReady: (family: string, text: string) => boolean
  /** Never rejects: what cannot be loaded is drawn in the next family. */
  readonly load: (family: string, text: string) => Promise<void>
  /** The CSS font-family list for a text whose letters are there. */
  readonly stackFor: StackOf
}

/** A canvas for words and forms. */
export interface RasterCanvas extends TextCanvas {
  readonly pen: TextCanvas['pen'] & Parameters<typeof drawHoldingCard>[0]
}

const CARD_FAMILY = 'Bricolage Grotesque'

/** Draws in this thread: at once when the letters are there, otherwise as soon as they are. */
export class LocalRasterMaker implements RasterMaker {
  readonly #fonts: TextFonts
  readonly #open: (widthPx: number, heightPx: number) => RasterCanvas

  constructor(fonts: TextFonts, open: (widthPx: number, heightPx: number) => RasterCanvas) {
    this.#fonts = fonts
    this.#open = open
  }

  make(raster: Raster): RgbaPicture | Promise<RgbaPicture> {
    const words = wordsOf(raster)
    if (words === null || this.#fonts.isReady(words.family, words.text)) return this.#draw(raster)
    return this.#fonts.load(words.family, words.text).then(() => this.#draw(raster))
  }

  #draw(raster: Raster): RgbaPicture {
    const { widthPx, heightPx } = raster.job
    if (raster.type === 'outline') return outlinePicture(raster.job.outline, widthPx, heightPx)
    if (raster.type === 'text') return textPicture(raster.job, this.#open, (family, text) => this.#fonts.stackFor(family, text))
    const { title, detail } = raster.job
    const canvas = this.#open(widthPx, heightPx)
    drawHoldingCard(canvas.pen, widthPx, heightPx, title, detail, this.#fonts.stackFor(CARD_FAMILY, title + detail))
    return { format: 'rgba', widthPx, heightPx, data: canvas.read() }
  }
}

/** The letters that a raster needs; null for none. */
function wordsOf(raster: Raster): { readonly family: string; readonly text: string } | null {
  if (raster.type === 'outline') return null
  if (raster.type === 'card') return { family: CARD_FAMILY, text: raster.job.title + raster.job.detail }
  const { content } = raster.job
  return { family: content.family, text: content.blocks.map(({ text }) => text).join('') }
}
