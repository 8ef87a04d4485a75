// What all layers have, and what a kind of layer has to say about itself.
import type { z } from 'zod'
import type { BlendName } from '../blend/index.ts'
import type { Crop } from '../box/fit.ts'
import { PLAIN_FRAME, type Frame } from '../box/frame.ts'
import type { Placement } from '../box/placement.ts'
import type { Input } from '../inputs/input.ts'
import type { Appearance } from '../motion/appearance.ts'
import type { SourceInfos } from '../picture/source.ts'
import type { MakeId } from '../random/make-id.ts'
import type { Step } from '../steps/treatment.ts'
import type { GroupLayer } from './group.ts'
import type { InputLayer } from './input.ts'
import type { SceneLayer } from './scene.ts'
import type { ShapeContent, ShapeLayer } from './shape.ts'
import type { TextItem, TextLayer } from './text.ts'

/** Every kind of layer by its name. A new kind is a line here, a file beside this one, and an entry in index.ts. */
export interface LayerForms {
  readonly input: InputLayer
  readonly text: TextLayer
  readonly shape: ShapeLayer
  readonly group: GroupLayer
  readonly scene: SceneLayer
}

export type LayerKind = keyof LayerForms
export type LayerOf<K extends LayerKind> = LayerForms[K]
export type Layer = LayerForms[LayerKind]

/** What layers of some kinds show, kept beside the scenes: layers that name the same content show the same thing, whatever becomes of it. */
export interface ContentForms {
  readonly text: TextItem
  readonly shape: ShapeContent
}

export type ContentKind = keyof ContentForms
export type ContentOf<K extends ContentKind> = ContentForms[K]
export type Content = ContentForms[ContentKind]

/**
 * What a layer was made for: the line between page and presenter, the words of a page in front of a presenter, a background from the library; or,
 * in a graphic with a photo, the photo, what stands beside it and moves into its place without it, and what lies round both and shrinks.
 */
export const layerParts = ['divider', 'ink', 'background', 'photo', 'besidePhoto', 'roundPhoto'] as const
export type LayerPart = (typeof layerParts)[number]

export interface LayerBase {
  readonly id: string
  readonly name: string
  readonly visible: boolean
  readonly locked: boolean
  /** Null: it was made for nothing in particular. */
  readonly part: LayerPart | null
  readonly placement: Placement
  /** What of its picture is shown here; null: all of it. The rest is what `placement.fit` fits into the box. */
  readonly crop: Crop | null
  /** 0..1 */
  readonly opacity: number
  /** How it mixes with what is under it. */
  readonly blend: BlendName
  readonly frame: Frame
  /** How it comes when its scene does, and goes with it; null: at once. */
  readonly entrance: Appearance | null
  readonly exit: Appearance | null
  /** Applies here only. */
  readonly treatment: readonly Step[]
}

/** What of a show layers are read with. */
export interface LayerContext {
  readonly canvas: Canvas
  readonly inputs: readonly Input[]
  readonly contents: readonly Content[]
  readonly scenes: readonly { readonly id: string; readonly layers: readonly Layer[] }[]
}

export interface Canvas {
  readonly widthPx: number
  readonly heightPx: number
}

/** Where a layer belongs in the order of a scene: what others stand in front of, what is presented, who presents, and what lies over all. */
export type LayerRole = 'ground' | 'page' | 'person' | 'words' | 'graphic'

/** What the audience came for first: the presenter, then words, then pictures; a plain colour is there to be covered. */
export type Weight = 'camera' | 'text' | 'picture' | 'colour'

export interface LayerDefinition<K extends LayerKind> {
  readonly kind: K
  /** The stored form; `layer` is that of any layer, for kinds that hold some. */
  readonly schema: (layer: z.ZodType<Layer>) => z.ZodType<LayerOf<K>>
  /** The content that its layers show; null for kinds that show none. */
  readonly content: K extends ContentKind ? ContentDefinition<K> : null
  /** The input, the scene or the content that it shows; null where there is none. */
  readonly inputId: (layer: LayerOf<K>) => string | null
  /** The page of its input that it stays at; null where it shows whatever the input shows. */
  readonly pageId: (layer: LayerOf<K>) => string | null
  readonly sceneId: (layer: LayerOf<K>) => string | null
  readonly contentId: (layer: LayerOf<K>) => string | null
  /** The layers that it holds itself, and the layer with others in their place; null for kinds that hold none. */
  readonly children: {
    readonly of: (layer: LayerOf<K>) => readonly Layer[]
    readonly replaced: (layer: LayerOf<K>, children: readonly Layer[]) => LayerOf<K>
  } | null
  /** Null: that of the layers that it shows. */
  readonly role: ((layer: LayerOf<K>, context: LayerContext) => LayerRole) | null
  readonly weight: ((layer: LayerOf<K>, context: LayerContext) => Weight) | null
  /** How likely it is to be the page of a layout, 0 first; null for what can't be one. */
  readonly pageRank: (layer: LayerOf<K>, context: LayerContext) => number | null
  /** Whether it hides what lies under its frame. */
  readonly coverage: (layer: LayerOf<K>, context: LayerContext, infos: SourceInfos) => 'opaque' | 'partial'
  /** Size of what it shows before it is cropped; undefined while that is not known, and for a plain colour, which has none. */
  readonly naturalSize: (layer: LayerOf<K>, context: LayerContext, infos: SourceInfos) => Canvas | undefined
  /** Whether there is nothing in it to show. */
  readonly isEmpty: (layer: LayerOf<K>, context: LayerContext) => boolean
  /** Whether it is words: typed letter by letter, and set anew for a box of another size. */
  readonly isText: boolean
  /** Whether it shows a picture that can be cropped. */
  readonly hasPicture: (layer: LayerOf<K>, context: LayerContext) => boolean
  /** Whether its box can be held to proportions. */
  readonly hasProportions: boolean
}

export interface ContentDefinition<K extends ContentKind> {
  readonly schema: z.ZodType<ContentOf<K>>
  /** The content at another size, as far as its numbers reach. */
  readonly scaled: (content: ContentOf<K>, scale: number) => ContentOf<K>
}

/** A layer, and the contents that it and those in it show, before they are part of a show. */
export interface NewLayer<L extends Layer = Layer> {
  readonly layer: L
  readonly contents: readonly Content[]
}

/** A new layer's own values, in a place. */
export function newLayerBase(name: string, placement: Placement, makeId: MakeId): LayerBase {
  return {
    id: makeId(),
    name,
    visible: true,
    locked: false,
    opacity: 1,
    part: null,
    crop: null,
    blend: 'normal',
    placement,
    frame: PLAIN_FRAME,
    entrance: null,
    exit: null,
    treatment: [],
  }
}

/** The place of what fills a canvas. */
export function wholeCanvas({ widthPx, heightPx }: Canvas, fit: Placement['fit']): Placement {
  return { x: 0, y: 0, width: widthPx, height: heightPx, angleDeg: 0, fit }
}
