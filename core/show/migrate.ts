// Stored shows carry a version. Each entry lifts a stored by one version; they run in turn.
import { chainSchema, showSchema, type ChainFile } from './schema.ts'
import type { Show } from './show.ts'

type Loose = Record<string, unknown>

/** Lifts a stored from the version it is filed under to the next. */
export const migrations: Readonly<Record<number, (stored: Loose) => Loose>> = {
  // Version 0 was the sketch before the first release: one background colour, no holding card.
  0: (stored) => ({
    ...stored,
    version: 1,
    holdingCard: stored['holdingCard'] ?? { title: 'Back in a moment', detail: '' },
  }),
  // Version 1 kept saturation with the tones; it is a step of its own now.
  1: (stored) => ({
    ...stored,
    version: 2,
    inputs: listOf(stored['inputs']).map(liftTreatment),
    scenes: listOf(stored['scenes']).map((scene) => ({ ...scene, layers: listOf(scene['layers']).map(liftTreatment) })),
  }),
}

function listOf(value: unknown): readonly Loose[] {
  return Array.isArray(value) ? (value as readonly Loose[]) : []
}

function liftTreatment(owner: Loose): Loose {
  return Array.isArray(owner['treatment']) ? { ...owner, treatment: liftSteps(owner['treatment']) } : owner
}

/** Steps of version 1 as steps of version 2. */
function liftSteps(steps: unknown): unknown[] {
  return listOf(steps).flatMap((step) => {
    const params = step['params'] as Loose | undefined
    if (step['kind'] !== 'tone' || typeof params !== 'object' || params['saturation'] === undefined) return [step]
    const { saturation, ...rest } = params
    const tone = { ...step, params: rest }
    return saturation === 1 ? [tone] : [tone, { id: `${String(step['id'])}-colour`.slice(-40), kind: 'colour', on: step['on'], params: { saturation, hue: 0 } }]
  })
}

/** A checked chain file of any version. Throws a ZodError, or a RangeError for a version from the future. */
export function readChain(stored: unknown): ChainFile {
  const loose = stored as Loose
  if (typeof loose === 'object' && loose !== null && typeof loose['version'] === 'number') {
    if (loose['version'] > CURRENT_VERSION) {
      throw new RangeError(`version must be at most ${CURRENT_VERSION}, got ${loose['version']}: this chain was saved by a newer Green Room`)
    }
    if (loose['version'] === 1) return chainSchema.parse({ ...loose, version: 2, steps: liftSteps(loose['steps']) })
  }
  return chainSchema.parse(stored)
}

export const CURRENT_VERSION = 2

/** A checked show of any stored version. Throws a ZodError, or a RangeError for a version from the future. */
export function readShow(stored: unknown): Show {
  let current = stored as Loose
  if (typeof current === 'object' && current !== null && typeof current['version'] === 'number') {
    if (current['version'] > CURRENT_VERSION) {
      throw new RangeError(`version must be at most ${CURRENT_VERSION}, got ${current['version']}: this show was saved by a newer Green Room`)
    }
    while ((current['version'] as number) < CURRENT_VERSION) {
      const lift = migrations[current['version'] as number]
      if (lift === undefined) throw new RangeError(`version ${String(current['version'])} of a show is not known`)
      current = lift(current)
    }
  }
  return showSchema.parse(current)
}
