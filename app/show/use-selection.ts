// Which scene is on the stage, and what is selected in it.
import { computed, ref, shallowRef, type Ref } from 'vue'
import { findLayer } from '../../core/show/layer-tree.ts'
import type { Layer, Scene, Show } from '../../core/show/show.ts'

export function useSelection(show: Readonly<Ref<Show | null>>) {
  const sceneId = ref<string | null>(null)
  /** The layer that was selected last, and those that are selected with it. */
  const layerId = ref<string | null>(null)
  const alsoIds = shallowRef<readonly string[]>([])

  const scene = computed<Scene | null>(() => show.value?.scenes.find((candidate) => candidate.id === sceneId.value) ?? null)
  const layer = computed<Layer | null>(() => (scene.value === null ? undefined : findLayer(scene.value, layerId.value ?? '')) ?? null)
  /** All that are selected, from back to front: several lie in one list. */
  const selectedLayers = computed<readonly Layer[]>(() => {
    const list = scene.value?.layers.filter(({ id }) => id === layerId.value || alsoIds.value.includes(id)) ?? []
    return list.length > 1 || layer.value === null ? list : [layer.value]
  })
  const selectedIds = computed(() => selectedLayers.value.map(({ id }) => id))

  function selectScene(id: string): void {
    if (sceneId.value === id) return
    sceneId.value = id
    selectLayer(null)
  }

  function selectLayer(id: string | null): void {
    selectLayers(id === null ? [] : [id])
  }

  /** Selects these and no others; the last of them is the one that was selected last. */
  function selectLayers(ids: readonly string[]): void {
    layerId.value = ids.at(-1) ?? null
    alsoIds.value = ids.slice(0, -1)
  }

  /** Selects one more, or no longer. */
  function toggleLayer(id: string): void {
    const ids = selectedIds.value
    selectLayers(ids.includes(id) ? ids.filter((other) => other !== id) : [...ids, id])
  }

  return { sceneId, layerId, scene, layer, selectedLayers, selectedIds, selectScene, selectLayer, selectLayers, toggleLayer }
}
