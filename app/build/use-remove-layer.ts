import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { removeLayers } from '../../core/show/layer-set-edits.ts'
import { useShowStore } from '../show/show.store.ts'

/** Takes layers out of their scene, and offers to bring them back. */
export function useRemoveLayer() {
  const { t } = useI18n()
  const showStore = useShowStore()
  return (layerIds: readonly string[]): void => {
    const { sceneId, scene } = showStore
    const gone = scene?.layers.filter((layer) => layerIds.includes(layer.id)) ?? []
    if (sceneId === null || gone.length === 0 || !showStore.isEditor) return
    const name = gone.length === 1 ? gone[0]!.name : t('layer.many', gone.length)
    showStore.edit(t('edits.removeLayer', { name }), (show) => removeLayers(show, sceneId, layerIds))
    // A lock may have stopped it.
    if (showStore.scene === scene) return
    showStore.selectLayers(showStore.selectedIds.filter((id) => !layerIds.includes(id)))
    const after = showStore.undoLabel
    toast(gone.length === 1 ? t('layer.removed', { name }) : t('layer.manyRemoved', gone.length), {
      action: { label: t('header.undoShort'), onClick: () => showStore.undoLabel === after && showStore.undo() },
    })
  }
}
