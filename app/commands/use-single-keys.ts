import { useLocalStorage } from '@vueuse/core'

/** Whether single keys (M, 0, 1–9) act on every page; kept in this browser. Whoever speaks to the machine may want them off (WCAG 2.1.4). */
export const hasSingleKeys = useLocalStorage('green-room:single-keys', true)
