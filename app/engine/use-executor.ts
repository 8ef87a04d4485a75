// Who makes the pictures on this machine; kept in this browser.
import { useLocalStorage } from '@vueuse/core'
import type { ExecutorPin } from '../../engine/executors.ts'

const pins: readonly ExecutorPin[] = ['auto', 'cpu', 'gl']
const stored = useLocalStorage<string>('green-room:pictures-by', 'auto')

/** The presenter's choice; anything unknown counts as none. */
export function storedPin(): ExecutorPin {
  return pins.find((pin) => pin === stored.value) ?? 'auto'
}

export function storePin(pin: ExecutorPin): void {
  stored.value = pin
}
