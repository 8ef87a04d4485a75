// A treatment: the steps that clean a picture, everywhere it is used or in one layer only.
import { defaultParams } from './step.ts'
import { stepOf, type StepCall, type StepKind, type StepParams } from './index.ts'
import type { MakeId } from '../random/make-id.ts'

/** One step of a treatment. */
export type Step = {
  [K in StepKind]: { readonly id: string; readonly kind: K; readonly on: boolean; readonly params: StepParams<K> }
}[StepKind]

/** A step with default values, on. */
export function newStep(kind: StepKind, makeId: MakeId): Step {
  return { id: makeId(), kind, on: true, params: defaultParams(stepOf(kind).params) } as Step
}

const callsCache = new WeakMap<readonly Step[], WeakMap<readonly Step[], readonly StepCall[]>>()
export const NO_STEPS: readonly Step[] = []
export const NO_CALLS: readonly StepCall[] = []

/** The steps that are on of a treatment and of what follows it; the same list for the same two. */
export function callsOf(everywhere: readonly Step[], here: readonly Step[]): readonly StepCall[] {
  let known = callsCache.get(everywhere)
  if (known === undefined) callsCache.set(everywhere, (known = new WeakMap()))
  let calls = known.get(here)
  if (calls === undefined) known.set(here, (calls = [...activeSteps(everywhere), ...activeSteps(here)]))
  return calls
}

/** The steps of a treatment that are on. */
export function activeSteps(treatment: readonly Step[]): StepCall[] {
  return treatment.filter((step) => step.on).map(({ kind, params }) => ({ kind, params }) as StepCall)
}
