import { balance } from './balance/index.ts'
import { chromaKey } from './chroma-key/index.ts'
import { crop } from './crop/index.ts'
import { tone } from './tone/index.ts'
import type { ParamsOf } from './step.ts'

/** Every step, in the order a treatment is taught. */
export const steps = [crop, balance, tone, chromaKey] as const

export type AnyStep = (typeof steps)[number]
export type StepKind = AnyStep['kind']
/** Parameter values of one kind of step. */
export type StepParams<K extends StepKind> = ParamsOf<Extract<AnyStep, { kind: K }>['params']>

/** What to do with a picture: a kind of step and its values. */
export type StepCall = { [K in StepKind]: { readonly kind: K; readonly params: StepParams<K> } }[StepKind]

/** The definition of a kind. */
export function stepOf<K extends StepKind>(kind: K): Extract<AnyStep, { kind: K }> {
  const found = steps.find((step) => step.kind === kind)
  if (found === undefined) throw new RangeError(`no step is called "${kind}"`)
  return found as Extract<AnyStep, { kind: K }>
}
