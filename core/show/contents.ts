// What layers show, apart from where: a content that several layers name is the same thing in all of them.
import { contentOf } from '../layers/content.ts'
import { contentIdOf } from '../layers/index.ts'
import { shapeOf } from '../layers/shape.ts'
import { layersOf, mapLayers, walkLayers } from '../layers/tree.ts'
import type { MakeId } from '../random/make-id.ts'
import type { TextContent } from '../text/text-content.ts'
import type { Content, Fill, Layer, Outline, ShapeLayer, Show } from './show.ts'

/** What a shape is filled with. Throws a RangeError when the show has no such shape. */
export function fillOf(show: Pick<Show, 'contents'>, layer: Pick<ShapeLayer, 'contentId'>): Fill {
  return shapeOf(show, layer).fill
}

/** Every layer that shows a content, of all scenes. */
export function layersShowing(show: Pick<Show, 'scenes'>, contentId: string): Layer[] {
  return show.scenes.flatMap(layersOf).filter((layer) => contentIdOf(layer) === contentId)
}

/** Puts contents into a show; those that are there already stay as they are. */
export function addContents(show: Show, contents: readonly Content[]): Show {
  const added = contents.filter((content) => contentOf(show, content.id) === undefined)
  return added.length === 0 ? show : { ...show, contents: [...show.contents, ...added] }
}

/** Changes a text, wherever it is shown. */
export function updateText(show: Show, contentId: string, change: (text: TextContent) => TextContent): Show {
  return updateContent(show, contentId, (content) => ('text' in content ? { ...content, text: change(content.text) } : content))
}

/** Changes a fill, wherever it is shown. */
export function updateFill(show: Show, contentId: string, change: (fill: Fill) => Fill): Show {
  return updateContent(show, contentId, (content) => ('fill' in content ? { ...content, fill: change(content.fill) } : content))
}

/** Changes the outline of a shape, wherever it is shown; a shape without one stays as it is. */
export function updateOutline(show: Show, contentId: string, change: (outline: Outline) => Outline): Show {
  return updateContent(show, contentId, (content) =>
    'outline' in content && content.outline !== null ? { ...content, outline: change(content.outline) } : content,
  )
}

function updateContent(show: Show, contentId: string, change: (content: Content) => Content): Show {
  return { ...show, contents: show.contents.map((content) => (content.id === contentId ? change(content) : content)) }
}

/** Layers with copies of what they show, that change by themselves; what they share with each other they go on sharing. */
export function withOwnContents(
  show: Pick<Show, 'contents'>,
  layers: readonly Layer[],
  makeId: MakeId,
): { readonly layers: readonly Layer[]; readonly contents: readonly Content[] } {
  const copies = new Map<string, Content>()
  const own = (layer: Layer): Layer => {
    const contentId = contentIdOf(layer)
    const content = contentId === null ? undefined : contentOf(show, contentId)
    if (content === undefined) return layer
    const copy = copies.get(content.id) ?? { ...content, id: makeId() }
    copies.set(content.id, copy)
    return { ...layer, contentId: copy.id } as Layer
  }
  return { layers: mapLayers(layers, own), contents: [...copies.values()] }
}

/** Gives a layer its own copy of its content; other layers keep sharing theirs. Returns the show itself if no other layer shares it. */
export function makeOwn(show: Show, sceneId: string, layerId: string, makeId: MakeId): Show {
  const layer = layersOf(show.scenes.find((scene) => scene.id === sceneId) ?? { layers: [] }).find(({ id }) => id === layerId)
  const contentId = layer === undefined ? null : contentIdOf(layer)
  if (layer === undefined || contentId === null || layersShowing(show, contentId).length < 2) return show
  const { layers, contents } = withOwnContents(show, [layer], makeId)
  return replaceLayer(addContents(show, contents), sceneId, layers[0]!)
}

/** Lets a layer show the same thing as others do; a content of another kind changes nothing. */
export function makeSame(show: Show, sceneId: string, layerId: string, contentId: string): Show {
  const kind = contentOf(show, contentId)?.kind
  if (kind === undefined) return show
  const scene = show.scenes.find((candidate) => candidate.id === sceneId)
  for (const { layer } of walkLayers(scene?.layers ?? [])) {
    if (layer.id !== layerId || contentOf(show, contentIdOf(layer) ?? '')?.kind !== kind) continue
    return withoutUnusedContents(replaceLayer(show, sceneId, { ...layer, contentId } as Layer))
  }
  return show
}

function replaceLayer(show: Show, sceneId: string, next: Layer): Show {
  const replaced = (layers: readonly Layer[]) => mapLayers(layers, (layer) => (layer.id === next.id ? next : layer))
  return { ...show, scenes: show.scenes.map((scene) => (scene.id === sceneId ? { ...scene, layers: replaced(scene.layers) } : scene)) }
}

/** The show without what no layer shows. */
export function withoutUnusedContents(show: Show): Show {
  const used = new Set(show.scenes.flatMap(layersOf).map(contentIdOf))
  return show.contents.every((content) => used.has(content.id)) ? show : { ...show, contents: show.contents.filter((content) => used.has(content.id)) }
}
