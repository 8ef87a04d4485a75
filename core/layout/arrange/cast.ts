// Who plays which part of a layout in a scene: what is chosen does not depend on what a layout has made of it.
import { inputKindOf } from '../../inputs/index.ts'
import type { Subject } from '../../inputs/input.ts'
import { inputIdOf, layerKindOf, inputOf } from '../../layers/index.ts'
import type { Layer, Scene, Show } from '../../show/show.ts'

/** Ids of layers. */
export interface Cast {
  /** Cameras, the first of them the presenter. */
  readonly presenters: readonly string[]
  /** What is presented; null: nothing. */
  readonly page: string | null
}

/** A smaller picture is a mark or a decoration (share of the canvas). */
const LEAST_PAGE = 0.05
/**
 * The cast of a scene: layers that are shown or that a layout has hidden, but for locked ones, grounds, marks and words. Of several pages of a
 * kind the one in front is meant; a page that the presenter has `selected` is meant before all.
 */
export function castOf(show: Show, scene: Scene, selected: string | null = null): Cast {
  const own = scene.layers.filter((layer) => !layer.locked && layer.part === null)
  const order = (layer: Layer) => {
    const inputId = inputIdOf(layer)
    return inputId === null ? show.inputs.length : show.inputs.findIndex(({ id }) => id === inputId)
  }
  const sorted = own.toSorted((one, other) => order(one) - order(other) || (one.id < other.id ? -1 : 1))
  const pages = sorted
    .filter((layer) => isPage(show, layer))
    .toSorted(
      (one, other) =>
        Number(other.id === selected) - Number(one.id === selected) ||
        pageRankOf(show, one)! - pageRankOf(show, other)! ||
        scene.layers.indexOf(other) - scene.layers.indexOf(one),
    )
  return { presenters: sorted.filter((layer) => subjectOf(show, layer) === 'person').map(({ id }) => id), page: pages[0]?.id ?? null }
}

const pageRankOf = (show: Show, layer: Layer) => layerKindOf(layer).pageRank(layer, show)

/** Who or what an input layer shows; null for other layers: a scene with a camera in it is still a page. */
function subjectOf(show: Show, layer: Layer): Subject | null {
  const input = inputOf(show, layer)
  return input === undefined ? null : inputKindOf(input).subject
}

function isPage(show: Show, layer: Layer): boolean {
  if (pageRankOf(show, layer) === null) return false
  const { x, y, width, height, fit } = layer.placement
  const { widthPx, heightPx } = show.canvas
  if (width * height < LEAST_PAGE * widthPx * heightPx) return false
  // What fills the whole canvas is what the others stand in front of; layouts show pages whole.
  const isGround = fit !== 'fit' && x <= 0 && y <= 0 && x + width >= widthPx && y + height >= heightPx
  const input = inputOf(show, layer)
  return !isGround || (input !== undefined && inputKindOf(input).isPageWhenWhole)
}
