// The style of a show: a palette and two typefaces that graphics share. Whatever names one of them follows it.
import { z } from 'zod'
import { mapLayers } from '../layers/tree.ts'
import type { Content, Layer } from '../layers/layer.ts'
import { colour } from '../schema/values.ts'
import { isFromShow, styleColours, styleFaces, type StyleColour, type StyleFace } from '../style/style-names.ts'
import { textFamilies, type TextFamily } from '../text/text-content.ts'
import type { Scene, Show } from './show.ts'

export interface ShowStyle {
  /** "#rrggbb" each. */
  readonly colours: Readonly<Record<StyleColour, string>>
  readonly faces: Readonly<Record<StyleFace, TextFamily>>
}

export const USUAL_STYLE: ShowStyle = {
  colours: { ground: '#20302b', panel: '#f6f2e7', ink: '#1d2a26', accent: '#1e5b47', onAccent: '#ffffff' },
  faces: { head: 'Bricolage Grotesque', body: 'Instrument Sans' },
}

const eachOf = <K extends string, S extends z.ZodType>(names: readonly K[], schema: S) =>
  Object.fromEntries(names.map((name) => [name, schema])) as Record<K, S>

export const styleSchema: z.ZodType<ShowStyle> = z.strictObject({
  colours: z.strictObject(eachOf(styleColours, colour)),
  faces: z.strictObject(eachOf(styleFaces, z.enum(textFamilies))),
})

/** Changes colours or typefaces of a show. */
export function setStyle(show: Show, part: { readonly colours?: Partial<ShowStyle['colours']>; readonly faces?: Partial<ShowStyle['faces']> }): Show {
  const { colours, faces } = show.style
  return { ...show, style: { colours: { ...colours, ...part.colours }, faces: { ...faces, ...part.faces } } }
}

/** A colour as it is now: the show's where it is one of those, else itself. */
export function colourIn({ colours }: ShowStyle, named: string): string {
  return isFromShow(named) ? (colours[named.slice('show:'.length) as StyleColour] ?? named) : named
}

/** A typeface as it is now. */
export function faceIn({ faces }: ShowStyle, named: string): TextFamily {
  return isFromShow(named) ? faces[named.slice('show:'.length) as StyleFace] : (named as TextFamily)
}

/** The fields that may name something of the style; words that a presenter types are none of them. */
const COLOUR_FIELDS = new Set(['colour', 'accent'])
const FACE_FIELD = 'family'

const styledOnes = new WeakMap<ShowStyle, WeakMap<object, object>>()

/** A part of a document with the style's own values in place of names; the same object where it names none, and the same result for the same part. */
export function inStyle<T extends object>(style: ShowStyle, part: T): T {
  let known = styledOnes.get(style)
  if (known === undefined) styledOnes.set(style, (known = new WeakMap()))
  const before = known.get(part) as T | undefined
  if (before !== undefined) return before
  const styled = replaced(style, part)
  known.set(part, styled)
  return styled
}

function replaced<T extends object>(style: ShowStyle, part: T): T {
  let next: T | null = null
  for (const [key, value] of Object.entries(part) as [keyof T & string, unknown][]) {
    const now = replacedValue(style, key, value)
    if (now === value) continue
    next ??= (Array.isArray(part) ? [...(part as unknown[])] : { ...part }) as T
    next[key] = now as T[keyof T & string]
  }
  return next ?? part
}

function replacedValue(style: ShowStyle, key: string, value: unknown): unknown {
  if (typeof value === 'object' && value !== null) return replaced(style, value)
  if (typeof value !== 'string' || !isFromShow(value)) return value
  return COLOUR_FIELDS.has(key) ? colourIn(style, value) : key === FACE_FIELD ? faceIn(style, value) : value
}

const styledShows = new WeakMap<Show, Show>()
const styledLists = new WeakMap<ShowStyle, WeakMap<readonly unknown[], readonly unknown[]>>()

/** A show in which nothing names its style any more: what pictures are planned of. The same object for the same show. */
export function styledShow(show: Show): Show {
  const known = styledShows.get(show)
  if (known !== undefined) return known
  const contents = styledList(show.style, show.contents, (content: Content) => inStyle(show.style, content))
  const scenes = styledList(show.style, show.scenes, (scene: Scene) => styledScene(show.style, scene))
  const styled = contents === show.contents && scenes === show.scenes ? show : { ...show, contents, scenes }
  styledShows.set(show, styled)
  // Planned twice, it stays as it is.
  styledShows.set(styled, styled)
  return styled
}

function styledList<T extends object>(style: ShowStyle, list: readonly T[], change: (one: T) => T): readonly T[] {
  let known = styledLists.get(style)
  if (known === undefined) styledLists.set(style, (known = new WeakMap()))
  const before = known.get(list) as readonly T[] | undefined
  if (before !== undefined) return before
  const next = list.map(change)
  const styled = next.every((one, index) => one === list[index]) ? list : next
  known.set(list, styled)
  return styled
}

const styledScenes = new WeakMap<ShowStyle, WeakMap<readonly Layer[], readonly Layer[]>>()

/** A scene whose layers name nothing of the style. */
export function styledScene(style: ShowStyle, scene: Scene): Scene {
  let known = styledScenes.get(style)
  if (known === undefined) styledScenes.set(style, (known = new WeakMap()))
  let layers = known.get(scene.layers)
  if (layers === undefined) {
    layers = mapLayers(scene.layers, (layer) => {
      const frame = inStyle(style, layer.frame)
      return frame === layer.frame ? layer : { ...layer, frame }
    })
    known.set(scene.layers, layers)
  }
  return layers === scene.layers ? scene : { ...scene, layers }
}
