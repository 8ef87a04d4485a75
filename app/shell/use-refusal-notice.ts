import { watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { TIME_TO_ACT_MS } from './announce.ts'
import { updateScene } from '../../core/show/edits.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { useShowStore } from '../show/show.store.ts'

/** Tells that an edit was not made, and what to do: a scene is locked, a show does not hold so much, or another tab edits it. */
export function useRefusalNotice(): void {
  const { t } = useI18n()
  const showStore = useShowStore()

  function unlock(sceneId: string, name: string): void {
    showStore.edit(t('edits.lockScene', { name }), (show) => updateScene(show, sceneId, (scene) => ({ ...scene, locked: false })))
  }

  watch(
    () => showStore.lockRefusal,
    (refused) => {
      if (refused === null) return
      const { sceneId, name } = refused
      toast(t('build.sceneLocked', { name }), {
        id: 'scene-locked',
        duration: TIME_TO_ACT_MS,
        action: { label: t('build.unlockScene'), onClick: () => unlock(sceneId, name) },
      })
    },
  )
  watch(
    () => showStore.limitRefusal,
    (refused) => {
      if (refused !== null) toast.error(t(`limits.${refused.thing}`, { count: LIMITS[refused.thing] }), { id: 'limit', duration: 8000 })
    },
  )
  watch(
    () => showStore.watchRefusals,
    () => toast.error(t('tabs.notHere', { act: t('tabs.takeOver') }), { id: 'watching', duration: 6000 }),
  )
}
