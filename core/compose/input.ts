import { callsOf } from '../steps/treatment.ts'
import { parseHex } from '../colour/hex.ts'
import { boxToCanvas } from '../box/placement.ts'
import { putFramed } from './frame.ts'
import { putSource } from './picture.ts'
import { scaledPlacement, type PutLayer } from './place.ts'
import { inputKindOf } from '../inputs/index.ts'

/** A camera, a picture or a colour of the show. */
export const putInput: PutLayer<'input'> = (place, layer) => {
  const input = place.show.inputs.find((candidate) => candidate.id === layer.inputId)
  if (input === undefined) return
  const placement = scaledPlacement(layer.placement, place.scale)
  const steps = callsOf(input.treatment, layer.treatment)
  const { still, sourceId: sourceIdOf } = inputKindOf(input)
  const sourceId = sourceIdOf(input, layer.pageId)
  const known = still(input, layer.pageId)
  if (known?.type === 'colour') {
    const colour = parseHex(known.colour)
    if (steps.length > 0) return putSource(place, layer, placement, sourceId, { widthPx: 1, heightPx: 1, isOpaque: true }, steps)
    putFramed(place, layer, boxToCanvas(placement), placement.width, placement.height, () => ({ kind: 'plain', colour, opacity: 1 }))
    return
  }
  const info = place.infos.get(sourceId)
  if (info === undefined) return place.stack.miss({ layerId: layer.id, sourceId })
  putSource(place, layer, placement, sourceId, info, steps)
}
