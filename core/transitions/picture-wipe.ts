import { RANGES } from '../schema/limits.ts'
import { id, number } from '../schema/values.ts'
import { NO_CALLS } from '../steps/treatment.ts'
import { scaling } from '../composite/affine.ts'
import { inputSourceId } from '../inputs/source-ids.ts'
import { mixed } from './dissolve.ts'
import type { TransitionBase, TransitionDefinition } from './definition.ts'
import { nextItems } from './whole.ts'

/** Of its greys: a harder edge would show steps. */
const LEAST_SOFTNESS = 1 / 64

/** Where a picture of the show is dark the next comes first. `softness` 0..1 of its greys. */
export interface PictureWipe extends TransitionBase {
  readonly kind: 'pictureWipe'
  readonly inputId: string
  readonly softness: number
}

/** The picture is pulled over the canvas. Without it both are mixed, so that there is never a hole. */
export const pictureWipe: TransitionDefinition<PictureWipe, null> = {
  kind: 'pictureWipe',
  usual: null,
  stored: { inputId: id, softness: number(RANGES.share) },
  put: (between, { inputId, softness }, progress) => {
    const { stack, widthPx, heightPx, infos, builder } = between.place
    const sourceId = inputSourceId(inputId)
    const info = infos.get(sourceId)
    if (info === undefined) return mixed(between, progress)
    between.from.put()
    const soft = Math.max(LEAST_SOFTNESS, softness)
    const items = nextItems(between)
    const node = builder.treated(sourceId, info, NO_CALLS, 0)
    const reveal = {
      kind: 'luma' as const,
      node,
      toNode: scaling(info.widthPx / widthPx, info.heightPx / heightPx),
      level: progress * (1 + soft) - soft / 2,
      slope: 1 / soft,
    }
    for (const next of items) stack.put({ ...next, coverage: { ...next.coverage, reveal: progress === 1 ? null : reveal }, opacity: progress === 0 ? 0 : 1 })
  },
}
