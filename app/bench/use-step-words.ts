import { useI18n } from 'vue-i18n'
import { decimals } from '../base/decimals.ts'
import type { Step } from '../../core/show/show.ts'
import { isOwnLook } from '../../core/lut/own-looks.ts'
import { stepOf, type StepKind } from '../../core/steps/index.ts'
import type { NumberParam, ParamSpec, ParamValue } from '../../core/steps/step.ts'

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

  function figure(spec: NumberParam, value: ParamValue): string {
    const { factor } = shown(spec)
    return decimals(Number(value) * factor, 2, 0)
  }

  /** "left 13 %": the name, the number and its unit. */
  function named(kind: StepKind, name: string, spec: NumberParam, value: ParamValue): string {
    const { unit } = shown(spec)
    return t('bench.named', { label: `steps.${kind}.params.${name}`, value: `${figure(spec, value)}${unit === '' ? '' : `\u202f${unit}`}` })
  }

  return {
    shown,
    nameOf: (kind: StepKind) => t(`steps.${kind}.name`),
    purposeOf: (kind: StepKind) => t(`steps.${kind}.purpose`),
    paramOf: (kind: StepKind, param: string) => t(`steps.${kind}.params.${param}`),
    /** A step in one short line: its look, its effect, or the values that differ from the defaults. */
    summaryOf: (step: Step) => {
      if (step.kind === 'look')
        return [
          isOwnLook(step.params.look) ? t(`looks.${step.params.look}`) : t('look.own'),
          figure(stepOf('look').params.amount, step.params.amount) + ' %',
        ].join(', ')
      if (step.kind === 'room') return t(`steps.room.options.effect.${step.params.effect}`)
      const specs = stepOf(step.kind).params as Readonly<Record<string, ParamSpec>>
      const params = step.params as Readonly<Record<string, ParamValue>>
      const numbers = Object.entries(specs).filter((entry): entry is [string, NumberParam] => entry[1].type === 'number')
      const changed = numbers.filter(([name, spec]) => params[name] !== spec.default)
      if (changed.length === 0) return t('bench.usual')
      return changed
        .slice(0, 4)
        .map(([name, spec]) => named(step.kind, name, spec, params[name]!))
        .join(', ')
    },
  }
}
