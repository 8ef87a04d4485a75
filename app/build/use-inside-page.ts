// Standing inside a page: which presenter, and how much of the page's ink is in front.
import { inputIdOf } from '../../core/layers/index.ts'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { castOf } from '../../core/layout/arrange/cast.ts'
import { canBePage, inkModeOf, inkOf, isWallTakenForWhite, putInsidePage, setInkMode, type InkMode } from '../../core/layout/inside-page.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

export function useInsidePage() {
  const { t } = useI18n()
  const showStore = useShowStore()

  /** The camera that would stand in the page. */
  const presenterId = computed(() => {
    const { show, scene } = showStore
    return show === null || scene === null ? null : (castOf(show, scene).presenters[0] ?? null)
  })
  const canStandIn = computed(() => presenterId.value !== null)
  /** The ink of the selected page, or the selected ink itself. */
  const ink = computed(() => {
    const { scene, layer, show } = showStore
    if (scene === null || layer === null || show === null) return null
    if (layer.part === 'ink') return layer
    return canBePage(show, layer) ? (inkOf(scene, layer) ?? null) : null
  })
  const mode = computed(() => (ink.value === null ? null : inkModeOf(ink.value)))

  /** The camera whose wall is taken for white, so that whoever has another wall can be told; null for one that is cut out otherwise. */
  const whiteWallOf = computed(() => {
    const { show, scene } = showStore
    const presenter = scene?.layers.find(({ id }) => id === presenterId.value)
    if (show === null || presenter === undefined || !isWallTakenForWhite(show, presenter)) return null
    return inputIdOf(presenter)
  })

  /** Puts the presenter inside the selected page. */
  function putInside(): void {
    const { sceneId, layer } = showStore
    const id = presenterId.value
    if (sceneId === null || layer === null || id === null) return
    const name = t('layouts.ink', { name: layer.name.slice(0, 60) })
    showStore.edit(t('edits.inside', { name: layer.name }), (show) => putInsidePage(show, sceneId, layer.id, id, mode.value ?? 'all', name, makeId))
  }

  function setMode(next: InkMode): void {
    const { sceneId } = showStore
    const current = ink.value
    if (sceneId !== null && current !== null) showStore.edit(t('edits.ink'), (show) => setInkMode(show, sceneId, current.id, next, makeId))
  }

  return { canStandIn, putInside, ink, mode, setMode, whiteWallOf }
}
