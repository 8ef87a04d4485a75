import { activeSteps } from '../../core/steps/treatment.ts'
import { findLayer } from '../../core/layers/tree.ts'
import type { Input, Show, Step } from '../../core/show/show.ts'
import type { StepCall } from '../../core/steps/index.ts'
import type { LayerPlace } from '../protocol.ts'

/** An input's treatment followed by that of a layer. */
export function treatmentOf(show: Show, input: Input, layer: LayerPlace | null): readonly Step[] {
  const scene = layer === null ? undefined : show.scenes.find((candidate) => candidate.id === layer.sceneId)
  const here = scene === undefined ? [] : (findLayer(scene, layer!.layerId)?.treatment ?? [])
  return [...input.treatment, ...here]
}

/** The steps of both that are on. */
export function stepsOf(show: Show, input: Input, layer: LayerPlace | null): StepCall[] {
  return activeSteps(treatmentOf(show, input, layer))
}
