// Which scene is on the stage, and what is selected in it.
import { isGroup } from '../../core/layers/group.ts'
import { computed, ref, shallowRef, type Ref } from 'vue'
import { groupsRound, toSceneCanvas } from '../../core/show/group-space.ts'
import { findLayer } from '../../core/layers/tree.ts'
import type { GroupLayer, Layer, Scene, Show } from '../../core/show/show.ts'

export function useSelection(show: Readonly<Ref<Show | null>>) {
  const sceneId = ref<string | null>(null)
  /** The layer that was selected last, and those that are selected with it. */
  const layerId = ref<string | null>(null)
  const alsoIds = shallowRef<readonly string[]>([])

  /** The group whose layers are worked on; null for those of the scene itself. */
  const openGroupId = ref<string | null>(null)

  const scene = computed<Scene | null>(() => show.value?.scenes.find((candidate) => candidate.id === sceneId.value) ?? null)
  /** The groups that are open one in the other, the outermost first; none once they have gone. */
  const openGroups = computed<readonly GroupLayer[]>(() => {
    const found = scene.value === null || openGroupId.value === null ? undefined : findLayer(scene.value, openGroupId.value)
    return isGroup(found) ? [...groupsRound(scene.value!, found.id), found] : []
  })
  /** The layers that are worked on, from back to front: of the open group, else of the scene. */
  const list = computed<readonly Layer[]>(() => openGroups.value.at(-1)?.layers ?? scene.value?.layers ?? [])
  /** The one that was selected last; one that lies elsewhere by now is no longer selected. */
  const layer = computed<Layer | null>(() => list.value.find(({ id }) => id === layerId.value) ?? null)
  /** All that are selected, from back to front: they lie in one list. */
  const selectedLayers = computed<readonly Layer[]>(() => list.value.filter(({ id }) => id === layerId.value || alsoIds.value.includes(id)))
  /** The layers that are worked on as they lie on the canvas, whatever group they are in. */
  const stageLayers = computed<readonly Layer[]>(() => {
    const canvas = show.value?.canvas
    const groups = openGroups.value
    if (canvas === undefined || groups.length === 0) return list.value
    return list.value.map((one) => ({ ...one, placement: toSceneCanvas(one.placement, groups, canvas) }))
  })
  const stageLayer = computed(() => stageLayers.value.find(({ id }) => id === layerId.value) ?? null)
  const stageSelected = computed(() => stageLayers.value.filter(({ id }) => selectedIds.value.includes(id)))
  const selectedIds = computed(() => selectedLayers.value.map(({ id }) => id))

  function selectScene(id: string): void {
    if (sceneId.value === id) return
    sceneId.value = id
    selectLayer(null)
  }

  function selectLayer(id: string | null): void {
    selectLayers(id === null ? [] : [id])
  }

  /** Selects these of one list and no others; the last of them is the one that was selected last. The group that they lie in is open then, and no other. */
  function selectLayers(ids: readonly string[]): void {
    const last = ids.at(-1) ?? null
    openGroupId.value = last === null || scene.value === null ? null : (groupsRound(scene.value, last).at(-1)?.id ?? null)
    layerId.value = last
    alsoIds.value = ids.slice(0, -1)
  }

  /** Opens a group, so that what is in it can be worked on; its frontmost layer is selected, or the one that is named, or none. */
  function openGroup(group: GroupLayer, id = group.layers.at(-1)?.id ?? null): void {
    selectLayer(id)
    openGroupId.value = group.id
  }

  /** Leaves the open group and selects it; false where none is open. */
  function leaveGroup(): boolean {
    const group = openGroups.value.at(-1)
    if (group === undefined) return false
    selectLayer(group.id)
    return true
  }

  /** Selects one more, or no longer. */
  function toggleLayer(id: string): void {
    const ids = selectedIds.value
    selectLayers(ids.includes(id) ? ids.filter((other) => other !== id) : [...ids, id])
  }

  return {
    sceneId,
    layerId,
    scene,
    layer,
    openGroups,
    list,
    stageLayers,
    stageLayer,
    stageSelected,
    selectedLayers,
    selectedIds,
    selectScene,
    selectLayer,
    selectLayers,
    toggleLayer,
    openGroup,
    leaveGroup,
  }
}
