import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { TIME_TO_ACT_MS } from '../shell/announce.ts'
import { findLayer } from '../../core/layers/tree.ts'
import { removeLayers } from '../../core/show/layer-set-edits.ts'
import { useShowStore } from '../show/show.store.ts'

/** Takes layers out of their scene, and offers to bring them back. */
export function useRemoveLayer() {
  const { t } = useI18n()
  const showStore = useShowStore()
  return (layerIds: readonly string[]): void => {
    const { sceneId, scene } = showStore
    const group = showStore.openGroups.at(-1)
    const gone = showStore.list.filter((layer) => layerIds.includes(layer.id))
    if (sceneId === null || gone.length === 0) return
    const name = gone.length === 1 ? gone[0]!.name : t('layer.many', gone.length)
    const isMade = showStore.edit(t('edits.removeLayer', { name }), (show) => removeLayers(show, sceneId, layerIds))
    // It may wait until this tab edits.
    if (!isMade || showStore.scene === scene) return
    const left = showStore.selectedIds.filter((id) => !layerIds.includes(id))
    const isOpen = group !== undefined && showStore.scene !== null && findLayer(showStore.scene, group.id) !== undefined
    if (left.length === 0 && isOpen) showStore.openGroup(group, null)
    else showStore.selectLayers(left)
    const after = showStore.undoLabel
    toast(gone.length === 1 ? t('layer.removed', { name }) : t('layer.manyRemoved', gone.length), {
      duration: TIME_TO_ACT_MS,
      action: { label: t('header.undoShort'), onClick: () => showStore.undoLabel === after && showStore.undo() },
    })
  }
}
