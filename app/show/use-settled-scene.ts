// The scene on the stage as it was when the presenter last paused: for advice that costs more than an edit may.
import { watchDebounced } from '@vueuse/core'
import { computed, shallowRef } from 'vue'
import type { Scene, Show } from '../../core/show/show.ts'
import { useShowStore } from './show.store.ts'

const SETTLED_MS = 120
const LONGEST_WAIT_MS = 500

export interface SettledScene {
  readonly show: Show
  readonly scene: Scene
}

/** `settled` follows within half a second at most; another scene counts at once. `now` is the scene as it is. */
export function useSettledScene() {
  const showStore = useShowStore()
  const now = computed<SettledScene | null>(() => {
    const { show, scene } = showStore
    return show === null || scene === null ? null : { show, scene }
  })
  const last = shallowRef(now.value)
  watchDebounced(now, (value) => (last.value = value), { debounce: SETTLED_MS, maxWait: LONGEST_WAIT_MS })
  const settled = computed(() => (last.value?.scene.id === showStore.sceneId ? last.value : now.value))
  return { now, settled }
}
