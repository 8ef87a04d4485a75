// A show that stays on air while another one is open, or while its scene is gone from the open one.
import { mapLayers } from './layer-tree.ts'
import type { Layer, Show } from './show.ts'

/**
 * The show as it is kept on air. Its texts get ids of their own, since a copy of the show may be open meanwhile, with the same
 * ids and other words.
 */
export function heldCopy(show: Show): Show {
  const own = (layer: Layer): Layer => (layer.kind === 'text' ? { ...layer, id: `held:${layer.id}` } : layer)
  return { ...show, scenes: show.scenes.map((scene) => ({ ...scene, layers: mapLayers(scene.layers, own) })) }
}

/** Everything that two shows need: inputs and scenes of both. Where they share an input's id, the held show's counts. */
export function withHeld(show: Show, held: Show | null): Show {
  if (held === null) return show
  const heldIds = new Set(held.inputs.map((input) => input.id))
  return { ...show, inputs: [...held.inputs, ...show.inputs.filter((input) => !heldIds.has(input.id))], scenes: [...show.scenes, ...held.scenes] }
}
