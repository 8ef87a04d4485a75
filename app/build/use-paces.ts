// The paces of movement by name; one that has none is the layer's own.
import { useI18n } from 'vue-i18n'
import { namedEasings, type Easing } from '../../core/motion/easing.ts'

export type Pace = keyof typeof namedEasings | 'own'

const paceNames = Object.keys(namedEasings) as (keyof typeof namedEasings)[]

/** The name of a pace; "own" where it has none. */
export function paceOf(easing: Easing): Pace {
  return paceNames.find((name) => JSON.stringify(namedEasings[name]) === JSON.stringify(easing)) ?? 'own'
}

export function usePaces() {
  const { t } = useI18n()
  /** What can be chosen where the pace is `now`. */
  const optionsFor = (now: Easing) => [
    ...paceNames.map((value) => ({ value: value as Pace, label: t(`inspector.paces.${value}`) })),
    ...(paceOf(now) === 'own' ? [{ value: 'own' as Pace, label: t('inspector.ownPace') }] : []),
  ]
  /** The pace of a name; the one before where it has none. */
  const easingOf = (pace: Pace, now: Easing): Easing => (pace === 'own' ? now : namedEasings[pace])
  return { optionsFor, easingOf }
}
