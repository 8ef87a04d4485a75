// Shows to begin with: bare ones for a purpose, and prepared ones for an occasion, in the presenter's language and colours.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { drawnBackgrounds } from '../../core/backgrounds/drawn.ts'
import { firstScenes, firstShow, purposes, type FirstScene, type FirstWords, type Purpose, type ShowDevices } from '../../core/layout/arrange/first-show.ts'
import { occasions, preparedShow, type Occasion, type PreparedFor } from '../../core/prepared/prepared-shows.ts'
import { setPresenter } from '../../core/show/edits.ts'
import { setStyle } from '../../core/show/style.ts'
import type { Show } from '../../core/show/show.ts'
import { named, useGraphicWords } from '../graphics/use-graphic-words.ts'
import { makeId } from '../show/make-id.ts'

export type Beginning = Purpose | Occasion
export const beginnings = { bare: purposes, prepared: occasions } as const

export const isOccasion = (beginning: Beginning): beginning is Occasion => (occasions as readonly string[]).includes(beginning)

export function useNewShow() {
  const { t } = useI18n()
  const graphicWords = useGraphicWords()

  const sceneWords = (name: FirstScene): string => {
    if (name === 'shoulder') return t('layouts.names.shoulder')
    return name === 'first' ? t('build.sceneName', { n: 1 }) : t(`newShow.scenes.${name}`)
  }
  const words = computed<FirstWords>(() => ({
    camera: t('build.newCameraName'),
    wall: t('newShow.wall'),
    screen: t('screens.name'),
    table: t('newShow.table'),
    text: t('build.textName'),
    divider: t('layouts.divider'),
    ink: t('layouts.ink', { name: t('screens.name') }),
    yourName: t('newShow.yourName'),
    backSoon: t('newShow.backSoon'),
    thanks: t('newShow.thanks'),
    scenes: named(firstScenes, sceneWords),
  }))

  /** A show of a beginning; one that is prepared is called after its occasion. */
  function newShowFor(beginning: Beginning, devices: ShowDevices, { style, presenter }: Omit<PreparedFor, 'devices'>): Show {
    if (!isOccasion(beginning)) {
      return setPresenter(
        setStyle(firstShow(t('shows.newName'), beginning, { ...words.value, yourName: presenter.name || words.value.yourName }, makeId, devices), style),
        presenter,
      )
    }
    const all = { first: words.value, graphics: graphicWords.value, backgrounds: named(drawnBackgrounds, (name) => t(`backgrounds.drawn.${name}`)) }
    return preparedShow(t(`newShow.occasions.${beginning}`), beginning, all, { devices, style, presenter }, makeId)
  }

  return { words, newShowFor }
}
