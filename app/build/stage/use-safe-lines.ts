import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'

const isAsked = useLocalStorage('green-room:safe-lines', false)
const isMoving = ref(false)

/** Whether the stage shows what a meeting or a television may cut off: while something is moved, or when asked for, which this browser remembers. */
export function useSafeLines() {
  return {
    isAsked,
    isShown: computed(() => isAsked.value || isMoving.value),
    toggle: () => (isAsked.value = !isAsked.value),
    setMoving: (moves: boolean) => (isMoving.value = moves),
  }
}
