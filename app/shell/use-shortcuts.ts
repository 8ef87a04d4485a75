import { onScopeDispose } from 'vue'
import { tinykeys } from 'tinykeys'
import { useShowStore } from '../show/show.store.ts'

/** Undo and redo from anywhere but a field in which something is being typed, whose own undo comes first. */
export function useShortcuts(): void {
  const showStore = useShowStore()
  const unlessTyping = (run: () => void) => (event: KeyboardEvent) => {
    if (isTextField(event.target)) return
    event.preventDefault()
    run()
  }
  const stop = tinykeys(window, {
    '$mod+KeyZ': unlessTyping(() => showStore.undo()),
    '$mod+Shift+KeyZ': unlessTyping(() => showStore.redo()),
    'Control+KeyY': unlessTyping(() => showStore.redo()),
  })
  onScopeDispose(stop)
}

/** Whether keys go into a field that takes text and holds something not taken over yet. */
function isTextField(target: EventTarget | null): boolean {
  if (target instanceof HTMLElement && target.dataset['undo'] === 'show') return false
  if (target instanceof HTMLTextAreaElement) return true
  return target instanceof HTMLInputElement && target.type !== 'range' && target.type !== 'checkbox'
}
