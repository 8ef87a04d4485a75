// The figures of a key in words: what it is called, whether it is good, up to where.
import { useI18n } from 'vue-i18n'
import { decimals } from '../base/decimals.ts'
import { parseHex } from '../../core/colour/hex.ts'
import { LEAST_PRESENTER, type KeyFigures } from '../../core/matte/figures.ts'
import type { Clipping } from '../../core/scopes/scopes.ts'

export interface FigureWords {
  readonly id: string
  readonly label: string
  /** "–" when there is nothing to measure. */
  readonly value: string
  /** Null when there is nothing to judge. */
  readonly isGood: boolean | null
  /** What is good, in figures: "up to 2". */
  readonly limit: string
  readonly hint: string
}

/** From here on it is seen (common practice, no source). */
const MOST = { fringe: 2, seeThrough: 0.001, veil: 0.005, clipped: 0.02 } as const

export function useFigureWords() {
  const { t } = useI18n()
  const percent = (share: number) => `${decimals(share * 100, share < 0.0995 ? 1 : 0)}\u202f%`

  /** "Green edge" or "Blue edge", by the cloth. */
  function edgeName(cloth: string | null): string {
    if (cloth === null) return t('scopes.fringe.other')
    const [red, green, blue] = parseHex(cloth)
    return t(`scopes.fringe.${green > Math.max(red, blue) ? 'green' : blue > Math.max(red, green) ? 'blue' : 'other'}`)
  }

  /** Words for a key; with nobody left there is nothing to be proud of. */
  function keyWords(key: KeyFigures | null, cloth: string | null): FigureWords[] {
    const isJudged = key !== null && key.presenter >= LEAST_PRESENTER
    const row = (name: 'fringe' | 'seeThrough' | 'veil', label: string, show: (value: number) => string): FigureWords => ({
      id: name,
      label,
      value: isJudged ? show(key[name]) : '–',
      isGood: isJudged ? key[name] <= MOST[name] : null,
      limit: t('scopes.upTo', { limit: show(MOST[name]).replace(/[.,]0/, '') }),
      hint: t(`scopes.hints.${name}`),
    })
    return [
      row('fringe', edgeName(cloth), (value) => decimals(value, 1)),
      row('seeThrough', t('scopes.seeThrough'), percent),
      row('veil', t('scopes.veil'), percent),
    ]
  }

  function clippedWords(clipping: Clipping | null): FigureWords {
    return {
      id: 'clipped',
      label: t('scopes.clipped'),
      value: clipping === null ? '–' : percent(clipping.black + clipping.white),
      isGood: clipping === null ? null : clipping.white <= MOST.clipped,
      limit: t('scopes.upTo', { limit: percent(MOST.clipped).replace(/[.,]0/, '') }),
      hint: t('scopes.hints.clipped'),
    }
  }

  return { keyWords, clippedWords }
}
