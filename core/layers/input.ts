import { parseHex } from '../colour/hex.ts'
import { boxToCanvas } from '../layout/placement.ts'
import { putFramed } from './frame.ts'
import { putSource } from './picture.ts'
import { callsOf, scaledPlacement, type LayerKindDefinition } from './place.ts'
import { inputSourceId, plainSourceId } from './sources.ts'

/** A camera, a picture or a colour of the show. */
export const inputLayer: LayerKindDefinition<'input'> = {
  kind: 'input',
  put: (place, layer) => {
    const input = place.show.inputs.find((candidate) => candidate.id === layer.inputId)
    if (input === undefined) return
    const placement = scaledPlacement(layer.placement, place.scale)
    const steps = callsOf(input.treatment, layer.treatment)
    if (input.kind === 'colour') {
      const colour = parseHex(input.colour)
      if (steps.length > 0) return putSource(place, layer, placement, plainSourceId(input.colour), { widthPx: 1, heightPx: 1, isOpaque: true }, steps)
      putFramed(place, layer, boxToCanvas(placement), placement.width, placement.height, () => ({ kind: 'plain', colour, opacity: 1 }))
      return
    }
    const sourceId = inputSourceId(input.id)
    const info = place.infos.get(sourceId)
    if (info === undefined) return place.stack.miss({ layerId: layer.id, sourceId })
    putSource(place, layer, placement, sourceId, info, steps)
  },
}
