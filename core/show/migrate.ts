// Stored shows carry a version. Each entry lifts a stored by one version; they run in turn.
import { newMicrophone } from './create.ts'
import { chainSchema, showSchema, type ChainFile } from './schema.ts'
import type { Show } from './show.ts'

type Loose = Record<string, unknown>

/** A stored show or chain of a version that is not known here. */
export class VersionError extends RangeError {}

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
    inputs: liftEach(stored['inputs'], liftTreatment),
    scenes: liftEach(stored['scenes'], (scene) => ({ ...scene, layers: liftEach(scene['layers'], liftTreatment) })),
  }),
  // Version 2 had no sound.
  2: (stored) => ({ ...stored, version: 3, microphone: newMicrophone({ type: 'none' }) }),
  // Version 3 knew rounded boxes only, put over each other.
  3: (stored) => ({
    ...stored,
    version: 4,
    scenes: liftEach(stored['scenes'], (scene) => ({ ...scene, layers: liftEach(scene['layers'], liftLayer) })),
  }),
}

/** Whether a value has fields; what has none is left as it is, for the schema to name. */
function isLoose(value: unknown): value is Loose {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

/** Applies `lift` to the entries of a list that have fields; anything that is no list stays as it is. */
function liftEach(value: unknown, lift: (entry: Loose) => unknown): unknown {
  return Array.isArray(value) ? value.map((entry: unknown) => (isLoose(entry) ? lift(entry) : entry)) : value
}

function liftLayer(layer: Loose): Loose {
  const { frame } = layer
  return { ...layer, blend: 'normal', frame: isLoose(frame) ? { form: 'box', border: null, shadow: null, ...frame } : frame }
}

function liftTreatment(owner: Loose): Loose {
  return Array.isArray(owner['treatment']) ? { ...owner, treatment: liftSteps(owner['treatment']) } : owner
}

/** Steps of version 1 as steps of version 2. */
function liftSteps(steps: unknown): unknown {
  return Array.isArray(steps) ? steps.flatMap((step: unknown) => (isLoose(step) ? liftStep(step) : [step])) : steps
}

function liftStep(step: Loose): unknown[] {
  const { params } = step
  if (step['kind'] !== 'tone' || !isLoose(params) || params['saturation'] === undefined) return [step]
  const { saturation, ...rest } = params
  const tone = { ...step, params: rest }
  return saturation === 1 ? [tone] : [tone, { id: `${String(step['id'])}-colour`.slice(-40), kind: 'colour', on: step['on'], params: { saturation, hue: 0 } }]
}

/** A checked chain file of any version. Throws a ZodError, or a VersionError for a version from the future. */
export function readChain(stored: unknown): ChainFile {
  const loose = stored as Loose
  if (typeof loose === 'object' && loose !== null && typeof loose['version'] === 'number') {
    if (loose['version'] > CHAIN_VERSION) {
      throw new VersionError(`version must be at most ${CHAIN_VERSION}, got ${loose['version']}: this chain was saved by a newer Green Room`)
    }
    if (loose['version'] === 1) return chainSchema.parse({ ...loose, version: 2, steps: liftSteps(loose['steps']) })
  }
  return chainSchema.parse(stored)
}

const CURRENT_VERSION = 4
const CHAIN_VERSION = 2

/** A checked show of any stored version. Throws a ZodError, or a VersionError for a version from the future. */
export function readShow(stored: unknown): Show {
  let current = stored as Loose
  if (typeof current === 'object' && current !== null && typeof current['version'] === 'number') {
    if (current['version'] > CURRENT_VERSION) {
      throw new VersionError(`version must be at most ${CURRENT_VERSION}, got ${current['version']}: this show was saved by a newer Green Room`)
    }
    while ((current['version'] as number) < CURRENT_VERSION) {
      const lift = migrations[current['version'] as number]
      if (lift === undefined) throw new VersionError(`version ${String(current['version'])} of a show is not known`)
      current = lift(current)
    }
  }
  return showSchema.parse(current)
}
