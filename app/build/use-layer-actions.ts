// What can be done with the selected layers, for the inspector's menu and the one on the stage.
import { isGroup } from '../../core/layers/group.ts'
import { contentIdOf, layerKindOf } from '../../core/layers/index.ts'
import {
  ArrowDownToLine,
  ArrowUpToLine,
  BookOpenText,
  ChevronDown,
  ChevronUp,
  ClipboardPaste,
  Copy,
  Expand,
  Files,
  FolderOpen,
  Group,
  LayoutGrid,
  Link2,
  MoveUpRight,
  Pencil,
  ScanLine,
  Scissors,
  Trash2,
  Ungroup,
} from 'lucide-vue-next'
import { computed, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { placeAlike, putInAllScenes, siblingsOf } from '../../core/show/all-scenes.ts'
import { atOwnSize } from '../../core/layout/crop-drag.ts'
import { sizeOf } from '../../core/layout/arrange/arrange-scene.ts'
import { canBePage } from '../../core/layout/inside-page.ts'
import { fitToCanvas, placeLayer } from '../../core/show/edits.ts'
import { canGroup, groupLayers, ungroup } from '../../core/show/group-edits.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { reorderLayers, type OrderWay } from '../../core/show/layer-set-edits.ts'
import type { MenuAction } from '../base/ActionMenu.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useClipboard } from './use-clipboard.ts'
import { useInsidePage } from './use-inside-page.ts'
import { useRemoveLayer } from './use-remove-layer.ts'

/** `isRenaming` is set when a layer is to be given another name; without it that is not offered. */
export function useLayerActions(isRenaming?: Ref<boolean>) {
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

  const actions = computed<MenuAction[]>(() => {
    const { selectedLayers: layers, layer, show, scene } = showStore
    const past: MenuAction = {
      label: t('layer.paste'),
      icon: ClipboardPaste,
      disabled: !hasCopied.value || scene?.locked === true,
      ...(hasCopied.value ? {} : { why: t('commands.why.nothingCopied') }),
      run: () => paste('own'),
    }
    if (layer === null || show === null || scene === null) return [past]
    const isOne = layers.length === 1
    const isLocked = scene.locked
    const groupable = (ids: readonly string[]) =>
      canGroup(scene, ids) ? { disabled: isLocked } : { disabled: true, detail: t('layer.tooDeep', { count: LIMITS.depth }) }
    const sharesWords = layers.some((one) => contentIdOf(one) !== null)
    return [
      ...(isOne && isRenaming !== undefined ? [{ label: t('layer.name'), icon: Pencil, disabled: isLocked, run: () => (isRenaming.value = true) }] : []),
      { label: t('layer.copy'), icon: Copy, run: copy },
      { label: t('layer.cut'), icon: Scissors, disabled: isLocked, run: cut },
      past,
      ...(hasCopied.value ? [{ label: t('layer.pasteSame'), icon: Link2, disabled: isLocked, run: () => paste('same') }] : []),
      { label: t('layer.duplicate'), icon: Files, disabled: isLocked, run: () => duplicate('own') },
      ...(sharesWords ? [{ label: t('layer.sameAgain'), icon: Link2, disabled: isLocked, run: () => duplicate('same') }] : []),
      { label: t('layer.forward'), icon: ChevronUp, group: t('layer.order'), disabled: isLocked, run: () => order('forward') },
      { label: t('layer.backward'), icon: ChevronDown, disabled: isLocked, run: () => order('backward') },
      { label: t('layer.toFront'), icon: ArrowUpToLine, disabled: isLocked, run: () => order('front') },
      { label: t('layer.toBack'), icon: ArrowDownToLine, disabled: isLocked, run: () => order('back') },
      ...(isOne
        ? [
            { label: t('inspector.whole'), icon: Expand, group: t('inspector.place'), disabled: isLocked || layer.locked, run: wholeCanvas },
            ...(hasOwnSize.value ? [{ label: t('inspector.ownSize'), icon: ScanLine, disabled: isLocked || layer.locked, run: ownSize }] : []),
          ]
        : []),
      ...(isOne && !isInGroup.value && canBePage(show, layer) && canStandIn.value
        ? [{ label: t('inside.put'), icon: BookOpenText, detail: t('inside.hint'), disabled: isLocked, run: putInside }]
        : []),
      ...(isOne && !isInGroup.value && show.scenes.length > 1 && !isGroup(layer)
        ? [
            { label: t('layer.inAllScenes'), icon: LayoutGrid, run: everywhere },
            ...(siblings.value.length > 0 ? [{ label: t('layer.sameInAll'), icon: MoveUpRight, run: sameInAll }] : []),
          ]
        : []),
      ...(isOne && behind.value !== null
        ? [
            {
              label: t('layer.groupWith', { name: behind.value.name }),
              icon: Group,
              ...groupable([behind.value.id, layer.id]),
              run: () => group([behind.value!.id, layer.id]),
            },
          ]
        : []),
      ...(isOne ? [] : [{ label: t('layer.group'), icon: Group, ...groupable(showStore.selectedIds), run: () => group(showStore.selectedIds) }]),
      ...(isGroup(layer) && isOne ? [{ label: t('layer.openGroup'), icon: FolderOpen, run: () => showStore.openGroup(layer) }] : []),
      ...(isGroup(layer) ? [{ label: t('layer.ungroup'), icon: Ungroup, disabled: isLocked, run: takeApart }] : []),
      { label: isOne ? t('layer.remove') : t('layer.removeMany'), icon: Trash2, disabled: isLocked, run: () => removeLayer(showStore.selectedIds) },
    ]
  })

  return { actions, order, group, ownSize, wholeCanvas, hasOwnSize }
}
