// Where a hand writes: on the page that it is over, so that what it writes turns with the page; on the scene everywhere else.
import { fitRects } from '../box/fit.ts'
import { boxToCanvas } from '../box/placement.ts'
import { inverse, mapPoint } from '../composite/affine.ts'
import { pageSurface, sceneSurface, type SurfaceId } from '../drawing/surface.ts'
import { isDeck, pageAt } from '../inputs/deck.ts'
import { inputOf, pageIdOf } from '../layers/index.ts'
import type { Layer, LayerContext } from '../layers/layer.ts'
import type { Scene } from '../show/show.ts'

export interface SurfaceAt {
  readonly surface: SurfaceId
  /** From pixels of the canvas to shares of the surface, beyond it too. */
  readonly toSurface: (x: number, y: number) => readonly [u: number, v: number]
  /** Height of the whole surface as it is seen, in pixels of the canvas; lines are as wide as a share of it. */
  readonly heightPx: number
}

/** What lies under (x, y), in pixels of the canvas. `scene` is as it is seen, with its decks turned. */
export function surfaceAt(context: LayerContext, scene: Pick<Scene, 'id' | 'layers'>, x: number, y: number): SurfaceAt {
  for (const layer of scene.layers.toReversed()) {
    const found = layer.visible && layer.opacity > 0 ? pageOf(context, layer) : null
    if (found === null) continue
    const [u, v] = found.toSeen(x, y)
    if (u >= 0 && u <= 1 && v >= 0 && v <= 1) return found
  }
  const { widthPx, heightPx } = context.canvas
  return { surface: sceneSurface(scene.id), toSurface: (atX, atY) => [atX / widthPx, atY / heightPx], heightPx }
}

/** Surfaces that are seen in a scene: its own, and the pages that it shows. */
export function surfacesOf(context: LayerContext, scene: Pick<Scene, 'id' | 'layers'>): readonly SurfaceId[] {
  const pages = scene.layers.flatMap((layer) => (layer.visible ? (pageOf(context, layer)?.surface ?? []) : []))
  return [...new Set([sceneSurface(scene.id), ...pages])]
}

function pageOf(context: LayerContext, layer: Layer): (SurfaceAt & { readonly toSeen: SurfaceAt['toSurface'] }) | null {
  const deck = inputOf(context, layer)
  if (deck === undefined || !isDeck(deck)) return null
  const page = pageAt(deck, pageIdOf(layer))
  const { placement, crop } = layer
  const { source, target } = fitRects(placement.fit, page.widthPx, page.heightPx, placement.width, placement.height, crop)
  const toBox = inverse(boxToCanvas(placement))
  const toSeen = (x: number, y: number): readonly [number, number] => {
    const [boxX, boxY] = mapPoint(toBox, x, y)
    return [(boxX - target.x) / target.width, (boxY - target.y) / target.height]
  }
  return {
    surface: pageSurface(deck.id, page.id),
    toSeen,
    toSurface: (x, y) => {
      const [u, v] = toSeen(x, y)
      return [(source.x + u * source.width) / page.widthPx, (source.y + v * source.height) / page.heightPx]
    },
    heightPx: (target.height * page.heightPx) / source.height,
  }
}
