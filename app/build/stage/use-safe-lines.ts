import { useLocalStorage } from '@vueuse/core'

const isShown = useLocalStorage('green-room:safe', true)

/** Whether the stage shows what a meeting or a television may cut off; kept in this browser. */
export function useSafeLines() {
  return { isShown, toggle: () => (isShown.value = !isShown.value) }
}
