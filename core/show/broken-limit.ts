// How much a show may hold, looked at when it is edited: what would be refused when it is saved is never begun.
import { childrenOf } from '../layers/index.ts'
import { walkLayers } from '../layers/tree.ts'
import { LIMITS } from '../schema/limits.ts'
import type { Input, Layer, Scene, Show } from './show.ts'

export const limitedThings = ['scenes', 'inputs', 'layers', 'steps', 'depth', 'contents'] as const
/** `layers`: of a scene, or of a group. `steps`: of a treatment. `depth`: groups in each other. */
export type LimitedThing = (typeof limitedThings)[number]

/** What an edit would make too many of; null when all is well. Looks only at what the edit has changed. */
export function brokenLimit(before: Show, after: Show): LimitedThing | null {
  for (const thing of ['scenes', 'inputs', 'contents'] as const) if (after[thing] !== before[thing] && after[thing].length > LIMITS[thing]) return thing
  const known = new Set<unknown>([...before.inputs, ...before.scenes.map(({ layers }) => layers)])
  if (after.inputs.some((input) => !known.has(input) && hasTooManySteps(input))) return 'steps'
  for (const scene of after.scenes) {
    const found = known.has(scene.layers) ? null : brokenIn(scene)
    if (found !== null) return found
  }
  return null
}

function brokenIn({ layers }: Scene): LimitedThing | null {
  if (layers.length > LIMITS.layers) return 'layers'
  for (const { layer, depth } of walkLayers(layers)) {
    if ((childrenOf(layer)?.length ?? 0) > LIMITS.layers) return 'layers'
    if (childrenOf(layer) !== null && depth >= LIMITS.depth) return 'depth'
    if (hasTooManySteps(layer)) return 'steps'
  }
  return null
}

function hasTooManySteps({ treatment }: Input | Layer): boolean {
  return treatment.length > LIMITS.steps
}
