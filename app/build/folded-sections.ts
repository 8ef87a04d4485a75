// Which sections of the inspector are folded, remembered in this browser.
import { useLocalStorage } from '@vueuse/core'

const folded = useLocalStorage<readonly string[]>('green-room:folded', [])
/** What is stored may be of another version, or spoiled: then nothing is folded. */
const names = (): readonly string[] => (Array.isArray(folded.value) ? folded.value : [])

export function isFolded(name: string): boolean {
  return names().includes(name)
}

export function toggleSection(name: string): void {
  folded.value = isFolded(name) ? names().filter((other) => other !== name) : [...names(), name]
}

/** Opens a section, for what is about to be shown in it. */
export function unfoldSection(name: string): void {
  if (isFolded(name)) toggleSection(name)
}
