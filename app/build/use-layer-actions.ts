// What can be done with the selected layers: the commands for layers act on this.
import { isGroup } from '../../core/layers/group.ts'
import { contentIdOf, layerKindOf } from '../../core/layers/index.ts'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { placeAlike, putInAllScenes, siblingsOf } from '../../core/show/all-scenes.ts'
import { atOwnSize } from '../../core/layout/crop-drag.ts'
import { sizeOf } from '../../core/layout/arrange/arrange-scene.ts'
import { canBePage } from '../../core/layout/inside-page.ts'
import { fitToCanvas, ownScenesOf, placeLayer } from '../../core/show/edits.ts'
import { canGroup, groupLayers, ungroup } from '../../core/show/group-edits.ts'
import { reorderLayers, type OrderWay } from '../../core/show/layer-set-edits.ts'
import type { LayerTarget } from '../commands/layer-target.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useClipboard } from './use-clipboard.ts'
import { useInsidePage } from './use-inside-page.ts'
import { useRemoveLayer } from './use-remove-layer.ts'

export function useLayerActions() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const removeLayer = useRemoveLayer()
  const { copy, cut, paste, duplicate, hasCopied } = useClipboard()
  const { canStandIn, putInside } = useInsidePage()

  const names = computed(() => {
    const layers = showStore.selectedLayers
    return layers.length === 1 ? layers[0]!.name : t('layer.many', layers.length)
  })
  /** The layer directly behind the selected one. */
  const behind = computed(() => {
    const layers = showStore.list
    return layers[layers.findIndex(({ id }) => id === showStore.layerId) - 1] ?? null
  })

  function order(way: OrderWay): void {
    const { sceneId, selectedIds } = showStore
    if (sceneId !== null) showStore.edit(t('edits.moveLayer', { name: names.value }), (show) => reorderLayers(show, sceneId, selectedIds, way))
  }

  function group(ids: readonly string[]): void {
    const { sceneId } = showStore
    if (sceneId === null) return
    const groupId = makeId()
    const isMade = showStore.edit(t('edits.group', { name: names.value }), (show) => groupLayers(show, sceneId, ids, t('layer.groupName'), () => groupId))
    if (isMade) showStore.selectLayer(groupId)
  }

  function takeApart(): void {
    const { sceneId, layer } = showStore
    if (sceneId === null || !isGroup(layer)) return
    if (showStore.edit(t('edits.ungroup', { name: layer.name }), (show) => ungroup(show, sceneId, layer.id, makeId)))
      showStore.selectLayers(layer.layers.map(({ id }) => id))
  }

  function wholeCanvas(): void {
    const { sceneId, layer } = showStore
    if (sceneId === null || layer === null) return
    showStore.edit(t('edits.placement', { name: layer.name }), (show) => fitToCanvas(show, sceneId, layer.id, layer.placement.fit))
  }

  function ownSize(): void {
    const { sceneId, stageLayer: layer, show } = showStore
    if (sceneId === null || layer === null || show === null) return
    const size = sizeOf(show, layer, { infos: engine.infos, heads: new Map() })
    showStore.edit(t('edits.placement', { name: layer.name }), (current) => placeLayer(current, sceneId, layer.id, atOwnSize(layer, size)))
  }

  /** What lies in a group belongs to it: other scenes, and pages, are for what lies in the scene itself. */
  const isInGroup = computed(() => showStore.openGroups.length > 0)

  /** Layers of other scenes that show the same thing. */
  const siblings = computed(() => {
    const { show, sceneId, layer } = showStore
    return show === null || sceneId === null || layer === null || isInGroup.value ? [] : siblingsOf(show, sceneId, layer)
  })

  function everywhere(): void {
    const { sceneId, layer } = showStore
    if (sceneId === null || layer === null) return
    const before = siblings.value.length
    if (!showStore.edit(t('edits.inAllScenes', { name: layer.name }), (show) => putInAllScenes(show, sceneId, layer.id, makeId))) return
    toast(t('layer.isInScenes', { name: layer.name, count: siblings.value.length - before }, siblings.value.length - before))
  }

  function sameInAll(): void {
    const { layer } = showStore
    if (layer !== null) showStore.edit(t('edits.sameInAll', { name: layer.name }), (show) => placeAlike(show, layer, siblings.value))
  }

  /** Whether something of it can be shown larger or smaller than it is. */
  const hasOwnSize = computed(() => {
    const { layer, show } = showStore
    if (layer === null || show === null) return false
    return layerKindOf(layer).hasPicture(layer, show)
  })

  /** What commands act on. */
  const target = computed<LayerTarget | null>(() => {
    const { selectedLayers: layers, layer, show, scene, selectedIds } = showStore
    if (show === null || scene === null) return null
    const isAlone = layers.length === 1 && layer !== null && !isInGroup.value
    const withBehind = behind.value === null || layer === null ? [] : [behind.value.id, layer.id]
    return {
      count: layers.length,
      isLocked: scene.locked,
      isLayerLocked: layer?.locked === true,
      isGroup: isGroup(layer),
      hasCopied: hasCopied.value,
      canShare: layers.some((one) => contentIdOf(one) !== null),
      hasOwnSize: hasOwnSize.value,
      canStandIn: isAlone && canBePage(show, layer) && canStandIn.value,
      canBeInOtherScenes: isAlone && ownScenesOf(show).length > 1 && !isGroup(layer),
      inOtherScenes: siblings.value.length,
      behindName: behind.value?.name ?? null,
      isTooDeepWithBehind: !canGroup(scene, withBehind),
      isTooDeep: !canGroup(scene, selectedIds),
      copy,
      cut,
      paste,
      duplicate,
      order,
      fillCanvas: wholeCanvas,
      resetSize: ownSize,
      standInside: putInside,
      putInAllScenes: everywhere,
      placeAlike: sameInAll,
      groupWithBehind: () => group(withBehind),
      group: () => group(selectedIds),
      openGroup: () => isGroup(layer) && showStore.openGroup(layer),
      ungroup: takeApart,
      remove: () => removeLayer(showStore.selectedIds),
    }
  })

  return { target, order, ownSize, wholeCanvas, hasOwnSize }
}
