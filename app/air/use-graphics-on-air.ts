// Graphics that are laid over whatever is on air. They stay when another scene is taken, and go when they are hidden or deleted.
import { useSessionStorage } from '@vueuse/core'
import { computed, watch } from 'vue'
import type { SceneRef } from '../../core/programme/programme.ts'
import { graphicsOf } from '../../core/show/edits.ts'
import { useShowStore } from '../show/show.store.ts'

export function useGraphicsOnAir() {
  const showStore = useShowStore()
  // A reload of the page resumes them, as it does the scene on air.
  const stored = useSessionStorage<readonly SceneRef[]>('green-room:graphics', [], { shallow: true })
  const refs = computed<ReadonlyMap<string, SceneRef>>(() => new Map(refsIn(stored.value).map((ref) => [keyOf(ref), ref])))
  const refOf = (sceneId: string): SceneRef | null => (showStore.showId === null ? null : { showId: showStore.showId, sceneId })

  /** The graphics of the open show that are shown. */
  const shownIds = computed(() => new Set([...refs.value.values()].filter(({ showId }) => showId === showStore.showId).map(({ sceneId }) => sceneId)))

  function setShown(sceneId: string, isShown: boolean): void {
    const ref = refOf(sceneId)
    if (ref === null) return
    const next = new Map(refs.value)
    if (isShown) next.set(keyOf(ref), ref)
    else next.delete(keyOf(ref))
    stored.value = [...next.values()]
  }

  const toggle = (sceneId: string) => setShown(sceneId, !shownIds.value.has(sceneId))

  function hideAll(): void {
    stored.value = []
  }

  // One that is deleted is hidden; undo brings it back to the list, not to the audience.
  watch(
    () => showStore.show,
    (show) => {
      if (show === null) return
      const known = new Set(graphicsOf(show).map(({ id }) => id))
      const left = [...refs.value].filter(([, { showId, sceneId }]) => showId !== showStore.showId || known.has(sceneId))
      if (left.length < refs.value.size) stored.value = left.map(([, ref]) => ref)
    },
  )

  return { refs, shownIds, isAnyShown: computed(() => refs.value.size > 0), setShown, toggle, hideAll }
}

const keyOf = ({ showId, sceneId }: SceneRef): string => `${showId} ${sceneId}`

/** What is stored may be of another version, or spoiled: what is no reference is left out. */
function refsIn(stored: unknown): readonly SceneRef[] {
  const isRef = (one: unknown): one is SceneRef =>
    typeof one === 'object' && one !== null && typeof (one as SceneRef).showId === 'string' && typeof (one as SceneRef).sceneId === 'string'
  return Array.isArray(stored) ? stored.filter(isRef) : []
}
