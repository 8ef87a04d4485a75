// Which covering in a scene is worth a word, and a move that mends it.
import type { SourceInfos } from '../plan/plan-frame.ts'
import { moveLayer } from '../show/edits.ts'
import type { Layer, Scene, Show } from '../show/show.ts'
import { hiddenLayers, type HiddenLayer } from './hidden-layers.ts'

/** What the audience came for first: the presenter, then words, then pictures; a plain colour is there to be covered. */
export type Weight = 'camera' | 'text' | 'picture' | 'colour'

export interface DepthMove {
  readonly layerId: string
  /** From the back. */
  readonly index: number
  /** Whether `layerId` goes behind the hidden layer, or is the hidden layer and comes in front. */
  readonly way: 'behind' | 'inFront'
}

export interface DepthAdvice extends HiddenLayer {
  /**
   * `trouble`: something that matters is covered by something that matters less or as much. `note`: a picture cannot be seen at
   * all, which may well be meant.
   */
  readonly kind: 'trouble' | 'note'
  /** The move after which the hidden layer is seen and nothing that matters as much is hidden instead; null when there is none. */
  readonly fix: DepthMove | null
}

const RANK: Readonly<Record<Weight, number>> = { camera: 3, text: 2, picture: 1, colour: 0 }
/** Less than this is how things overlap by design: a title over a jumper (common practice, no source). */
const TELL_FROM = 0.08
/** A camera behind a title plate is seen; from here on one asks where the presenter has gone (common practice, no source). */
const TELL_CAMERA_UNDER_TEXT_FROM = 0.5
/** A picture is told of only when nothing of it is seen. */
const TELL_PICTURE_FROM = 0.995

/** What a layer is to the audience. */
export function weightOf(show: Show, layer: Layer): Weight {
  if (layer.kind === 'text') return 'text'
  return show.inputs.find((input) => input.id === layer.inputId)?.kind ?? 'picture'
}

/** The coverings of a scene worth a word, the most important first. */
export function depthAdvice(show: Show, scene: Scene, infos: SourceInfos): DepthAdvice[] {
  return findings(show, scene, infos).map((hidden) => ({ ...hidden, fix: fixFor(show, scene, infos, hidden) }))
}

type Finding = HiddenLayer & { readonly kind: DepthAdvice['kind'] }

function findings(show: Show, scene: Scene, infos: SourceInfos): Finding[] {
  const weight = (layerId: string) =>
    weightOf(
      show,
      scene.layers.find((layer) => layer.id === layerId)!,
    )
  return hiddenLayers(show, scene, infos)
    .flatMap((hidden): Finding[] => {
      const back = weight(hidden.layerId)
      const front = weight(hidden.coveredBy)
      if (hidden.hiddenShare < tellFrom(back, front)) return []
      return back === 'colour' ? [] : [{ ...hidden, kind: back === 'picture' ? 'note' : 'trouble' }]
    })
    .sort((first, second) => RANK[weight(second.layerId)] - RANK[weight(first.layerId)] || second.hiddenShare - first.hiddenShare)
}

function tellFrom(back: Weight, front: Weight): number {
  if (back === 'picture' || back === 'colour') return TELL_PICTURE_FROM
  return back === 'camera' && front === 'text' ? TELL_CAMERA_UNDER_TEXT_FROM : TELL_FROM
}

/** Tries both ways round, and takes the one that leaves the least important thing hidden. */
function fixFor(show: Show, scene: Scene, infos: SourceInfos, hidden: Finding): DepthMove | null {
  const at = (layerId: string) => scene.layers.findIndex((layer) => layer.id === layerId)
  const moves: readonly DepthMove[] = [
    { layerId: hidden.coveredBy, index: at(hidden.layerId), way: 'behind' },
    { layerId: hidden.layerId, index: at(hidden.coveredBy), way: 'inFront' },
  ]
  const rated = moves.flatMap((move) => {
    const moved = moveLayer(show, scene.id, move.layerId, move.index)
    const after = findings(
      moved,
      moved.scenes.find(({ id }) => id === scene.id)!,
      infos,
    )
    if (after.some((left) => left.layerId === hidden.layerId)) return []
    return [{ move, cost: after.reduce((sum, left) => sum + costOf(show, scene, left), 0) }]
  })
  const before = findings(show, scene, infos).reduce((sum, left) => sum + costOf(show, scene, left), 0)
  const best = rated.reduce<(typeof rated)[number] | null>((most, one) => (most === null || one.cost < most.cost ? one : most), null)
  return best !== null && best.cost < before ? best.move : null
}

function costOf(show: Show, scene: Scene, hidden: Finding): number {
  const weight = weightOf(
    show,
    scene.layers.find((layer) => layer.id === hidden.layerId)!,
  )
  return hidden.hiddenShare * 10 ** RANK[weight]
}
