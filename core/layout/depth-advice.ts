// Which covering in a scene is worth a word, and a move that mends it.
import { weightOf } from '../layers/tree.ts'
import type { Weight } from '../layers/layer.ts'
import type { SourceInfos } from '../picture/source.ts'
import { moveLayer } from '../show/edits.ts'
import type { Scene, Show } from '../show/show.ts'
import { hiddenLayers, type HiddenLayer } from './hidden-layers.ts'

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
}

const RANK: Readonly<Record<Weight, number>> = { camera: 3, text: 2, picture: 1, colour: 0 }
/** Less than this is how things overlap by design: a title over a jumper (common practice, no source). */
const TELL_FROM = 0.08
/** From here on one asks where the presenter has gone, whatever is in front (common practice, no source). */
const TELL_MOST_OF_CAMERA_FROM = 0.5
/** A picture is told of only when nothing of it is seen. */
const TELL_PICTURE_FROM = 0.995

/** The coverings of a scene worth a word, the most important first. */
export function depthAdvice(show: Show, scene: Scene, infos: SourceInfos): DepthAdvice[] {
  const weight = (layerId: string) =>
    weightOf(
      show,
      scene.layers.find((layer) => layer.id === layerId)!,
    )
  return hiddenLayers(show, scene, infos)
    .flatMap((hidden): DepthAdvice[] => {
      const back = weight(hidden.layerId)
      const front = weight(hidden.coveredBy)
      if (!isWorthAWord(back, front, hidden)) return []
      return back === 'colour' ? [] : [{ ...hidden, kind: back === 'picture' ? 'note' : 'trouble' }]
    })
    .sort((first, second) => RANK[weight(second.layerId)] - RANK[weight(first.layerId)] || second.hiddenShare - first.hiddenShare)
}

function isWorthAWord(back: Weight, front: Weight, { hiddenShare, coreShare }: HiddenLayer): boolean {
  if (back === 'picture' || back === 'colour') return hiddenShare >= TELL_PICTURE_FROM
  if (back !== 'camera') return hiddenShare >= TELL_FROM
  // A shoulder may be covered, by a page beside the head; the face not.
  if (hiddenShare >= TELL_MOST_OF_CAMERA_FROM) return true
  return front !== 'text' && coreShare >= TELL_FROM
}

/**
 * The move after which the hidden layer is seen and nothing that matters as much is hidden instead: both ways round are tried, and
 * the one that leaves the least important thing hidden is taken. Null when neither helps.
 */
export function depthFix(show: Show, scene: Scene, infos: SourceInfos, hidden: DepthAdvice): DepthMove | null {
  const at = (layerId: string) => scene.layers.findIndex((layer) => layer.id === layerId)
  const costOf = (left: readonly DepthAdvice[]) =>
    left.reduce((sum, one) => sum + one.hiddenShare * 10 ** RANK[weightOf(show, scene.layers[at(one.layerId)]!)], 0)
  const moves: readonly DepthMove[] = [
    { layerId: hidden.coveredBy, index: at(hidden.layerId), way: 'behind' },
    { layerId: hidden.layerId, index: at(hidden.coveredBy), way: 'inFront' },
  ]
  let best: DepthMove | null = null
  let least = costOf(depthAdvice(show, scene, infos))
  for (const move of moves) {
    const moved = moveLayer(show, scene.id, move.layerId, move.index)
    const after = depthAdvice(
      moved,
      moved.scenes.find(({ id }) => id === scene.id)!,
      infos,
    )
    const cost = costOf(after)
    if (cost >= least || after.some((left) => left.layerId === hidden.layerId)) continue
    best = move
    least = cost
  }
  return best
}
