import { onScopeDispose } from 'vue'
import { tinykeys } from 'tinykeys'
import { useEngineStore } from '../engine/engine.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { areKeysShown } from './keys.ts'
import { hasSingleKeys } from './use-single-keys.ts'
import { useUndo } from './use-undo.ts'
import { useVoiceStore } from '../sound/voice.store.ts'

const SCENE_KEYS = Array.from({ length: 9 }, (_, index) => `Digit${index + 1}`)

/** Keys that hold on every page, but not in a field in which something is being typed: undo, redo, mute, scenes on air, the card. */
export function useShortcuts(): void {
  const showStore = useShowStore()
  const engine = useEngineStore()
  const voice = useVoiceStore()
  const { undo, redo } = useUndo()
  const unlessTyping = (run: () => void) => (event: KeyboardEvent) => {
    if (event.defaultPrevented || isTextField(event.target) || isInList(event.target)) return
    event.preventDefault()
    run()
  }
  const single = (run: () => void) => {
    const act = unlessTyping(run)
    return (event: KeyboardEvent) => (hasSingleKeys.value ? act(event) : undefined)
  }
  const stop = tinykeys(window, {
    '$mod+KeyZ': unlessTyping(undo),
    '$mod+Shift+KeyZ': unlessTyping(redo),
    'Control+KeyY': unlessTyping(redo),
    '?': unlessTyping(() => (areKeysShown.value = true)),
    'Shift+?': unlessTyping(() => (areKeysShown.value = true)),
    KeyM: single(() => voice.toggleMute()),
    Digit0: single(() => engine.toggleCard()),
    ...Object.fromEntries(SCENE_KEYS.map((code, index) => [code, single(() => takeScene(index))])),
  })
  onScopeDispose(stop)

  /** Brings a scene on air by its number; while nothing is on air a number is no reason to change what will be. */
  function takeScene(index: number): void {
    const scene = showStore.show?.scenes[index]
    if (scene !== undefined && engine.isFeedOn && showStore.isEditor) engine.takeOnAir(scene.id)
  }
}

/** Whether letters and digits choose from a list, or belong to a question. */
function isInList(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('[role=listbox], [role=menu], [role=dialog]') !== null
}

/** Whether keys go into a field that takes text and holds something not taken over yet. */
function isTextField(target: EventTarget | null): boolean {
  if (target instanceof HTMLElement && target.dataset['undo'] === 'show') return false
  if (target instanceof HTMLTextAreaElement) return true
  return target instanceof HTMLInputElement && target.type !== 'range' && target.type !== 'checkbox'
}
