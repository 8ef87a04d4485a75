// Who plays which part of a layout in a scene: what is chosen does not depend on what a layout has made of it.
import type { InputKind, Layer, Scene, Show } from '../../show/show.ts'

/** Ids of layers. */
export interface Cast {
  /** Cameras, the first of them the presenter. */
  readonly presenters: readonly string[]
  /** What is presented; null: nothing. */
  readonly page: string | null
}

/** A smaller picture is a mark or a decoration (share of the canvas). */
const LEAST_PAGE = 0.05
/** What a page is likeliest to be. */
const PAGE_KINDS: readonly (InputKind | 'scene')[] = ['screen', 'scene', 'clip', 'picture']

/**
 * The cast of a scene: layers that are shown or that a layout has hidden, but for locked ones, grounds, marks and words. Of several pages of a
 * kind the one in front is meant; a page that the presenter has `selected` is meant before all.
 */
export function castOf(show: Show, scene: Scene, selected: string | null = null): Cast {
  const own = scene.layers.filter((layer) => !layer.locked && layer.part === null)
  const order = (layer: Layer) => (layer.kind === 'input' ? show.inputs.findIndex(({ id }) => id === layer.inputId) : show.inputs.length)
  const sorted = own.toSorted((one, other) => order(one) - order(other) || (one.id < other.id ? -1 : 1))
  const pages = sorted
    .filter((layer) => isPage(show, layer))
    .toSorted(
      (one, other) =>
        Number(other.id === selected) - Number(one.id === selected) ||
        PAGE_KINDS.indexOf(kindOf(show, one)!) - PAGE_KINDS.indexOf(kindOf(show, other)!) ||
        scene.layers.indexOf(other) - scene.layers.indexOf(one),
    )
  return { presenters: sorted.filter((layer) => kindOf(show, layer) === 'camera').map(({ id }) => id), page: pages[0]?.id ?? null }
}

/** What a layer shows, as far as layouts care; a scene with a camera in it is still a page. */
function kindOf(show: Show, layer: Layer): InputKind | 'scene' | null {
  if (layer.kind === 'scene') return 'scene'
  return layer.kind === 'input' ? (show.inputs.find(({ id }) => id === layer.inputId)?.kind ?? null) : null
}

function isPage(show: Show, layer: Layer): boolean {
  const kind = kindOf(show, layer)
  if (kind === null || !PAGE_KINDS.includes(kind)) return false
  const { x, y, width, height, fit } = layer.placement
  const { widthPx, heightPx } = show.canvas
  if (width * height < LEAST_PAGE * widthPx * heightPx) return false
  // What fills the whole canvas is what the others stand in front of; layouts show pages whole.
  const isGround = fit !== 'fit' && x <= 0 && y <= 0 && x + width >= widthPx && y + height >= heightPx
  return !isGround || kind === 'screen'
}
