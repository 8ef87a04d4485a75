import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { activeSteps } from '../../core/steps/treatment.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { planInput } from '../../core/stage/plan-frame.ts'
import type { Show } from '../../core/show/show.ts'
import type { Executors } from '../executors.ts'
import type { LayerPlace } from '../protocol.ts'
import type { SourceBook } from '../sources/source-book.ts'
import { treatmentOf } from './steps-of.ts'
import { straightOf } from './straight-alpha.ts'

/** A copy of an input's picture as it reaches a step (null: unprocessed), straight alpha; null while there is no picture. */
export function grabPicture(
  show: Show,
  book: SourceBook,
  executors: Executors,
  inputId: string,
  beforeStepId: string | null,
  layer: LayerPlace | null,
): RgbaPicture | null {
  const info = book.infos.get(inputSourceId(inputId))
  const input = show.inputs.find((candidate) => candidate.id === inputId)
  if (info === undefined || input === undefined) return null
  const chain = treatmentOf(show, input, layer)
  const until = chain.findIndex((step) => step.id === beforeStepId)
  const plan = planInput(inputId, info, activeSteps(chain.slice(0, Math.max(0, until))), info.widthPx, info.heightPx)
  const executor = executors.make()
  const rendered = executor.render(plan, book.frames)
  const picture = straightOf(rendered, new Uint8ClampedArray(rendered.data.length))
  executor.dispose()
  return picture
}
