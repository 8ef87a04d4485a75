// A show that stays on air while another one is open, or while its scene is gone from the open one.
import type { Show } from './show.ts'

/** Everything that two shows need: inputs and scenes of both. Where they share an input's id, the held show's counts. */
export function withHeld(show: Show, held: Show | null): Show {
  if (held === null) return show
  const heldIds = new Set(held.inputs.map((input) => input.id))
  return { ...show, inputs: [...held.inputs, ...show.inputs.filter((input) => !heldIds.has(input.id))], scenes: [...show.scenes, ...held.scenes] }
}
