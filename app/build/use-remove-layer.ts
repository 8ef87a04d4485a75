import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { removeLayer } from '../../core/show/edits.ts'
import { useShowStore } from '../show/show.store.ts'

/** Takes a layer out of its scene, and offers to bring it back. */
export function useRemoveLayer() {
  const { t } = useI18n()
  const showStore = useShowStore()
  return (layerId: string): void => {
    const { sceneId, scene } = showStore
    const name = scene?.layers.find((layer) => layer.id === layerId)?.name
    if (sceneId === null || name === undefined || !showStore.isEditor) return
    showStore.edit(t('edits.removeLayer', { name }), (show) => removeLayer(show, sceneId, layerId))
    if (showStore.layerId === layerId) showStore.selectLayer(null)
    const after = showStore.undoLabel
    toast(t('layer.removed', { name }), {
      action: { label: t('header.undoShort'), onClick: () => showStore.undoLabel === after && showStore.undo() },
    })
  }
}
