// What of the scene on air is brought near: a page that fills the picture, a spot that is looked at closer. It goes back with one press.
import { computed, reactive, ref, watch } from 'vue'
import { canBeFocused, CLOSER, spotAt, type Focus } from '../../core/layout/focus.ts'
import { useShowStore } from '../show/show.store.ts'
import type { useProgramme } from './use-programme.ts'

export function useFocus({ focus, air, isHere }: ReturnType<typeof useProgramme>) {
  const showStore = useShowStore()
  /** Whether the next press on the stage chooses the spot. */
  const isAiming = ref(false)
  const scene = computed(() => (isHere.value ? (showStore.show?.scenes.find(({ id }) => id === air.value?.sceneId) ?? null) : null))

  // What was aimed at is gone with its scene.
  watch(
    () => air.value?.sceneId,
    () => (isAiming.value = false),
  )
  const isClose = computed(() => focus.value?.closer != null)

  function set(next: Focus | null): void {
    focus.value = next === null || (!next.fills && next.closer === null) ? null : next
  }

  const of = (layerId: string): Focus => (focus.value?.layerId === layerId ? focus.value : { layerId, fills: false, closer: null })

  /** Has a layer fill the picture, or go back to its place. */
  function toggleFill(layerId: string): void {
    if (!canFocus(layerId)) return
    set({ ...of(layerId), fills: !of(layerId).fills })
  }

  /** Looks closer at a spot, 0..1 across what is seen of a layer now. */
  function lookAt(layerId: string, u: number, v: number): void {
    if (!canFocus(layerId)) return
    const before = of(layerId)
    set({ ...before, closer: { ...spotAt(before.closer, u, v), scale: before.closer?.scale ?? CLOSER.usual } })
    isAiming.value = false
  }

  /** Nearer, or less so below 1. */
  function scaleBy(times: number): void {
    const now = focus.value
    if (now === null || now.closer === null) return
    const scale = Math.min(CLOSER.max, now.closer.scale * times)
    set({ ...now, closer: scale < CLOSER.min ? null : { ...now.closer, scale } })
  }

  /** Asks for a spot to look closer at; where one is, or is being chosen, it goes back. */
  function toggleCloser(): void {
    if (isAiming.value) isAiming.value = false
    else if (isClose.value) set({ ...focus.value!, closer: null })
    else isAiming.value = true
  }

  function canFocus(layerId: string): boolean {
    return showStore.show !== null && scene.value !== null && canBeFocused(showStore.show, scene.value, layerId)
  }

  return reactive({
    now: focus,
    isAiming,
    isClose,
    toggleCloser,
    /** Whether a layer of the scene on air can be brought near. */
    canFocus,
    toggleFill,
    lookAt,
    scaleBy,
    back: () => {
      isAiming.value = false
      set(null)
    },
  })
}
