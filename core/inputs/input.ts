// What all inputs have, and what a kind of input has to say about itself.
import type { z } from 'zod'
import type { FitMode } from '../box/fit.ts'
import type { SourceId } from '../picture/source.ts'
import type { Step } from '../steps/treatment.ts'
import type { CameraInput } from './camera.ts'
import type { ClipInput } from './clip.ts'
import type { ColourInput } from './colour.ts'
import type { DeckInput } from './deck.ts'
import type { PictureInput } from './picture.ts'
import type { ScreenInput } from './screen.ts'

/** Every kind of input by its name. A new kind is a line here, a file beside this one, and an entry in index.ts. */
export interface InputForms {
  readonly camera: CameraInput
  readonly screen: ScreenInput
  readonly deck: DeckInput
  readonly picture: PictureInput
  readonly clip: ClipInput
  readonly colour: ColourInput
}

export type InputKind = keyof InputForms
export type InputOf<K extends InputKind> = InputForms[K]
export type Input = InputForms[InputKind]

export interface InputBase {
  readonly id: string
  readonly name: string
  /** Applies everywhere this input is used. */
  readonly treatment: readonly Step[]
}

/** What an input is to the audience: who presents, what is presented, or what others stand in front of. */
export type Subject = 'person' | 'page' | 'wall'

/** A picture that stays: an uploaded file by its SHA-256, or a plain colour. */
export type Still = { readonly type: 'asset'; readonly asset: string } | { readonly type: 'colour'; readonly colour: string }

export interface InputDefinition<K extends InputKind> {
  readonly kind: K
  /** The stored form. */
  readonly schema: z.ZodType<InputOf<K>>
  readonly subject: Subject
  /** How likely it is to be the page of a layout, 0 first; null for kinds that never are. */
  readonly pageRank: number | null
  /** Whether it is a page even where it fills the canvas; others are the ground then. */
  readonly isPageWhenWhole: boolean
  /** Whether it is a mark when it is drawn small. */
  readonly canBeMark: boolean
  /** How a new layer shows it. */
  readonly fit: FitMode
  /** Where its pictures come from: a device or a file has a size, and something to clean and crop; a plain colour has neither. */
  readonly hasPicture: boolean
  /** The source that carries its pictures; of one page, for a layer that stays at that page of a deck. */
  readonly sourceId: (input: InputOf<K>, pageId?: string | null) => SourceId
  /** Its picture where it has one without a device or a clock; null where frames come from elsewhere. */
  readonly still: (input: InputOf<K>, pageId?: string | null) => Still | null
  /** SHA-256 of each file that it needs. */
  readonly files: (input: InputOf<K>) => readonly string[]
  /** Of them, those that it may show the next moment, the likeliest first: they are decoded ahead. */
  readonly ahead: (input: InputOf<K>) => readonly string[]
  /** The input as a cover shows it, where nothing is live. */
  readonly inCover: (input: InputOf<K>) => Input
  /** The drawing that stands for it in a cover until, or unless, it has a picture; null for kinds that need none. */
  readonly placeholder: 'person' | 'window' | 'film' | null
}
