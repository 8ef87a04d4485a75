import { useLocalStorage } from '@vueuse/core'
import { watchEffect } from 'vue'

export type Theme = 'paper' | 'blackout'

const theme = useLocalStorage<Theme>('green-room:theme', 'paper')
watchEffect(() => (document.documentElement.dataset['theme'] = theme.value))

/** The theme, kept in this browser. */
export function useTheme() {
  return { theme, toggle: () => (theme.value = theme.value === 'paper' ? 'blackout' : 'paper') }
}
