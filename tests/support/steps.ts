import type { Show, Step } from '../../core/show/show.ts'
import { stepOf, type StepKind } from '../../core/steps/index.ts'
import { defaultParams, type ParamSpecs, type ParamValue } from '../../core/steps/step.ts'

/** A step with its usual values but for some. */
export function stepWith(kind: StepKind, params: Readonly<Record<string, ParamValue>> = {}, on = true): Step {
  return { id: `${kind}-test`, kind, on, params: { ...defaultParams(stepOf(kind).params as ParamSpecs), ...params } } as unknown as Step
}

/** The show with a step more at the end of its first input's treatment. */
export function addStep(show: Show, kind: StepKind, params: Readonly<Record<string, ParamValue>> = {}, on = true): Show {
  const [first, ...rest] = show.inputs
  return { ...show, inputs: [{ ...first!, treatment: [...first!.treatment, stepWith(kind, params, on)] }, ...rest] }
}
