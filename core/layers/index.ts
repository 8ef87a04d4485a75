// Every kind of layer, and what can be asked of any layer. Who needs a difference between kinds asks here; nobody else compares `kind`.
import { z } from 'zod'
import { inputKindOf } from '../inputs/index.ts'
import type { Input } from '../inputs/input.ts'
import type { SourceId, SourceInfos } from '../picture/source.ts'
import type { Step } from '../steps/treatment.ts'
import { group } from './group.ts'
import { input } from './input.ts'
import type {
  Canvas,
  Content,
  ContentDefinition,
  ContentKind,
  ContentOf,
  Layer,
  LayerContext,
  LayerDefinition,
  LayerKind,
  LayerOf,
  LayerRole,
} from './layer.ts'
import { scene } from './scene.ts'
import { shape } from './shape.ts'
import { text } from './text.ts'

export const layerKinds: { readonly [K in LayerKind]: LayerDefinition<K> } = { input, text, shape, group, scene }

/** What the kind of a layer says about it. */
export function layerKindOf<K extends LayerKind>(layer: LayerOf<K> & { readonly kind: K }): LayerDefinition<K> {
  return layerKinds[layer.kind]
}

/** The stored form of any layer. */
export const layerSchema: z.ZodType<Layer> = z.lazy(() => anyLayer)
const anyLayer = z.discriminatedUnion('kind', Object.values(layerKinds).map((kind) => kind.schema(layerSchema)) as never) as unknown as z.ZodType<Layer>

const contentKinds = Object.values(layerKinds).flatMap(({ content }) => (content === null ? [] : [content]))
/** The stored form of any content. */
export const contentSchema = z.discriminatedUnion('kind', contentKinds.map(({ schema }) => schema) as never) as unknown as z.ZodType<Content>

/** A content at another size, as far as its numbers reach. */
export function scaledContent<K extends ContentKind>(content: ContentOf<K> & { readonly kind: K }, scale: number): ContentOf<K> {
  const definition = layerKinds[content.kind as LayerKind].content as unknown as ContentDefinition<K>
  return definition.scaled(content, scale)
}

/** The input that a layer shows itself; null for kinds that show none. */
export function inputIdOf(layer: Layer): string | null {
  return layerKindOf(layer).inputId(layer)
}

/** The page of its input that a layer stays at; null where it shows whatever the input shows. */
export function pageIdOf(layer: Layer): string | null {
  return layerKindOf(layer).pageId(layer)
}

/** The scene that a layer shows; null for kinds that show none. */
export function sceneIdOf(layer: Layer): string | null {
  return layerKindOf(layer).sceneId(layer)
}

/** The content that a layer shows by itself; null for kinds that show none. */
export function contentIdOf(layer: Layer): string | null {
  return layerKindOf(layer).contentId(layer)
}

/** The input that a layer shows; undefined where it shows none, or one that the show does not have. */
export function inputOf({ inputs }: Pick<LayerContext, 'inputs'>, layer: Layer | undefined): Input | undefined {
  const inputId = layer === undefined ? null : inputIdOf(layer)
  return inputId === null ? undefined : inputs.find(({ id }) => id === inputId)
}

/** The layers that a layer holds itself; null for kinds that hold none. */
export function childrenOf(layer: Layer): readonly Layer[] | null {
  return layerKindOf(layer).children?.of(layer) ?? null
}

/** A layer that holds others, with these in their place; layers of other kinds stay as they are. */
export function withChildren(layer: Layer, children: readonly Layer[]): Layer {
  return layerKindOf(layer).children?.replaced(layer, children) ?? layer
}

/** What two layers that show the same thing have in common; null for one that is its own thing. */
export function identityOf(layer: Layer): string | null {
  const inputId = inputIdOf(layer)
  if (inputId !== null) return `input ${inputId}${pageIdOf(layer) === null ? '' : ` ${pageIdOf(layer)}`}`
  const sceneId = sceneIdOf(layer)
  if (sceneId !== null) return `scene ${sceneId}`
  const contentId = contentIdOf(layer)
  return contentId === null ? null : `content ${contentId}`
}

/** Whether two layers show the same input, or the same scene. */
export function showsSame(one: Layer, other: Layer): boolean {
  const thing = contentIdOf(one) === null ? identityOf(one) : null
  return thing !== null && thing === identityOf(other)
}

/** Where a layer belongs in the order of a scene. */
export function roleOf(context: LayerContext, layer: Layer): LayerRole {
  if (layer.part === 'background') return 'ground'
  const { role } = layerKindOf(layer)
  if (role !== null) return role(layer, context)
  return (childrenOf(layer) ?? []).some((inner) => roleOf(context, inner) === 'person') ? 'person' : 'graphic'
}

/** Everything that cleans what a layer shows: everywhere first, then here only. */
export function treatmentOf(context: Pick<LayerContext, 'inputs'>, layer: Layer): readonly Step[] {
  return [...(inputOf(context, layer)?.treatment ?? []), ...layer.treatment]
}

/** Size of what a layer shows before it is cropped; undefined while that is not known. */
export function naturalSizeOf(context: LayerContext, layer: Layer, infos: SourceInfos): Canvas | undefined {
  return layerKindOf(layer).naturalSize(layer, context, infos)
}

/** The source whose picture a layer shows and that has to come from a device or a file; null where there is none. */
export function neededSourceOf(context: LayerContext, layer: Layer): SourceId | null {
  const shown = inputOf(context, layer)
  return shown === undefined || !inputKindOf(shown).hasPicture ? null : inputKindOf(shown).sourceId(shown, pageIdOf(layer))
}
