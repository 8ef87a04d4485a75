// What the audience gets while the feed runs. It changes only when the presenter takes another scene: opening another show, or
// losing the scene from the open one, leaves the old scene on air.
import { computed, ref, shallowRef, watch } from 'vue'
import type { Focus } from '../../core/layout/focus.ts'
import type { Show } from '../../core/show/show.ts'
import { api, ApiError } from '../show/api.ts'
import { useShowStore } from '../show/show.store.ts'
import { forgetOnAir, recallOnAir, rememberOnAir, type OnAir } from './on-air-memory.ts'

export interface Air extends OnAir {
  /** The newest state of the show that still had the scene. */
  readonly show: Show
}

const RETRY_MS = 1500

export function useProgramme() {
  const showStore = useShowStore()
  const air = shallowRef<Air | null>(null)
  const before = recallOnAir()
  /** Whether this page is about to resume, after a reload, what was on air. */
  const isResuming = ref(before !== null)
  const isHere = computed(() => air.value !== null && holds(air.value, showStore.showId, showStore.show))
  /** The show that is on air instead of the open one. */
  const held = computed(() => (air.value === null || isHere.value ? null : air.value.show))
  /** The scene of the open show that is on air; null when none of them is. */
  const onAirId = computed(() => (isHere.value ? air.value!.sceneId : null))
  const sceneName = computed(() => air.value?.show.scenes.find((scene) => scene.id === air.value?.sceneId)?.name ?? '')
  const pictured = computed<Show | null>(() => showStore.show ?? air.value?.show ?? null)

  // Edits of the scene on air are seen at once.
  watch(
    () => showStore.show,
    (show) => {
      if (show !== null && air.value !== null && holds(air.value, showStore.showId, show)) air.value = { ...air.value, show }
    },
    { flush: 'sync' },
  )

  /** What of the scene on air is brought near for a moment. */
  const focus = shallowRef<Focus | null>(null)
  watch(
    () => [air.value?.showId, air.value?.sceneId],
    () => (focus.value = null),
    { flush: 'sync' },
  )

  /** Whether the audience sees the holding card because the presenter wants it. */
  const isCardWanted = ref(false)

  /** Brings a scene of the open show on air, in place of the card too. */
  function take(sceneId: string): void {
    isCardWanted.value = false
    const { show, showId } = showStore
    if (show !== null && showId !== null) air.value = { showId, sceneId, show, sinceMs: air.value?.sinceMs ?? Date.now() }
  }

  function clear(): void {
    isCardWanted.value = false
    air.value = null
    isResuming.value = false
  }

  watch(air, (now, then) => {
    if (now === null) forgetOnAir()
    else if (now.showId !== then?.showId || now.sceneId !== then.sceneId) rememberOnAir({ showId: now.showId, sceneId: now.sceneId, sinceMs: now.sinceMs })
  })

  /** Puts back on air what was there before the reload; false if that scene no longer exists. */
  async function resume(): Promise<boolean> {
    while (before !== null && isResuming.value) {
      try {
        const { show } = await api.getShow(before.showId)
        // The presenter may have started or stopped meanwhile.
        if (!isResuming.value || air.value !== null || !show.scenes.some((scene) => scene.id === before.sceneId)) break
        const isOpen = showStore.showId === before.showId && showStore.show !== null
        air.value = { ...before, show: isOpen ? showStore.show! : show }
        isResuming.value = false
        return true
      } catch (error) {
        if (error instanceof ApiError && error.status < 500) break
        await new Promise((resolve) => window.setTimeout(resolve, RETRY_MS))
      }
    }
    isResuming.value = false
    return false
  }

  return { air, focus, isCardWanted, isHere, held, onAirId, sceneName, pictured, take, clear, resume }
}

function holds(air: Air, showId: string | null, show: Show | null): boolean {
  return air.showId === showId && show !== null && show.scenes.some((scene) => scene.id === air.sceneId)
}
