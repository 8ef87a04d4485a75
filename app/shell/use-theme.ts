import { useLocalStorage } from '@vueuse/core'
import { watchEffect } from 'vue'

export type Theme = 'paper' | 'blackout'

const theme = useLocalStorage<Theme>('green-room:theme', 'paper')
/** The paper of each theme, for the frame of the window where the studio is installed. */
const FRAMES: Readonly<Record<Theme, string>> = { paper: '#f5f1e8', blackout: '#191a19' }
watchEffect(() => {
  document.documentElement.dataset['theme'] = theme.value
  document.querySelector('meta[name=theme-color]')?.setAttribute('content', FRAMES[theme.value] ?? FRAMES.paper)
})

/** The theme, kept in this browser. */
export function useTheme() {
  return { theme, toggle: () => (theme.value = theme.value === 'paper' ? 'blackout' : 'paper') }
}
