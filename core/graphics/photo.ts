// The photo of a graphic: who is shown, or nobody.
import { isShape } from '../layers/shape.ts'
import { layersOf } from '../layers/tree.ts'
import type { Layer } from '../layers/layer.ts'
import { withoutUnusedContents } from '../show/contents.ts'
import { updateLayer } from '../show/edits.ts'
import type { Input, Scene, Show } from '../show/show.ts'

/** The layer that shows somebody; null for a graphic without a photo. */
export function photoOf(graphic: Pick<Scene, 'layers'>): Layer | null {
  return layersOf(graphic).find(({ part }) => part === 'photo') ?? null
}

/** Shows a picture, or a camera, as the photo of a graphic. What the layer did to the picture before it stays. */
export function setPhoto(show: Show, graphicId: string, layerId: string, shown: Input): Show {
  const next = updateLayer(show, graphicId, layerId, (layer): Layer => {
    if (!isShape(layer)) return { ...layer, inputId: shown.id } as Layer
    const { contentId: _, ...base } = layer
    return { ...base, kind: 'input', inputId: shown.id, pageId: null, placement: { ...base.placement, fit: 'fill' } }
  })
  return withoutUnusedContents(next)
}
