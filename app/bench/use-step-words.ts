import { useI18n } from 'vue-i18n'
import type { Step } from '../../core/show/show.ts'
import { stepOf, type StepKind } from '../../core/steps/index.ts'
import type { NumberParam, ParamSpec } from '../../core/steps/step.ts'

/** How a parameter is shown: shares as percent, others as they are. */
export interface ShownNumber {
  readonly factor: number
  readonly unit: string
}

/** Names and figures of steps in the presenter's words. */
export function useStepWords() {
  const { t } = useI18n()

  function shown(spec: NumberParam): ShownNumber {
    return { factor: spec.unit === 'share' ? 100 : 1, unit: t(`units.${spec.unit}`) }
  }

  function figure(spec: ParamSpec, value: number | string): string {
    if (spec.type === 'colour') return String(value)
    const { factor } = shown(spec)
    return String(Number((Number(value) * factor).toFixed(2)))
  }

  return {
    shown,
    nameOf: (kind: StepKind) => t(`steps.${kind}.name`),
    purposeOf: (kind: StepKind) => t(`steps.${kind}.purpose`),
    paramOf: (kind: StepKind, param: string) => t(`steps.${kind}.params.${param}`),
    /** The values of a step in one short line. */
    summaryOf: (step: Step) => {
      const specs = stepOf(step.kind).params as Readonly<Record<string, ParamSpec>>
      const params = step.params as Readonly<Record<string, number | string>>
      return Object.entries(specs)
        .filter(([, spec]) => spec.type === 'number')
        .map(([name, spec]) => figure(spec, params[name]!))
        .join(' · ')
    },
  }
}
